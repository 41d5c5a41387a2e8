<script lang="ts">
  // Which rows of the file make a record of the table in hand, and under which record.
  import type { OpenPlan } from '../plan/plan.svelte';
  import { above, labelOf, partings, sameSigns, signIn } from '../plan/tables';
  import { tell } from '../ui/toaster';
  import { many } from '../ui/words';

  /** Columns that are offered to be parted, whatever their cells hold. */
  const FEW = 60;

  let { open }: { open: OpenPlan } = $props();

  const into = $derived(open.destination);
  const told = $derived(open.told);
  const parents = $derived(above(open.plan.destinations, open.view.shown, open.view.table.fields));
  const parentField = $derived(into.parent?.field ?? told.parentField);
  const under = $derived(
    parents.findIndex((p) => p.name === into.parent?.destination && p.field === parentField),
  );
  const own = $derived(into.keys[0]?.fields.filter((f) => f !== parentField) ?? []);
  /** Columns whose cells may hold several values. */
  const columns = $derived.by(() => {
    const all = open.view.source.columns;
    const some = all.length <= FEW ? all : all.filter((c) => sign(c.name));
    const names = some.map((c) => c.name);
    const said = into.split?.column;
    return said && !names.includes(said) ? [said, ...names] : names;
  });
  const parted = $derived(partings(into.split?.at ?? []));

  /** Tables whose records belong to those of the one in hand. */
  const below = $derived(
    open.plan.destinations.filter((d) => d.parent?.destination === labelOf(into)).map(labelOf),
  );

  function sign(column: string): string | undefined {
    const samples = open.view.source.columns.find((c) => c.name === column)?.samples ?? [];
    return signIn(samples.map((s) => s.text));
  }

  function where(text: string) {
    const wanted = text.trim() || undefined;
    if (wanted !== into.where) open.editDestination((d) => ({ ...d, where: wanted }));
  }

  function split(column: string) {
    const at = [sign(column) ?? ';'];
    open.editDestination((d) => ({ ...d, split: column ? { column, at } : undefined }));
  }

  function partAt(at: string[]) {
    open.editDestination((d) => ({ ...d, split: d.split && { ...d.split, at } }));
  }
</script>

<dl class="rows q2">
  <dt>from</dt>
  <dd>
    <select
      class="ed"
      aria-label="What makes a record of {told.name}"
      value={into.split?.column ?? ''}
      onchange={(e) => split(e.currentTarget.value)}
    >
      <option value="">each row</option>
      <optgroup label="where cells hold several values">
        {#each columns as name (name)}<option value={name}>each value of {name}</option>{/each}
      </optgroup>
    </select>
    {#if into.split}parted at
      <select
        class="ed"
        aria-label="Where cells of {into.split.column} are parted"
        value={parted.findIndex((p) => sameSigns(p.at, into.split!.at))}
        onchange={(e) => partAt(parted[Number(e.currentTarget.value)]!.at)}
      >
        {#each parted as one, i (one.text)}<option value={i}>{one.text}</option>{/each}
      </select>{/if}
    if
    <input
      class="ed m"
      aria-label="Rows that go to {told.name}"
      title="a formula over columns, such as not isblank([Street]); none for every row"
      placeholder="always"
      value={into.where ?? ''}
      onchange={(e) => where(e.currentTarget.value)}
    />
    <span class="told"
      >{many(told.rows, into.split ? 'part' : 'row')} of {many(open.view.source.rows, 'row')}</span
    >
  </dd>
  <dt>makes</dt>
  <dd>
    <select
      class="ed"
      aria-label="How many records rows with the same key make"
      value={into.distinct ? 'distinct' : 'each'}
      disabled={!into.keys.length && !into.distinct}
      onchange={(e) => {
        const distinct = e.currentTarget.value === 'distinct';
        open.editDestination((d) => ({ ...d, distinct }));
      }}
    >
      <option value="each">one record each</option>
      <option value="distinct">one record for each {own.join(' with ') || 'key'}</option>
    </select>
  </dd>
  {#if parents.length || into.parent}
    <dt>under</dt>
    <dd>
      <select
        class="ed"
        aria-label="What records of {told.name} belong to"
        value={under}
        onchange={(e) => void open.putUnder(parents[Number(e.currentTarget.value)]).catch(tell)}
      >
        <option value={-1}>no other record</option>
        {#each parents as one, i (`${one.at} ${one.field}`)}<option value={i}
            >{one.name}, by {one.field}</option
          >{/each}
      </select>
    </dd>
  {/if}
  {#if open.view.tables.length > 1}
    <dt>called</dt>
    <dd>
      <input
        class="ed m"
        aria-label="What the plan calls {told.name}"
        title="what questions, problems and books call these records"
        placeholder={into.table}
        value={into.name ?? ''}
        onchange={(e) => open.rename(e.currentTarget.value)}
      />
      <button
        class="go told"
        disabled={below.length > 0}
        title={below.length
          ? `records of ${below.join(', ')} belong to its own`
          : 'rows of the file fill it no longer; what is in it stays'}
        onclick={() => void open.dropTable().catch(tell)}>leave it out</button
      >
    </dd>
  {/if}
</dl>

<style>
  .rows {
    display: grid;
    grid-template-columns: max-content minmax(0, 1fr);
    column-gap: 8px;
    margin: 0;
    padding: 6px 12px 7px 16px;
    border-bottom: 1px solid var(--ink);
    line-height: 23px;
    flex: none;
    overflow-wrap: anywhere;
  }
  dd {
    margin: 0;
    display: flex;
    flex-wrap: wrap;
    column-gap: 6px;
  }
  .told {
    margin-left: auto;
  }
  input {
    height: 22px;
    min-width: 52px;
    max-width: 100%;
    field-sizing: content;
  }
  select {
    height: 22px;
    max-width: 100%;
  }
</style>
