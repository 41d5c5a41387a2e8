<script lang="ts">
  // The outcomes in the other tables that a plan fills: shown beside those of its first.
  import type { RunReport } from '../api/types';
  import Slip from './Slip.svelte';
  import { count, OUTCOMES } from './words';

  let { report }: { report: Pick<RunReport, 'destinations'> } = $props();
  const others = $derived(report.destinations.slice(1));
</script>

{#if others.length}
  <ul class="others" aria-label="Other tables">
    {#each others as other (other.table)}
      <li>
        <span class="q">also</span> <b class="m">{other.table}</b>
        {#each OUTCOMES.filter((o) => other[o]) as outcome (outcome)}
          <span class="o {outcome}"><Slip of={outcome} />{count(other[outcome])} {outcome}</span>
        {:else}
          <span class="q">no rows</span>
        {/each}
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
