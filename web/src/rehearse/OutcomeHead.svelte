<script lang="ts">
  import type { Outcome, RunReport } from '../api/types';
  import Bar from '../ui/Bar.svelte';
  import Slip from '../ui/Slip.svelte';
  import { count, outcomesOf, outcomeWord } from '../ui/words';
  import { rowsOf, waitingRows } from './asked';
  import TableLines from './TableLines.svelte';

  let {
    report,
    verb,
    at,
    title = '',
    kind = '',
    parents,
    run,
  }: {
    report: RunReport;
    verb: string;
    at: string;
    title?: string;
    kind?: string;
    /** By table, the number of the one whose records its own belong to. */
    parents?: (number | undefined)[];
    /** What the record is of that can be printed and filed. */
    run: number;
  } = $props();
  const into = $derived(report.destinations[0]!);
  const several = $derived(report.destinations.length > 1);
  const outcomes = $derived(outcomesOf(kind, into));
  const waiting = $derived(waitingRows(kind, into));
  const rows = (outcome: Outcome) => rowsOf(kind, into, outcome);
</script>

<div class="outcomes">
  <div class="figures">
    <span><b class="big">{title || count(report.read)}</b> {title ? verb : `rows ${verb}`}</span>
    {#each several ? [] : outcomes as outcome (outcome)}
      <span class="o {outcome}" data-outcome={outcome}
        ><Slip of={outcome} /><b class="big">{count(rows(outcome))}</b>
        {outcomeWord(outcome, kind)}</span
      >
    {/each}
    {#if waiting && !several}<span class="o waiting" data-outcome="waiting"
        ><Slip of="waiting" /><b class="big">{count(waiting)}</b> Waiting</span
      >{/if}
    <span class="end">
      <span class="q at">{at}</span>
      <a class="go" href="/runs/{run}/record" title="to be printed and filed, or as a workbook"
        >record</a
      >
    </span>
  </div>
  {#if several}<TableLines {report} {kind} {parents} />{:else}<Bar
      label={outcomes.map((o) => `${rows(o)} ${outcomeWord(o, kind).toLowerCase()}`).join(', ') +
        (waiting ? `, ${waiting} waiting` : '')}
      parts={[
        ...outcomes.map((o) => ({ name: o as string, rows: rows(o) })),
        { name: 'waiting', rows: waiting },
      ]}
    />{/if}
</div>

<style>
  .outcomes {
    padding: 8px 16px 11px;
    border-bottom: 1px solid var(--ink);
    flex: none;
  }
  .figures {
    display: flex;
    flex-wrap: wrap;
    gap: 0 24px;
    align-items: baseline;
    padding-bottom: 5px;
    white-space: nowrap;
  }
  .big {
    font-size: 17px;
    font-weight: 700;
  }
  .end {
    margin-left: auto;
    display: flex;
    gap: 12px;
    align-items: baseline;
  }
  @media (max-width: 1100px) {
    .figures {
      column-gap: 10px;
    }
    .big {
      font-size: 15px;
    }
    .at {
      display: none;
    }
  }
</style>
