<script lang="ts">
  // Where the value comes from.
  import { untrack, type Snippet } from 'svelte';
  import { api, got } from '../api/client';
  import type { FieldInfo, Fill, Origin } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { tell } from '../ui/toaster';
  import { GENERATED } from '../ui/words';
  import FixedValue from './FixedValue.svelte';
  import LinkEditor from './LinkEditor.svelte';
  import { exchange, feedBest, toldLink } from './offers.svelte';
  import { allowedWords, bracket, changeOrigin, type OriginKind } from './origins';
  import PointsAt from './PointsAt.svelte';
  import PolicyLine from './PolicyLine.svelte';
  import SeriesEditor from './SeriesEditor.svelte';

  interface Props {
    open: OpenPlan;
    field: FieldInfo;
    fill: Fill | undefined;
    put: (fill: Fill) => void;
    children: Snippet;
  }
  let { open, field, fill, put, children }: Props = $props();

  let linked = $state.raw<FieldInfo[]>([]);
  let template = $state<HTMLInputElement>();
  /** The field of which somebody is about to say where it points. */
  let pointing = $state('');
  const kind = $derived<OriginKind>(fill?.origin.kind ?? 'database');
  const columns = $derived(open.view.source.columns.map((c) => c.name));
  const kinds = $derived(
    (
      [
        { value: 'column', text: 'Column' },
        { value: 'joined', text: 'Joined columns' },
        { value: 'formula', text: 'Formula' },
        { value: 'link', text: field.link ? 'Link' : 'Key of another table…' },
        { value: 'fixed', text: 'Fixed value' },
        { value: 'generated', text: 'Generated' },
        { value: 'database', text: 'Left to the database' },
      ] as { value: OriginKind; text: string }[]
    )
      // what can't be filled is left to the database, unless a plan says otherwise already
      .filter((k) => !field.unfillable || k.value === 'database' || k.value === kind),
  );
  // what a link is looked up by counts as its origin too
  const by = $derived(
    fill?.origin.formula !== undefined
      ? 'formula'
      : fill?.origin.template !== undefined
        ? 'joined'
        : fill?.origin.value !== undefined
          ? 'fixed'
          : 'column',
  );
  const shown = $derived(kind === 'link' ? by : kind);
  /** True where numbers are hardly what a column holds: nothing fills it yet. */
  const mayPoint = $derived(
    kind === 'database' &&
      !field.link &&
      !field.generated &&
      !field.unique &&
      !field.unfillable &&
      ['whole', 'other'].includes(field.type),
  );
  const asked = $derived(!field.link && pointing === field.name);

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

  function change(to: OriginKind) {
    pointing = to === 'link' ? field.name : '';
    if (asked) return;
    const changed = changeOrigin(fill, field, to, columns, linked);
    if (kind === 'database' && to === (field.link ? 'link' : 'column')) {
      void feedBest(open, field.name, changed);
    } else put(changed);
  }

  function set(part: Partial<Origin>) {
    if (fill) put({ ...fill, origin: { ...fill.origin, ...part } });
  }

  /** What a link is looked up by. */
  function lookUpBy(to: string) {
    const first = fill?.origin.column ?? columns[0] ?? '';
    set({
      column: to === 'column' ? first : undefined,
      template: to === 'joined' ? bracket(first) : undefined,
      formula: to === 'formula' ? bracket(first) : undefined,
      value: to === 'fixed' ? '' : undefined,
    });
  }

  /** Puts a column where the cursor stands in the template. */
  function join(column: string) {
    const text = fill?.origin.template ?? '';
    const at = template?.selectionStart ?? text.length;
    const before = text.slice(0, at);
    const gap = before && !/[\s(/-]$/.test(before) ? ' ' : '';
    set({ template: before + gap + bracket(column) + text.slice(at) });
  }
</script>

<div class="bt">
  {@render children()}
</div>
<div class="line q2">
  <select
    class="entry from kind"
    aria-label="Where the value comes from"
    value={asked ? 'link' : kind}
    onchange={(e) => change(e.currentTarget.value as OriginKind)}
  >
    {#each kinds as k (k.value)}<option value={k.value}>{k.text}</option>{/each}
  </select>
  {#if mayPoint && !asked}<button class="go" onclick={() => (pointing = field.name)}
      >does it hold the key of another table?</button
    >{/if}
  {#if asked || toldLink(open, field.name) || field.link?.declared === false}<PointsAt
      {open}
      {field}
    />{/if}
  {#if fill && kind === 'link'}
    <select
      class="entry from"
      aria-label="Looked up by"
      value={by}
      onchange={(e) => lookUpBy(e.currentTarget.value)}
    >
      <option value="column">by a column</option>
      <option value="joined">by joined columns</option>
      <option value="formula">by a formula</option>
      <option value="fixed">by a fixed value</option>
    </select>
  {/if}
  {#if fill && shown === 'column'}
    <select
      class="entry from"
      aria-label="Column"
      value={fill.origin.column}
      onchange={(e) => void exchange(open, fill, e.currentTarget.value)}
    >
      {#if !columns.includes(fill.origin.column ?? '')}<option>{fill.origin.column}</option>{/if}
      {#each columns as column (column)}<option>{column}</option>{/each}
    </select>
  {:else if fill && shown === 'joined'}
    <input
      class="entry m template"
      aria-label="Template"
      placeholder="[First name] [Last name]"
      bind:this={template}
      value={fill.origin.template ?? ''}
      onchange={(e) => set({ template: e.currentTarget.value })}
    />
    <select
      class="entry from"
      aria-label="Put a column into the template"
      value=""
      onchange={(e) => {
        if (e.currentTarget.value) join(e.currentTarget.value);
        e.currentTarget.value = '';
      }}
    >
      <option value="">+ column</option>
      {#each columns as column (column)}<option>{column}</option>{/each}
    </select>
  {:else if fill && shown === 'fixed'}
    <FixedValue
      allowed={kind === 'link' ? [] : allowedWords(field)}
      value={fill.origin.value ?? ''}
      label="Fixed value"
      set={(value) => set({ value })}
    />
  {:else if fill && kind === 'generated'}
    <select
      class="entry from wide"
      aria-label="What is generated"
      value={fill.origin.generator}
      onchange={(e) => {
        const generator = e.currentTarget.value as Origin['generator'];
        set({ generator, series: generator === 'series' ? { start: 1, step: 1 } : undefined });
      }}
    >
      {#each Object.entries(GENERATED) as [value, text] (value)}<option {value}>{text}</option
        >{/each}
    </select>
    {#if fill.origin.generator === 'series'}
      <SeriesEditor series={fill.origin.series ?? {}} change={(series) => set({ series })} />
    {/if}
  {/if}
  {#if fill && kind === 'link' && fill.origin.link}
    <LinkEditor {open} {field} link={fill.origin.link} {linked} change={(link) => set({ link })} />
  {/if}
  {#if fill && kind !== 'database'}<PolicyLine {field} {fill} {put} />{/if}
</div>
{#if fill && shown === 'formula'}
  {#key `${field.name}|${open.view.id}`}
    {#await import('./FormulaEditor.svelte') then { default: FormulaEditor }}
      <FormulaEditor
        {open}
        {fill}
        formula={fill.origin.formula ?? ''}
        change={(formula) => set({ formula })}
      />
    {/await}
  {/key}
{/if}

<style>
  .bt {
    border-top: 1px solid var(--ink);
  }
  .line:empty {
    display: none;
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 5px 12px;
    align-items: center;
    padding: 0 12px 6px;
    flex: none;
    white-space: nowrap;
  }
  .kind {
    field-sizing: content;
    font-weight: 600;
    color: var(--ink);
  }
  .from {
    height: 24px;
    max-width: 150px;
    padding: 0 4px;
  }
  .wide {
    max-width: 190px;
  }
  .template {
    width: 300px;
    height: 24px;
  }
</style>
