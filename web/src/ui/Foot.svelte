<script lang="ts">
  import { keyboard, keyName, type Key } from './keys.svelte';
  import { work } from '../run/work.svelte';

  const isOverview = (key: Key) => key.keys.includes('?');
  const shown = $derived(keyboard.shown.toReversed());
</script>

{#snippet said(key: Key)}
  <span>
    {#each key.keys as name (name)}<kbd>{keyName(name)}</kbd>{/each}{key.say}
  </span>
{/snippet}

<footer class="keys">
  <!-- those that have no room are told by the overview -->
  <span class="fitting">
    {#each shown.filter((k) => !isOverview(k)) as key (key.say)}{@render said(key)}{/each}
  </span>
  {#each shown.filter(isOverview) as key (key.say)}{@render said(key)}{/each}
  <span class="end" aria-live="polite">{work.words}</span>
</footer>
