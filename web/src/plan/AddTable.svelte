<script lang="ts">
  // A further table that rows of the file fill: one that takes columns which are left, or any other.
  import { api, ApiError, got } from '../api/client';
  import type { FurtherTable } from '../api/types';
  import { tell } from '../ui/toaster';
  import type { OpenPlan } from './plan.svelte';

  let { open, shown = $bindable() }: { open: OpenPlan; shown: boolean } = $props();

  let box = $state<HTMLDialogElement>();
  let offered = $state.raw<FurtherTable[] | null>(null);
  let tables = $state.raw<string[]>([]);
  let chosen = $state('');
  let refusal = $state('');
  const params = $derived({ path: { id: open.view.id } });

  $effect(() => {
    if (shown) box?.showModal();
    else box?.close();
  });
  $effect(() => {
    if (!shown) return;
    got(api.GET('/api/plans/{id}/further', { params })).then((all) => (offered = all), tell);
    const path = { name: open.plan.connection! };
    const query = { counted: false };
    got(api.GET('/api/connections/{name}/tables', { params: { path, query } })).then(
      (all) => (tables = all.map((t) => t.name)),
      tell,
    );
  });

  async function add(further: FurtherTable) {
    shown = false;
    await open.addTable(further).catch(tell);
  }

  async function addChosen() {
    refusal = '';
    try {
      const path = { id: open.view.id, table: chosen };
      const further = await got(api.GET('/api/plans/{id}/further/{table}', { params: { path } }));
      await add(further);
    } catch (error) {
      if (error instanceof ApiError) refusal = error.message;
      else tell(error);
    }
  }
  /** What a table takes, column by column. */
  const takes = (table: FurtherTable) =>
    table.evidence
      .filter((e) => e.column)
      .map((e) => (e.column === e.field ? e.field : `${e.field} from ${e.column}`))
      .join(', ');
</script>

<dialog
  class="leaf"
  bind:this={box}
  aria-labelledby="further-title"
  onclose={() => (shown = false)}
>
  <div class="bt">
    <h2 id="further-title">Another table</h2>
    <span class="q2">each row of the file makes records there as well</span>
    <span class="end"><button class="go" onclick={() => (shown = false)}>Close</button></span>
  </div>
  {#each offered ?? [] as table (table.destination.name ?? table.destination.table)}
    <div class="offer">
      <div>
        <b class="m">{table.destination.name ?? table.destination.table}</b>
        <span class="q2"
          >{table.above ? 'above' : 'under'}
          <span class="m">{table.above ?? table.destination.parent?.destination}</span></span
        >
        <p class="q2">{takes(table)}</p>
      </div>
      <button class="button" onclick={() => void add(table)}>Add it</button>
    </div>
  {:else}
    <p class="q2 offer">
      {offered
        ? `No table that belongs to ${open.view.tables.length === 1 ? open.name : 'one of these'}, or that it belongs to, takes the columns that are left.`
        : 'Looking for tables that take the columns which are left…'}
    </p>
  {/each}
  <form
    class="offer"
    onsubmit={(e) => {
      e.preventDefault();
      void addChosen();
    }}
  >
    <label
      >Any other
      <select class="entry m" bind:value={chosen} required>
        <option value="">which table?</option>
        {#each tables as table (table)}<option>{table}</option>{/each}
      </select></label
    >
    <button class="button" disabled={!chosen}>Add it</button>
  </form>
  {#if refusal}<p class="message" role="alert">{refusal}</p>{/if}
</dialog>

<style>
  dialog {
    width: 620px;
    padding: 0 0 8px;
  }
  .offer {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 16px;
    padding: 8px 16px;
    border-top: 1px solid var(--rule);
    overflow-wrap: anywhere;
  }
  .offer .button {
    flex: none;
  }
</style>
