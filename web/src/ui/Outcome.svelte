<script lang="ts">
  import type { Outcome } from '../api/types';
  import Slip from './Slip.svelte';
  import { outcomeWord } from './words';

  /** `waiting` if a question holds the row that would be rejected without its answer. */
  let {
    of,
    waiting = false,
    kind = '',
  }: { of: Outcome; waiting?: boolean; kind?: string } = $props();
</script>

{#if waiting}<span class="o waiting"><Slip of="waiting" />Waiting</span>{:else}<span class="o {of}"
    ><Slip {of} />{outcomeWord(of, kind)}</span
  >{/if}
