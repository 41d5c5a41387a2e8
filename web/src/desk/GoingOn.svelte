<script lang="ts">
  // What is rehearsed, run or taken back just now, by anybody, and what waits for what.
  import Slip from '../ui/Slip.svelte';
  import { tell } from '../ui/toaster';
  import { nameOf, shareOf, wordsOf, work } from '../run/work.svelte';

  async function stop(id: number) {
    try {
      await work.stop(id);
    } catch (error) {
      tell(error);
    }
  }
</script>

{#if work.going.length}
  <div class="bt"><h2>Going on now</h2></div>
  <ul>
    {#each work.going as going (going.id)}
      <li>
        <b class="name"
          >{#if going.phase === 'waiting'}<Slip of="waiting" />{/if}<a
            href="/plans/{going.plan}/{going.kind === 'rehearsal' ? 'rehearse' : 'run'}"
            >{nameOf(going)}</a
          ></b
        >
        <span class="q2"
          >{going.kind === 'rehearsal' ? '' : `${going.planName}, `}by {going.startedBy}</span
        >
        <button class="go end" onclick={() => void stop(going.id)}>Stop</button>
        <progress value={shareOf(going)} aria-label="How far {nameOf(going)} has come"></progress>
        <span class="words" role="status">{wordsOf(going)}</span>
      </li>
    {/each}
  </ul>
{/if}

<style>
  ul {
    border-bottom: 1px solid var(--ink);
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
    align-items: baseline;
    padding: 6px 16px 8px;
    border-top: 1px solid var(--rule);
  }
  .name {
    display: inline-flex;
    gap: 6px;
    align-items: baseline;
  }
  .end {
    margin-left: auto;
  }
  progress {
    width: 100%;
    height: 6px;
    accent-color: var(--new);
  }
  .words {
    width: 100%;
    font-variant-numeric: tabular-nums;
  }
</style>
