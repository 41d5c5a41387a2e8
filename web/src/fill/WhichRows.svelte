<script lang="ts">
  // Which rows of the file make a record of the table in hand, and under which record.
  import type { OpenPlan } from '../plan/plan.svelte';
  import { tell } from '../ui/toaster';
  import { many } from '../ui/words';

  let { open }: { open: OpenPlan } = $props();

  const into = $derived(open.destination);
  const told = $derived(open.told);
  const parent = $derived(told.parent === undefined ? undefined : open.view.tables[told.parent]);
  const own = $derived(into.keys[0]?.fields.filter((f) => f !== told.parentField) ?? []);

  /** Tables whose records belong to those of the one in hand. */
  const below = $derived(
    open.view.tables.filter((t) => t.parent === open.view.shown).map((t) => t.name),
  );

  function where(text: string) {
    const wanted = text.trim() || undefined;
    if (wanted !== into.where) open.editDestination((d) => ({ ...d, where: wanted }));
  }
</script>

<p class="rows q2">
  {#if into.split}each part of <span class="m">{into.split.column}</span> makes a record, parted at {into.split.at
      .map((a) => `“${a}”`)
      .join(' or ')}{:else}rows{/if} where
  <input
    class="ed m"
    aria-label="Rows that go to {told.name}"
    title="a formula over columns, such as not isblank([Street]); none for every row"
    placeholder="every row"
    value={into.where ?? ''}
    onchange={(e) => where(e.currentTarget.value)}
  />, {many(told.rows, into.split ? 'part' : 'row')} of {many(
    open.view.source.rows,
    'row',
  )}{#if parent}, under <span class="m">{parent.name}</span> by
    <span class="m">{told.parentField}</span>{/if};
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
  {#if open.view.tables.length > 1}
    <button
      class="go"
      disabled={below.length > 0}
      title={below.length
        ? `records of ${below.join(', ')} belong to its own`
        : 'rows of the file fill it no longer; what is in it stays'}
      onclick={() => void open.dropTable().catch(tell)}>leave this table out</button
    >
  {/if}
</p>

<style>
  .rows {
    padding: 6px 12px 7px 16px;
    border-bottom: 1px solid var(--ink);
    line-height: 23px;
    flex: none;
    overflow-wrap: anywhere;
  }
  input {
    height: 22px;
    min-width: 74px;
    max-width: 100%;
    field-sizing: content;
  }
  select {
    height: 22px;
    max-width: 100%;
  }
</style>
