<script lang="ts">
  // What became of the records that a row makes in another table.
  import type { LedgerEntry } from '../api/types';
  import Outcome from '../ui/Outcome.svelte';
  import { fates } from './records.svelte';

  interface Props {
    /** Undefined as long as they are not known. */
    entries: LedgerEntry[] | undefined;
    kind: string;
  }
  let { entries, kind }: Props = $props();
</script>

{#if entries && !entries.length}<span class="q">no record</span>{/if}
{#each fates(kind, entries ?? []) as fate (fate.of + fate.waiting)}
  <span class="fate">
    <Outcome of={fate.of} {kind} waiting={fate.waiting} />
    {#if fate.records > 1}<span class="q">{fate.records}</span>{/if}
  </span>
{/each}

<style>
  .fate + .fate {
    margin-left: 8px;
  }
</style>
