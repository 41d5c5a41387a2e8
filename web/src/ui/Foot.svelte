<script lang="ts">
  import { keyboard } from './keys.svelte';
  import { work } from '../run/work.svelte';

  const names: Record<string, string> = { ArrowUp: '↑', ArrowDown: '↓', Escape: 'Esc', Enter: '↵' };
</script>

<footer class="keys">
  {#each keyboard.shown.slice().reverse() as key (key.say)}
    <span>
      {#each key.keys as name (name)}<kbd>{names[name] ?? name.toUpperCase()}</kbd>{/each}{key.say}
    </span>
  {/each}
  <span class="end" aria-live="polite">{work.words}</span>
</footer>
