<script lang="ts">
  // Where the value comes from.
  import { untrack, type Snippet } from 'svelte';
  import { api, got } from '../api/client';
  import type { FieldInfo, Fill, Origin } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import Pick from '../ui/Pick.svelte';
  import PolicyLine from './PolicyLine.svelte';
  import { tell } from '../ui/toaster';
  import { changeOrigin, type OriginKind } from './origins';

  interface Props {
    open: OpenPlan;
    field: FieldInfo;
    fill: Fill | undefined;
    put: (fill: Fill) => void;
    children: Snippet;
  }
  let { open, field, fill, put, children }: Props = $props();

  let linked = $state.raw<FieldInfo[]>([]);
  const kind = $derived<OriginKind>(fill?.origin.kind ?? 'database');
  const columns = $derived(open.view.source.columns.map((c) => c.name));
  const kinds = $derived(
    (
      [
        { value: 'column', text: 'column' },
        { value: 'link', text: 'link' },
        { value: 'fixed', text: 'fixed' },
        { value: 'generated', text: 'generated' },
        { value: 'database', text: 'database', hint: 'left to the database' },
      ] as { value: OriginKind; text: string; hint?: string }[]
    ).filter((k) => k.value !== 'link' || field.link),
  );

  $effect(() => {
    const link = field.link;
    if (link) untrack(() => void loadLinked(link.table));
  });

  async function loadLinked(table: string) {
    try {
      const path = { name: open.plan.connection!, table };
      linked = (await got(api.GET('/api/connections/{name}/tables/{table}', { params: { path } })))
        .fields;
    } catch (error) {
      tell(error);
    }
  }

  // why the draft chose this column, as long as it is still the one
  const because = $derived.by(() => {
    const found = open.view.evidence.find((e) => e.field === field.name);
    const drafted = found?.column ? found.column === fill?.origin.column : kind === 'generated';
    return found && drafted ? found.because : '';
  });

  function change(to: OriginKind) {
    put(changeOrigin(fill, field, to, columns, linked));
  }

  function set(part: Partial<Origin>) {
    if (fill) put({ ...fill, origin: { ...fill.origin, ...part } });
  }
</script>

<div class="bt">
  {@render children()}
  <span class="end">
    <Pick label="Where the value comes from" options={kinds} value={kind} pick={change} />
  </span>
</div>
<div class="line q2">
  {#if fill && (kind === 'column' || kind === 'link')}
    <select
      class="entry from"
      aria-label="Column"
      value={fill.origin.column}
      onchange={(e) => set({ column: e.currentTarget.value })}
    >
      {#if !columns.includes(fill.origin.column ?? '')}<option>{fill.origin.column}</option>{/if}
      {#each columns as column (column)}<option>{column}</option>{/each}
    </select>
  {/if}
  {#if fill && kind === 'link' && fill.origin.link}
    {@const link = fill.origin.link}
    <select
      class="entry from"
      aria-label="Look in"
      value={link.by}
      onchange={(e) => set({ link: { ...link, by: e.currentTarget.value } })}
    >
      {#each linked as f (f.name)}<option value={f.name}>in {f.name}</option>{/each}
    </select>
    <select
      class="entry from"
      aria-label="When missing"
      value={link.whenMissing}
      onchange={(e) =>
        set({ link: { ...link, whenMissing: e.currentTarget.value as 'reject' | 'blank' } })}
    >
      <option value="reject">missing: reject</option>
      <option value="blank">missing: blank</option>
    </select>
  {:else if fill && kind === 'fixed'}
    <input
      class="entry from"
      aria-label="Fixed value"
      placeholder="the same for all"
      value={fill.origin.value ?? ''}
      onchange={(e) => set({ value: e.currentTarget.value })}
    />
  {:else if fill && kind === 'generated'}
    <select
      class="entry from"
      aria-label="What is generated"
      value={fill.origin.generator}
      onchange={(e) => set({ generator: e.currentTarget.value as Origin['generator'] })}
    >
      <option value="who">who starts the Run</option>
      <option value="run-time">when the Run starts</option>
      <option value="file-name">name of the file</option>
      <option value="line">line in the file</option>
    </select>
  {/if}
  {#if because}<span class="q because" title={because}>{because}</span>{/if}
  {#if fill && kind !== 'database'}<PolicyLine {field} {fill} {put} />{/if}
</div>

<style>
  .bt {
    border-top: 1px solid var(--ink);
  }
  .line:empty {
    display: none;
  }
  .line {
    display: flex;
    gap: 8px 14px;
    align-items: center;
    padding: 0 12px 6px;
    flex: none;
    white-space: nowrap;
    overflow: hidden;
  }
  .because {
    overflow: hidden;
    text-overflow: ellipsis;
    order: 9;
  }
  .from {
    height: 23px;
    max-width: 150px;
    padding: 0 4px;
  }
</style>
