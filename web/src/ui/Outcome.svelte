<script lang="ts">
  import type { Outcome } from '../api/types';
  import Slip from './Slip.svelte';
  import { capital } from './words';

  /** `waiting` if a question holds the row that would be rejected without its answer. */
  let { of, waiting = false }: { of: Outcome; waiting?: boolean } = $props();
</script>

{#if waiting}<span class="o waiting"><Slip of="waiting" />Waiting</span>{:else}<span class="o {of}"
    ><Slip {of} />{capital(of)}</span
  >{/if}
