<script lang="ts">
  // The outcomes in the other tables that a plan fills: shown beside those of its first.
  import type { RunReport } from '../api/types';
  import Slip from '../ui/Slip.svelte';
  import { count, outcomesOf, outcomeWord } from '../ui/words';
  import { rowsOf, waitingRows } from './asked';

  interface Props {
    report: Pick<RunReport, 'destinations'>;
    /** Rehearsal, run or undo: each has outcomes of its own. */
    kind?: string;
  }
  let { report, kind = '' }: Props = $props();
  const others = $derived(report.destinations.slice(1));
</script>

{#if others.length}
  <ul class="others" aria-label="Other tables">
    {#each others as other (other.table)}
      <li>
        <span class="q">also</span> <b class="m">{other.table}</b>
        {#each outcomesOf(kind, other).filter((o) => rowsOf(kind, other, o)) as outcome (outcome)}
          <span class="o {outcome}"
            ><Slip of={outcome} />{count(rowsOf(kind, other, outcome))}
            {outcomeWord(outcome, kind).toLowerCase()}</span
          >
        {:else}
          {#if !waitingRows(kind, other)}<span class="q">no rows</span>{/if}
        {/each}
        {#if waitingRows(kind, other)}<span class="o waiting"
            ><Slip of="waiting" />{count(waitingRows(kind, other))} waiting</span
          >{/if}
      </li>
    {/each}
  </ul>
{/if}

<style>
  .others {
    list-style: none;
    margin: 0;
    padding: 5px 0 0;
    display: flex;
    flex-wrap: wrap;
    gap: 2px 28px;
  }
  li {
    display: flex;
    gap: 10px;
    align-items: baseline;
    white-space: nowrap;
  }
</style>
