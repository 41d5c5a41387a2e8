<script lang="ts">
  // Says how far a large file is when it is read again under other settings.
  import { api, got } from '../api/client';
  import type { Reached } from '../api/types';
  import { reachedWords } from '../desk/reached';
  import type { OpenPlan } from '../plan/plan.svelte';

  let { open }: { open: OpenPlan } = $props();

  const PATIENCE = 700;
  let reached = $state.raw<Reached | null>(null);

  $effect(() => {
    if (open.saving !== 'saving') {
      reached = null;
      return;
    }
    const path = { id: open.view.source.id };
    const timer = setInterval(() => {
      got(api.GET('/api/sources/{id}/progress', { params: { path } })).then(
        (r) => (reached = r.state === 'reading' ? r : null),
        () => (reached = null),
      );
    }, PATIENCE);
    return () => clearInterval(timer);
  });
</script>

{#if reached}
  <div class="again" role="status">Reading the file again: {reachedWords(reached)}</div>
{/if}

<style>
  .again {
    padding: 5px 16px;
    background: var(--zest-lit);
    border-bottom: 1px solid var(--zest-edge);
  }
</style>
