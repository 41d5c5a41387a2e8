<script lang="ts">
  // Of which table a field holds the key, where nothing but a person can tell.
  import { untrack } from 'svelte';
  import { api, got } from '../api/client';
  import type { FieldInfo } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { tell } from '../ui/toaster';
  import { pointAt, toldLink } from './offers.svelte';

  interface Props {
    open: OpenPlan;
    field: FieldInfo;
  }
  let { open, field }: Props = $props();

  let tables = $state.raw<string[]>([]);
  let fields = $state.raw<FieldInfo[]>([]);
  const told = $derived(toldLink(open, field.name));
  /** Where it points so far, as far as that may be told otherwise. */
  const to = $derived(told?.to ?? field.link?.table ?? '');
  const alike = $derived(fields.filter((f) => f.type === field.type));
  const name = $derived(open.plan.connection!);

  $effect(() => {
    const params = { path: { name }, query: { counted: false } };
    got(api.GET('/api/connections/{name}/tables', { params })).then(
      (all) => (tables = all.map((t) => t.name)),
      tell,
    );
  });

  $effect(() => {
    const table = told?.to;
    untrack(() => (fields = []));
    if (!table) return;
    const params = { path: { name, table } };
    got(api.GET('/api/connections/{name}/tables/{table}', { params })).then(
      (info) => (fields = table === told?.to ? info.fields : fields),
      () => (fields = []),
    );
  });
</script>

<span class="points"
  >holds
  {#if told}
    <select
      class="ed"
      aria-label="Which field of the table it holds"
      value={told.key ?? ''}
      onchange={(e) => void pointAt(open, field.name, told.to, e.currentTarget.value || undefined)}
    >
      <option value="">the key</option>
      {#if told.key && !alike.some((f) => f.name === told.key)}<option>{told.key}</option>{/if}
      {#each alike as f (f.name)}<option>{f.name}</option>{/each}
    </select>
  {:else}the key{/if}
  of
  <select
    class="entry from"
    aria-label="Table whose key it holds"
    value={to}
    onchange={(e) => void pointAt(open, field.name, e.currentTarget.value)}
  >
    {#if told || !to}<option value="">{to ? 'no other table' : 'which table?'}</option>{/if}
    {#if to && !tables.includes(to)}<option>{to}</option>{/if}
    {#each tables as table (table)}<option>{table}</option>{/each}
  </select></span
>

<style>
  .points {
    display: inline-flex;
    gap: 6px;
    align-items: center;
  }
  .from {
    height: 24px;
    max-width: 170px;
    padding: 0 4px;
  }
  .ed {
    color: var(--ink);
    background: transparent;
  }
</style>
