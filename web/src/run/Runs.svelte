<script lang="ts">
  import { onMount } from 'svelte';
  import { api, got } from '../api/client';
  import type { RunView } from '../api/types';
  import { navigate } from '../router';
  import { useKeys } from '../ui/keys.svelte';
  import { tell } from '../ui/toaster';
  import { many } from '../ui/words';
  import RunTable from './RunTable.svelte';
  import { region } from '../ui/region';
  import RemovalDialog from '../ui/RemovalDialog.svelte';
  import { Removal } from '../ui/removal.svelte';

  let runs = $state.raw<RunView[] | null>(null);
  let at = $state(0);

  let removal = $state.raw<Removal | null>(null);

  async function load() {
    try {
      runs = await got(api.GET('/api/runs', { params: { query: { limit: 500 } } }));
    } catch (error) {
      tell(error);
    }
  }
  onMount(load);

  function ask(run: RunView) {
    removal = new Removal(
      'run',
      String(run.id),
      `${run.number ?? ''} ${run.planName}`.trim(),
      () => {
        removal = null;
        void load();
      },
    );
    void removal.ask();
  }

  useKeys(() => [
    { keys: ['j'], say: '', act: () => (at = Math.min(at + 1, (runs?.length ?? 1) - 1)) },
    { keys: ['k'], say: '', act: () => (at = Math.max(at - 1, 0)) },
    {
      keys: ['Enter'],
      say: 'open the run',
      act: () => {
        const run = runs?.[at];
        if (run)
          void navigate('/plans/:id/:stop', {
            params: { id: String(run.plan), stop: 'run' },
            search: { run: run.id },
          });
      },
    },
  ]);
</script>

<div class="pagehead">
  <h1>Runs</h1>
  <span class="q2">{runs ? many(runs.length, 'run') : ''}</span>
</div>
<div class="scroll" {@attach region('Runs')}>
  {#if runs?.length === 0}
    <p style:padding="24px 16px">
      Nothing has been run yet. A <a class="go" href="/plans">plan</a> is rehearsed first, then run.
    </p>
  {:else if runs}
    <RunTable {runs} {at} remove={ask} />
  {/if}
</div>
<RemovalDialog bind:removal />
