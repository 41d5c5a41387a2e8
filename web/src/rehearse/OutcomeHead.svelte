<script lang="ts">
  import type { RunReport } from '../api/types';
  import Bar from '../ui/Bar.svelte';
  import OtherTables from '../ui/OtherTables.svelte';
  import Slip from '../ui/Slip.svelte';
  import { count, outcomesOf, outcomeWord } from '../ui/words';

  let {
    report,
    verb,
    at,
    title = '',
    kind = '',
  }: { report: RunReport; verb: string; at: string; title?: string; kind?: string } = $props();
  const into = $derived(report.destinations[0]!);
  const outcomes = $derived(outcomesOf(kind, into));
</script>

<div class="outcomes">
  <div class="figures">
    <span><b class="big">{title || count(report.read)}</b> {title ? verb : `rows ${verb}`}</span>
    {#each outcomes as outcome (outcome)}
      <span class="o {outcome}" data-outcome={outcome}
        ><Slip of={outcome} /><b class="big">{count(into[outcome] ?? 0)}</b>
        {outcomeWord(outcome, kind)}</span
      >
    {/each}
    <span class="q at">{at}</span>
  </div>
  <Bar
    label={outcomes.map((o) => `${into[o] ?? 0} ${outcomeWord(o, kind).toLowerCase()}`).join(', ')}
    parts={outcomes.map((o) => ({ name: o, rows: into[o] ?? 0 }))}
  />
  <OtherTables {report} />
</div>

<style>
  .outcomes {
    padding: 8px 16px 11px;
    border-bottom: 1px solid var(--ink);
    flex: none;
  }
  .figures {
    display: flex;
    gap: 24px;
    align-items: baseline;
    padding-bottom: 5px;
    white-space: nowrap;
  }
  .big {
    font-size: 17px;
    font-weight: 700;
  }
  @media (max-width: 1100px) {
    .at {
      display: none;
    }
  }
  .at {
    margin-left: auto;
  }
</style>
