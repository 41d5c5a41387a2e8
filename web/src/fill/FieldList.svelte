<script lang="ts">
  import type { FieldInfo, WindowRow } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import { reveal } from '../ui/reveal';
  import Slip from '../ui/Slip.svelte';
  import Value from '../ui/Value.svelte';
  import { columnsOf, count, fieldWords, many, phrase } from '../ui/words';
  import Checks from './Checks.svelte';
  import Corrections from './Corrections.svelte';
  import AddTable from '../plan/AddTable.svelte';
  import { COLUMN, feed, FIELD } from './offers.svelte';
  import WhichRows from './WhichRows.svelte';

  let { open, rows }: { open: OpenPlan; rows: WindowRow[] } = $props();

  let finder = $state<HTMLInputElement>();
  let list = $state<HTMLElement>();
  let search = $state('');
  /** The field that a dragged column is over. */
  let over = $state('');
  let checking = $state(false);
  let correcting = $state(false);
  let adding = $state(false);
  /** True once somebody wants to say which rows go to the only table. */
  let choosing = $state(false);
  const fields = $derived(
    open.view.table.fields.filter((f) => f.name.toLowerCase().includes(search.toLowerCase())),
  );
  /** How a field is filled, in a few words. */
  const saidOf = (field: FieldInfo) =>
    field.name === open.told.parentField
      ? {
          column: '',
          rest: `its ${open.view.tables[open.told.parent!]?.name}, made or found in this row`,
        }
      : phrase(open.fill(field.name), field);
  const current = $derived(rows.find((r) => r.row === open.cursor));
  const selected = $derived(open.fill(open.field));
  const filledSo = (name: string) => {
    const kind = open.fill(name)?.origin.kind;
    return !!kind && kind !== 'database';
  };
  const filled = $derived(open.view.table.fields.filter((f) => filledSo(f.name)).length);
  const used = $derived(
    new Set(
      open.plan.destinations.flatMap((d) => [
        ...d.fills.flatMap((f) => columnsOf(f)),
        ...(d.split ? [d.split.column] : []),
      ]),
    ),
  );
  const lit = $derived(columnsOf(selected));
  /** True if it has to be told which rows make a record of the table in hand. */
  const several = $derived(
    open.view.tables.length > 1 || !!open.destination.where || !!open.destination.split,
  );
  const unused = $derived(
    open.view.source.columns.map((c) => c.name).filter((name) => !used.has(name)),
  );

  $effect(() => {
    const name = open.field;
    reveal(list, list?.querySelector(`[data-field="${CSS.escape(name)}"]`));
  });

  useKeys(() => [{ keys: ['f'], say: 'find a field', act: () => finder?.focus() }]);
</script>

<section class="fields" aria-label="Fields of {open.view.table.name}">
  <div class="bt">
    <h2 title="Fields of {open.view.table.name}">
      Fields of <span class="m">{open.view.table.name}</span>
    </h2>
    <span class="q count">{filled} of {open.view.table.fields.length} filled</span>
    <span class="end"
      ><input
        class="entry find"
        placeholder="find"
        aria-label="Find a field"
        bind:this={finder}
        bind:value={search}
        onkeydown={(e) => {
          if (e.key === 'Enter' && fields[0]) open.field = fields[0].name;
          if (e.key === 'Enter' || e.key === 'Escape') {
            search = '';
            finder?.blur();
          }
        }}
      /></span
    >
  </div>
  {#if several || choosing}
    <WhichRows {open} />
  {/if}
  <div class="scroll list" bind:this={list}>
    {#each fields as field (field.name)}
      {@const said = saidOf(field)}
      {@const value = current?.values.find((v) => v.field === field.name)}
      {@const counted = open.view.troubles.find((t) => t.field === field.name)}
      {@const asked = counted?.questions ?? 0}
      {@const trouble = (counted?.rows ?? 0) - asked}
      {@const matter = open.view.matters.find((m) => m.field === field.name)}
      <button
        class="f"
        class:on={field.name === open.field}
        data-field={field.name}
        aria-current={field.name === open.field}
        class:over={over === field.name}
        class:idle={!filledSo(field.name)}
        draggable="true"
        ondragstart={(e) => e.dataTransfer?.setData(FIELD, field.name)}
        onclick={() => (open.field = field.name)}
        ondragover={(e) => {
          if (!e.dataTransfer?.types.includes(COLUMN)) return;
          e.preventDefault();
          over = field.name;
        }}
        ondragleave={() => (over = '')}
        ondrop={(e) => {
          e.preventDefault();
          over = '';
          const column = e.dataTransfer?.getData(COLUMN);
          if (column) void feed(open, field.name, column);
        }}
      >
        <span class="n"><b class="m">{field.name}</b><i>{fieldWords(field)}</i></span>
        <span class="s m" dir="auto"
          ><Value value={value?.value} {field} connection={open.plan.connection} /></span
        >
        <span class="w">
          {#if said.column}<span class="col" class:lit={lit.includes(said.column)}
              >{said.column}</span
            >{/if}{said.rest}
        </span>
        <span class="b">
          {#if matter}<span class="o waiting" title={matter.message}
              ><Slip of="waiting" />to fill</span
            >
          {:else if open.isGuess(field.name)}<span
              class="o waiting"
              title="a guess of the draft, which nobody has confirmed"
              ><Slip of="waiting" />to confirm</span
            >
          {:else}
            {#if asked}<span class="o waiting" title="rows that one answer for each word would free"
                ><Slip of="waiting" />{count(asked)}</span
              >{/if}
            {#if trouble}<span class="o rejected"><Slip of="rejected" />{count(trouble)}</span>{/if}
          {/if}
        </span>
      </button>
    {/each}
  </div>
  <div class="unused">
    <button class="go checks" onclick={() => (checking = true)}
      >{open.view.checks.length ? many(open.view.checks.length, 'check') : 'Checks'}</button
    >
    {#if open.plan.corrections.length}
      <button class="go checks" onclick={() => (correcting = true)}
        >{many(open.plan.corrections.length, 'corrected cell')}{open.view.lapsed.length
          ? `, ${open.view.lapsed.length} lapsed`
          : ''}</button
      >
    {/if}
    {#if open.view.tables.length === 1}
      <button class="go checks" onclick={() => (adding = true)}>another table…</button>
    {/if}
    {#if !several}
      <button class="go checks" aria-pressed={choosing} onclick={() => (choosing = !choosing)}
        >which rows…</button
      >
    {/if}
    <b>Not used:</b>
    {#if unused.length}{#each unused.slice(0, 12) as name (name)}<button
          class="col point"
          draggable="true"
          title="Click to fill {open.field} with it, or drag it onto a field"
          ondragstart={(e) => e.dataTransfer?.setData(COLUMN, name)}
          onclick={() => void feed(open, open.field, name)}>{name}</button
        >{/each}{unused.length > 12 ? ` and ${count(unused.length - 12)} more` : ''}{:else}none{/if}
  </div>
</section>
{#if checking}<Checks {open} bind:shown={checking} />{/if}
{#if adding}<AddTable {open} bind:shown={adding} />{/if}
{#if correcting}<Corrections {open} bind:shown={correcting} />{/if}

<style>
  .fields {
    width: 356px;
    border-right: 1px solid var(--ink);
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
  h2 .m {
    font-size: 15px;
  }
  .count {
    flex: none;
  }
  .point {
    cursor: grab;
  }
  .f.over {
    outline: 2px solid var(--ink);
    outline-offset: -2px;
  }
  .find {
    width: 64px;
    height: 24px;
  }
  .list {
    flex: 1;
  }
  .f {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    grid-template-rows: 21px 22px;
    padding: 3px 12px 3px 16px;
    height: 51px;
    width: 100%;
    border-top: 1px solid var(--rule);
    align-items: center;
    column-gap: 8px;
    text-align: left;
    cursor: pointer;
  }
  .f:focus-visible {
    outline-offset: -3px;
  }
  .n {
    display: flex;
    gap: 8px;
    align-items: baseline;
    white-space: nowrap;
    overflow: hidden;
  }
  .n b {
    font-weight: 640;
  }
  .n i {
    font-style: normal;
    color: var(--ink-3);
  }
  .s {
    text-align: right;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    max-width: 130px;
  }
  .w {
    color: var(--ink-2);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .b {
    text-align: right;
    font-weight: 600;
  }
  .f.on {
    background: var(--sheet);
    box-shadow:
      inset 5px 0 0 var(--zest),
      inset 0 1px 0 var(--ink),
      inset 0 -1px 0 var(--ink);
  }
  .unused {
    border-top: 1px solid var(--rule);
    padding: 7px 16px;
    color: var(--ink-3);
    line-height: 22px;
  }
  .checks {
    float: right;
    margin-left: 10px;
  }
  .unused .col {
    margin-right: 4px;
  }
  .unused b {
    font-weight: 560;
    color: var(--ink-2);
  }
  /* folded to names: the middle band says the rest of the one in hand */
  @media (max-width: 1180px) {
    .fields {
      width: 232px;
    }
    .f {
      grid-template-rows: 22px;
      height: 29px;
    }
    .n i,
    .s,
    .w,
    .bt .q {
      display: none;
    }
    .b {
      white-space: nowrap;
    }
    .idle:not(.on) .n b {
      font-weight: 400;
      color: var(--ink-3);
    }
  }
  @media (max-width: 900px) {
    .fields {
      width: auto;
    }
    .list {
      max-height: 180px;
      flex: none;
    }
  }
</style>
