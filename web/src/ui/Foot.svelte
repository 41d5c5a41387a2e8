<script lang="ts">
  import { keyboard, keyName } from './keys.svelte';
  import { work } from '../run/work.svelte';
</script>

<footer class="keys">
  {#each keyboard.shown.slice().reverse() as key (key.say)}
    <span>
      {#each key.keys as name (name)}<kbd>{keyName(name)}</kbd>{/each}{key.say}
    </span>
  {/each}
  <span class="end" aria-live="polite">{work.words}</span>
</footer>
