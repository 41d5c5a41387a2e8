<script lang="ts">
  // Which record of the other table is meant, and what happens if there is none.
  import { api, got } from '../api/client';
  import type { FieldInfo, Lookup, Origin } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import CreateEditor from './CreateEditor.svelte';
  import PopUp from '../ui/PopUp.svelte';
  import { count } from '../ui/words';

  type Link = NonNullable<Origin['link']>;
  interface Props {
    open: OpenPlan;
    field: FieldInfo;
    link: Link;
    /** Fields of the other table. */
    linked: FieldInfo[];
    change: (link: Link) => void;
  }
  let { open, field, link, linked, change }: Props = $props();

  const IGNORED: [Link['ignoring'][number], string][] = [
    ['case', 'capitals'],
    ['spaces', 'spaces'],
    ['punctuation', 'signs'],
    ['accents', 'accents'],
    ['leading-zeros', 'zeros before'],
  ];
  const columns = $derived(open.view.source.columns.map((c) => c.name));
  const free = $derived(
    linked.filter((f) => f.name !== link.by && !link.also.some((a) => a.field === f.name)),
  );

  /** How many rows of the column each field knows; empty where that is not known. */
  let found = $state.raw<Lookup[]>([]);
  const looked = $derived(open.fill(field.name)?.origin.column);

  $effect(() => {
    void open.view.source.reading;
    const column = looked;
    if (!column) {
      found = [];
      return;
    }
    const params = { path: { id: open.view.id }, query: { field: field.name, column } };
    got(api.GET('/api/plans/{id}/lookups', { params })).then(
      (all) => (found = column === looked ? all : found),
      () => (found = []),
    );
  });

  function inField(name: string): string {
    const known = found.find((f) => f.field === name);
    return known ? `in ${name}: ${count(known.found)} of ${count(known.rows)}` : `in ${name}`;
  }

  function ignore(what: Link['ignoring'][number], on: boolean) {
    const others = link.ignoring.filter((i) => i !== what);
    change({ ...link, ignoring: on ? [...others, what] : others });
  }

  function also(at: number, part: Partial<Link['also'][number]>) {
    change({ ...link, also: link.also.map((a, i) => (i === at ? { ...a, ...part } : a)) });
  }
</script>

<select
  class="entry from"
  aria-label="Look in"
  value={link.by}
  onchange={(e) => change({ ...link, by: e.currentTarget.value })}
>
  {#each linked as f (f.name)}<option value={f.name}>{inField(f.name)}</option>{/each}
</select>
{#each link.also as a, i (a.field)}
  <span class="also"
    >and <select
      class="ed"
      aria-label="Further field"
      value={a.field}
      onchange={(e) => also(i, { field: e.currentTarget.value })}
    >
      <option>{a.field}</option>
      {#each free as f (f.name)}<option>{f.name}</option>{/each}
    </select>
    is
    <select
      class="ed"
      aria-label="Column of {a.field}"
      value={a.column}
      onchange={(e) => also(i, { column: e.currentTarget.value })}
    >
      {#each columns as column (column)}<option>{column}</option>{/each}
    </select>
    <button
      class="go"
      aria-label="Not by {a.field}"
      onclick={() => change({ ...link, also: link.also.filter((_, at) => at !== i) })}>✕</button
    ></span
  >
{/each}
<PopUp
  words={link.ignoring.length
    ? `whatever ${link.ignoring.map((i) => IGNORED.find((x) => x[0] === i)?.[1]).join(', ')}`
    : 'to the letter'}
>
  {#each IGNORED as [value, text] (value)}
    <label
      ><input
        type="checkbox"
        checked={link.ignoring.includes(value)}
        onchange={(e) => ignore(value, e.currentTarget.checked)}
      />
      {text} don’t matter</label
    >
  {/each}
  {#if free.length && columns.length}
    <button
      class="go"
      onclick={() =>
        change({
          ...link,
          also: [...link.also, { field: free[0]!.name, column: columns[0]! }],
        })}>look in one more field of {field.link?.table}</button
    >
  {/if}
</PopUp>
<select
  class="entry from"
  aria-label="When missing"
  value={link.whenMissing}
  onchange={(e) => change({ ...link, whenMissing: e.currentTarget.value as Link['whenMissing'] })}
>
  <option value="ask">missing: ask</option>
  <option value="reject">missing: reject</option>
  {#if field.nullable}<option value="blank">missing: blank</option>{/if}
  <option value="create">missing: create</option>
</select>
{#if link.whenMissing === 'create' && field.link}
  <CreateEditor {link} table={field.link.table} {linked} {columns} {change} />
{/if}

<style>
  .from {
    height: 24px;
    max-width: 190px;
    padding: 0 4px;
  }
  .ed {
    color: var(--ink);
    background: transparent;
  }
</style>
