<script lang="ts">
  // The checks of a table: formulas kept with its connection, switched on or off by the plan.
  import { untrack } from 'svelte';
  import { api, ApiError, got } from '../api/client';
  import type { TableCheck } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { tell } from '../ui/toaster';

  let { open, shown = $bindable() }: { open: OpenPlan; shown: boolean } = $props();

  let box = $state<HTMLDialogElement>();
  let checks = $state.raw<TableCheck[]>(untrack(() => open.view.checks));
  let name = $state('');
  let formula = $state('');
  let message = $state('');
  let refusal = $state('');
  const path = $derived({ name: open.plan.connection!, table: open.view.table.name });
  const off = $derived(new Set(open.destination.checksOff));

  $effect(() => {
    if (shown) box?.showModal();
    else box?.close();
  });

  async function after(now: TableCheck[]) {
    checks = now;
    await open.refresh();
  }

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    refusal = '';
    try {
      const body = { name, formula, message: message || undefined };
      await after(
        await got(
          api.PUT('/api/connections/{name}/tables/{table}/checks', { params: { path }, body }),
        ),
      );
      name = formula = message = '';
    } catch (error) {
      if (error instanceof ApiError) refusal = error.message;
      else tell(error);
    }
  }

  async function remove(check: string) {
    try {
      await after(
        await got(
          api.DELETE('/api/connections/{name}/tables/{table}/checks', {
            params: { path, query: { check } },
          }),
        ),
      );
    } catch (error) {
      tell(error);
    }
  }

  function toggle(check: string, on: boolean) {
    open.editDestination((d) => ({
      ...d,
      checksOff: on ? d.checksOff.filter((c) => c !== check) : [...d.checksOff, check],
    }));
  }
</script>

<dialog class="leaf" bind:this={box} aria-labelledby="checks-title" onclose={() => (shown = false)}>
  <div class="bt">
    <h2 id="checks-title">Checks of <span class="m">{open.view.table.name}</span></h2>
    <span class="q2">a record that breaks one is rejected, and says why</span>
    <span class="end"><button class="go" onclick={() => (shown = false)}>Close</button></span>
  </div>
  {#each checks as check (check.name)}
    <div class="check">
      <label
        ><input
          type="checkbox"
          checked={!off.has(check.name)}
          onchange={(e) => toggle(check.name, e.currentTarget.checked)}
        />
        <b>{check.name}</b></label
      >
      <span class="m">{check.formula}</span>
      <span class="q2">{check.message ?? ''}</span>
      <button class="go" aria-label="Remove {check.name}" onclick={() => void remove(check.name)}
        >Remove</button
      >
    </div>
  {:else}
    <p class="q2 none">There is none yet. The database’s own rules hold in any case.</p>
  {/each}
  <form onsubmit={keep}>
    <input
      class="entry"
      required
      maxlength="80"
      placeholder="insured on arrival"
      aria-label="Name of the check"
      bind:value={name}
    />
    <input
      class="entry m wide"
      required
      placeholder="[insured_until] >= [arrived_on]"
      aria-label="Formula of the check"
      bind:value={formula}
    />
    <input
      class="entry wide"
      maxlength="300"
      placeholder="the insurance ends before the vessel arrives"
      aria-label="What is said when it is broken"
      bind:value={message}
    />
    <button class="button main">Keep the check</button>
  </form>
  {#if refusal}<p class="message" role="alert">{refusal}</p>{/if}
  <p class="q2 none">
    Fields stand in brackets. A check holds for every Plan of this connection; the tick switches it
    for this Plan alone. With a blank field nothing can be told, and the record passes.
  </p>
</dialog>

<style>
  dialog {
    width: 780px;
    padding: 0;
  }
  .check {
    display: grid;
    grid-template-columns: 190px minmax(0, 1fr) minmax(0, 1fr) auto;
    gap: 10px;
    padding: 7px 14px;
    border-top: 1px solid var(--rule);
    align-items: baseline;
  }
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    padding: 12px 14px;
    border-top: 1px solid var(--ink);
  }
  .entry {
    height: 27px;
    width: 190px;
  }
  .wide {
    width: 345px;
  }
  .none {
    padding: 8px 14px 12px;
  }
</style>
