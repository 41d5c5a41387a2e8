<script lang="ts">
  // The tables that a plan fills, where they are several: one is in hand.
  import { rowsOf, waitingRows } from '../rehearse/asked';
  import Bar from '../ui/Bar.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import Slip from '../ui/Slip.svelte';
  import { tell } from '../ui/toaster';
  import { count, many, outcomesOf } from '../ui/words';
  import AddTable from './AddTable.svelte';
  import type { OpenPlan } from './plan.svelte';

  let { open }: { open: OpenPlan } = $props();

  let adding = $state(false);
  const tables = $derived(open.view.tables);
  /** The last rehearsal, as far as it is of the plan as it stands. */
  const report = $derived(open.rehearsed ? open.report : undefined);

  const show = (at: number) => void open.show(at).catch(tell);
  const walk = (by: number) => show((open.view.shown + by + tables.length) % tables.length);

  function parts(name: string) {
    const into = report?.destinations.find((d) => d.table === name);
    const kind = 'rehearsal';
    return [
      ...outcomesOf(kind, into).map((o) => ({ name: o as string, rows: rowsOf(kind, into, o) })),
      { name: 'waiting', rows: waitingRows(kind, into) },
    ];
  }

  /** What a table is in this plan. */
  function place(at: number): string {
    const { parent, rows } = tables[at]!;
    return parent !== undefined && rows === open.view.source.rows
      ? `under ${tables[parent]?.name}`
      : many(rows, open.plan.destinations[at]?.split ? 'part' : 'row');
  }

  useKeys(() => [
    { keys: [','], say: '', act: () => walk(-1) },
    { keys: ['.'], say: '', act: () => walk(1) },
    { keys: [',', '.'], say: 'table' },
  ]);
</script>

<nav class="strip" aria-label="Tables that the plan fills">
  <h2>Tables</h2>
  {#each tables as table, at (at)}
    {@const bad = table.troubled - table.questions}
    {@const guesses = open.guesses.filter((g) => g.at === at).length}
    <button
      class="one"
      class:on={at === open.view.shown}
      aria-current={at === open.view.shown}
      title="{table.name}: {table.name === table.table ? '' : `records of ${table.table}, `}{many(
        table.rows,
        'row',
      )}{table.parent === undefined ? '' : `, each under its ${tables[table.parent]?.name}`}"
      onclick={() => show(at)}
    >
      <span class="said">
        <b class="m">{table.name}</b> <span class="q">{place(at)}</span>
        <span class="end">
          {#if table.matters.length}<span
              class="o waiting"
              title={table.matters.map((m) => m.message).join(' ')}
              ><Slip of="waiting" />{table.matters.length} to settle</span
            >{:else if guesses}<span class="o waiting"
              ><Slip of="waiting" />{many(guesses, 'guess', 'guesses')}</span
            >{:else}
            {#if table.questions}<span class="o waiting"
                ><Slip of="waiting" />{count(table.questions)}</span
              >{/if}
            {#if bad}<span class="o rejected"><Slip of="rejected" />{count(bad)}</span>{/if}{/if}
        </span>
      </span>
      {#if report}<Bar tiny parts={parts(table.name)} label="as it was rehearsed" />{/if}
    </button>
  {/each}
  <button class="one more" onclick={() => (adding = true)}>+ table</button>
</nav>
{#if adding}<AddTable {open} bind:shown={adding} />{/if}

<style>
  .strip {
    display: flex;
    align-items: stretch;
    border-bottom: 1px solid var(--ink);
    flex: none;
    overflow-x: auto;
    min-height: 42px;
  }
  h2 {
    padding: 0 16px;
    align-self: center;
  }
  .one {
    display: grid;
    gap: 3px;
    align-content: center;
    border-left: 1px solid var(--rule-firm);
    padding: 4px 14px 4px;
    flex: 0 1 auto;
    min-width: 132px;
    max-width: 340px;
    text-align: left;
    cursor: pointer;
  }
  .one:last-child {
    border-right: 1px solid var(--rule-firm);
  }
  .one.on {
    background: var(--sheet);
    box-shadow: inset 0 4px 0 var(--zest);
  }
  .more {
    flex: none;
    min-width: 0;
    color: var(--ink-2);
  }
  .one:focus-visible {
    outline-offset: -3px;
  }
  .said {
    display: flex;
    gap: 7px;
    align-items: baseline;
    white-space: nowrap;
    overflow: hidden;
  }
  .said > * {
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .said .q {
    flex-shrink: 1000;
  }
  .said .end {
    margin-left: auto;
    flex: none;
    display: flex;
    gap: 8px;
    padding-left: 8px;
  }
</style>
