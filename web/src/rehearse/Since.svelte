<script lang="ts">
  // How a rehearsal differs from the one before it.
  import { api, got } from '../api/client';
  import type { Outcome, Since } from '../api/types';
  import { tell } from '../ui/toaster';
  import { many, outcomeWord, when } from '../ui/words';

  type Of = Outcome | 'waiting';
  interface Props {
    run: number;
    /** The first table; what moved in others is named with it. */
    first: string;
    show: (to: Of, table: string) => void;
  }
  let { run, first, show }: Props = $props();

  let since = $state.raw<Since | null>(null);

  $effect(() => {
    const path = { id: run };
    got(api.GET('/api/runs/{id}/since', { params: { path } }))
      .then((answer) => (since = answer.since ?? null))
      .catch(tell);
  });

  const word = (of: string) => (of === 'waiting' ? 'Waiting' : outcomeWord(of as Outcome));
  const moves = $derived(
    (since?.moves ?? []).map((m) => ({
      ...m,
      lines: m.rows <= m.lines.length ? m.lines : [...m.lines, '…'],
    })),
  );
</script>

{#if since?.comparable}
  <p class="since q2">
    {#if moves.length}
      Since {when(since.at)}:
      {#each moves as move, i (`${move.table} ${move.from} ${move.to}`)}
        {i ? ' · ' : ''}<button
          class="go"
          title="lines {move.lines.join(', ')}"
          onclick={() => show(move.to as Of, move.table)}
          >{many(move.rows, 'row')} from {word(move.from)} to {word(move.to)}{move.table === first
            ? ''
            : ` in ${move.table}`}</button
        >
      {/each}
    {:else}The same as at {when(since.at)}, row by row{/if}
  </p>
{:else if since}
  <p class="since q2">Other rows were read at {when(since.at)}, so this is not compared with it.</p>
{/if}

<style>
  .since {
    padding: 4px 16px;
    border-bottom: 1px solid var(--rule);
    flex: none;
  }
  .since button:disabled {
    color: inherit;
    cursor: default;
  }
</style>
