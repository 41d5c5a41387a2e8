<script lang="ts">
  import { onMount } from 'svelte';
  import { api, got } from '../api/client';
  import type { PlanSummary } from '../api/types';
  import { navigate } from '../router';
  import { useKeys } from '../ui/keys.svelte';
  import { tell } from '../ui/toaster';
  import { many, when } from '../ui/words';
  import { region } from '../ui/region';
  import RemovalDialog from '../ui/RemovalDialog.svelte';
  import { Removal } from '../ui/removal.svelte';

  let plans = $state.raw<PlanSummary[] | null>(null);
  let at = $state(0);
  let search = $state('');
  const shown = $derived(
    (plans ?? []).filter((p) =>
      `${p.name} ${p.table} ${p.source ?? ''}`.toLowerCase().includes(search.toLowerCase()),
    ),
  );

  let removal = $state.raw<Removal | null>(null);

  async function load() {
    try {
      plans = await got(api.GET('/api/plans'));
    } catch (error) {
      tell(error);
    }
  }
  onMount(load);

  function ask(event: MouseEvent, plan: PlanSummary) {
    event.stopPropagation();
    removal = new Removal('plan', String(plan.id), plan.name, () => {
      removal = null;
      void load();
    });
    void removal.ask();
  }

  function enter(plan: PlanSummary | undefined) {
    if (plan) void navigate('/plans/:id/:stop', { params: { id: String(plan.id), stop: 'fill' } });
  }

  useKeys(() => [
    { keys: ['j'], say: '', act: () => (at = Math.min(at + 1, shown.length - 1)) },
    { keys: ['k'], say: '', act: () => (at = Math.max(at - 1, 0)) },
    { keys: ['Enter'], say: 'open the plan', act: () => enter(shown[at]) },
  ]);
</script>

<div class="pagehead">
  <h1>Plans</h1>
  <span class="q2">{plans ? many(plans.length, 'plan') : ''}</span>
  <span class="end"
    ><input
      class="entry"
      placeholder="Find a plan"
      aria-label="Find a plan"
      bind:value={search}
    /></span
  >
</div>
<div class="scroll" {@attach region('Plans')}>
  {#if plans && plans.length === 0}
    <p class="none">
      No plan yet. <a class="go" href="/">Drop a file on the Desk</a> and one is drafted for you.
    </p>
  {:else}
    <table class="g">
      <colgroup
        ><col style:width="28%" /><col style:width="13%" /><col /><col style:width="90px" /><col
          style:width="130px"
        /><col style:width="120px" /><col style:width="80px" /></colgroup
      >
      <thead
        ><tr
          ><th>Plan</th><th>Into</th><th>Last file</th><th class="r">Revision</th><th>Saved</th><th
            >By</th
          ><th></th></tr
        ></thead
      >
      <tbody>
        {#each shown as plan, i (plan.id)}
          <tr class="pickable" class:cur={i === at} onclick={() => enter(plan)}>
            <td class="t"
              ><a href="/plans/{plan.id}/fill" onclick={(e) => e.stopPropagation()}
                ><b>{plan.name}</b></a
              ></td
            >
            <td>{plan.table}</td>
            <td>{plan.source ?? ''}</td>
            <td class="r">{plan.revision}</td>
            <td class="t q2">{when(plan.savedAt)}</td>
            <td class="t">{plan.savedBy}</td>
            <td class="t"><button class="go" onclick={(e) => ask(e, plan)}>Delete</button></td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</div>
<RemovalDialog bind:removal />

<style>
  .none {
    padding: 24px 16px;
  }
</style>
