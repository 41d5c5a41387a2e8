<script lang="ts">
  // The equation an undo ends in: what the run wrote, and what became of each record of it.
  import type { RunReport } from '../api/types';
  import Slip from '../ui/Slip.svelte';
  import { count, UNDO_OUTCOMES } from '../ui/words';
  import OutcomeTitles from './OutcomeTitles.svelte';

  let { report }: { report: RunReport } = $props();
  /** What came about anywhere; an undo brings records back only if it takes back an undo. */
  const outcomes = $derived(
    UNDO_OUTCOMES.filter(
      (o) => o === 'removed' || o === 'changed' || report.destinations.some((d) => d[o]),
    ),
  );
  const left = (into: RunReport['destinations'][number]) =>
    into.rows - UNDO_OUTCOMES.reduce((sum, o) => sum + (into[o] ?? 0), 0);
</script>

<div class="bt">
  <h2>Does it add up?</h2>
  {#if report.balanced}<b class="o new"><Slip of="check" />Yes, every record is accounted for</b>
  {:else}<b class="o rejected"><Slip of="rejected" />No: this undo is faulty</b>{/if}
</div>
<table class="g books">
  <thead>
    <tr>
      <th></th><th class="r">Written</th>
      <OutcomeTitles {outcomes} kind="undo" />
      <th class="r">Left over</th>
    </tr>
  </thead>
  <tbody>
    {#each report.destinations as into (into.table)}
      <tr>
        <td class="t"><b class="m">{into.table}</b></td>
        <td class="r"><b>{count(into.rows)}</b></td>
        {#each outcomes as outcome, i (outcome)}<td class="r"
            ><span class="q sign">{i ? '+' : '='}</span>{count(into[outcome] ?? 0)}</td
          >{/each}
        <td class="r new"><b>{left(into)}</b></td>
      </tr>
    {/each}
  </tbody>
</table>

<style>
  .books {
    border-bottom: 1px solid var(--ink);
    flex: none;
  }
  .sign {
    float: left;
  }
</style>
