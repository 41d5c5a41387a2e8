<script lang="ts">
  // A cell's text; blanks at its ends show as dots, so that they can be seen.
  import { ends } from './words';

  let { text }: { text: string | undefined | null } = $props();
  const parts = $derived(ends(text ?? ''));
</script>

{#if parts.before}<span class="sp">{'·'.repeat(Math.min(parts.before, 8))}</span
  >{/if}{parts.middle}{#if parts.after}<span class="sp">{'·'.repeat(Math.min(parts.after, 8))}</span
  >{/if}
