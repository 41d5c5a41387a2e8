<script lang="ts">
  // What comes into each of several tables: a line a table, as long as the share of rows that go there.
  import type { RunReport } from '../api/types';
  import Bar from '../ui/Bar.svelte';
  import Slip from '../ui/Slip.svelte';
  import { count, many, outcomesOf, outcomeWord } from '../ui/words';
  import { rowsOf, waitingRows } from './asked';

  interface Props {
    report: Pick<RunReport, 'destinations' | 'read'>;
    /** Rehearsal, run or undo: each has outcomes of its own. */
    kind?: string;
    /** By table, the number of the one whose records its own belong to. */
    parents?: (number | undefined)[];
  }
  let { report, kind = '', parents = [] }: Props = $props();

  const most = $derived(Math.max(1, report.read, ...report.destinations.map((d) => d.rows)));
  const outcomes = $derived(
    report.destinations.map((into) => {
      const parts = outcomesOf(kind, into).map((o) => ({
        name: o as string,
        word: outcomeWord(o, kind),
        rows: rowsOf(kind, into, o),
      }));
      const waiting = { name: 'waiting', word: 'Waiting', rows: waitingRows(kind, into) };
      return [...parts, waiting].filter((p) => p.rows);
    }),
  );
</script>

<ul class="lines" aria-label="Tables">
  {#each report.destinations as into, at (into.table)}
    <li>
      <span class="name m" class:under={parents[at] !== undefined}>{into.table}</span>
      <span class="share"
        ><span style:width="{(100 * into.rows) / most}%"
          ><Bar
            parts={outcomes[at]!}
            label={outcomes[at]!.map((o) => `${o.rows} ${o.word.toLowerCase()}`).join(', ')}
          /></span
        ></span
      >
      <span class="counts">
        {#each outcomes[at]! as part (part.name)}
          <span class="o {part.name}" data-outcome={part.name}
            ><Slip of={part.name as 'new'} /><b>{count(part.rows)}</b>
            {part.word}</span
          >
        {:else}<span class="q">no rows</span>{/each}
      </span>
      <span class="q rows"
        >{into.rows <= report.read
          ? `${count(into.rows)} of ${many(report.read, 'row')}`
          : many(into.rows, 'part')}</span
      >
    </li>
  {/each}
</ul>

<style>
  .lines {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    grid-template-columns: max-content minmax(120px, 1fr) max-content max-content;
    gap: 3px 16px;
    max-height: 132px;
    overflow-y: auto;
  }
  li {
    display: grid;
    grid-template-columns: subgrid;
    grid-column: 1 / -1;
    align-items: center;
    line-height: 22px;
  }
  .name {
    font-weight: 560;
    max-width: 240px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .under {
    margin-left: 9px;
    padding-left: 9px;
    border-left: 1px solid var(--rule-firm);
  }
  .share :global(.bar) {
    height: 18px;
  }
  .share > span {
    display: block;
    min-width: 2px;
  }
  .counts {
    display: flex;
    gap: 14px;
    white-space: nowrap;
  }
  .rows {
    text-align: right;
    white-space: nowrap;
  }
  @media (max-width: 1100px) {
    .rows {
      display: none;
    }
    .lines {
      grid-template-columns: max-content minmax(90px, 1fr) max-content;
    }
  }
</style>
