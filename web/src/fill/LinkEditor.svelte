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
  const used = $derived([link.by, ...link.with, ...link.also.map((a) => a.field)]);
  const free = $derived(linked.filter((f) => !used.includes(f.name)));
  const own = $derived([link.by, ...link.with]);

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
    const params = {
      path: { id: open.view.id },
      query: { ...open.into, field: field.name, column },
    };
    got(api.GET('/api/plans/{id}/lookups', { params })).then(
      (all) => (found = column === looked ? all : found),
      () => (found = []),
    );
  });

  /** Where it can be looked up: in a field, or in several whose values stand in the same cell. */
  const places = $derived.by(() => {
    const all = [
      ...found.filter((f) => f.with.length).map((f) => [f.field, ...f.with]),
      ...linked.map((f) => [f.name]),
    ];
    return all.some((fields) => named(fields) === named(own)) ? all : [own, ...all];
  });

  /** What stands between the names of fields in one text. */
  const BETWEEN = '\u001f';
  const named = (fields: string[]) => fields.join(BETWEEN);

  function inFields(fields: string[]): string {
    const known = found.find((f) => named([f.field, ...f.with]) === named(fields));
    const words = `in ${fields.join(' and ')}`;
    return known ? `${words}: ${count(known.found)} of ${count(known.rows)}` : words;
  }

  function lookIn([by, ...beside]: string[]) {
    const also = link.also.filter((a) => a.field !== by && !beside.includes(a.field));
    change({ ...link, by: by!, with: beside, also });
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
  class="entry from in"
  aria-label="Look in"
  value={named(own)}
  onchange={(e) => lookIn(e.currentTarget.value.split(BETWEEN))}
>
  {#each places as fields (named(fields))}
    <option value={named(fields)}>{inFields(fields)}</option>
  {/each}
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
  {#if free.length || link.with.length}
    <label class="beside"
      >Its cell also holds <select
        class="ed"
        aria-label="Beside it in the cell"
        value={link.with[0] ?? ''}
        onchange={(e) =>
          lookIn([link.by, ...(e.currentTarget.value ? [e.currentTarget.value] : [])])}
      >
        <option value="">nothing else</option>
        {#each [...link.with, ...free.map((f) => f.name)] as name (name)}<option>{name}</option
          >{/each}
      </select></label
    >
  {/if}
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
{#if field.link && (link.whenMissing === 'create' || (link.whenMissing === 'ask' && link.create.length))}
  <CreateEditor {link} table={field.link.table} {linked} {columns} {change} />
{/if}

<style>
  .from {
    height: 24px;
    max-width: 190px;
    padding: 0 4px;
  }
  .in {
    max-width: 270px;
  }
  .ed {
    color: var(--ink);
    background: transparent;
  }
</style>
