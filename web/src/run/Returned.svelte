<script lang="ts">
  // What became of the rows that a run rejected, once they were corrected and brought back.
  import { api, got } from '../api/client';
  import type { Outcome as OutcomeName, Returned } from '../api/types';
  import Outcome from '../ui/Outcome.svelte';
  import { region } from '../ui/region';
  import { tell } from '../ui/toaster';
  import { count, many, OUTCOMES } from '../ui/words';

  let { run }: { run: number } = $props();

  let returned = $state.raw<Returned | null>(null);
  let each = $state(false);

  $effect(() => {
    const path = { id: run };
    got(api.GET('/api/runs/{id}/returned', { params: { path } }))
      .then((answer) => (returned = answer))
      .catch(tell);
  });

  const came = $derived(
    OUTCOMES.filter((o) => returned?.outcomes[o]).map((outcome) => ({
      outcome: outcome as OutcomeName,
      rows: returned!.outcomes[outcome]!,
    })),
  );
</script>

{#if returned?.back}
  <div class="bt">
    <h2>Brought back</h2>
    <span class="q">{count(returned.back)} of {many(returned.rejected, 'rejected row')}</span>
    <button class="go end" aria-expanded={each} onclick={() => (each = !each)}
      >{each ? 'in all' : 'each row'}</button
    >
  </div>
  {#if each}
    <div class="scroll each" {@attach region('Rows brought back')}>
      <table class="g">
        <colgroup><col style:width="56px" /><col style:width="98px" /><col /></colgroup>
        <tbody>
          {#each returned.fates as fate (fate.line)}
            <tr>
              <td class="ln">{fate.line}</td>
              <td class="t"><Outcome of={fate.outcome} /></td>
              <td class="t">line {fate.lineThere} of {fate.number}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    {#if returned.fates.length < returned.back}<p class="q say">
        the first {returned.fates.length}
      </p>{/if}
  {:else}
    <p class="say">
      {#each came as part (part.outcome)}
        <span class="part"><Outcome of={part.outcome} /> <b>{count(part.rows)}</b></span>
      {/each}
      {#if returned.back < returned.rejected}<span class="part q2"
          >not yet <b>{count(returned.rejected - returned.back)}</b></span
        >{/if}
    </p>
  {/if}
{/if}

<style>
  .each {
    flex: none;
    max-height: 176px;
  }
  .say {
    padding: 6px 16px 10px;
    display: flex;
    flex-wrap: wrap;
    gap: 4px 16px;
  }
  .part {
    white-space: nowrap;
  }
</style>
