<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got } from '../api/client';
  import type { LedgerEntry, StepHelp, WindowRow } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import { tell } from '../ui/toaster';
  import { count } from '../ui/words';
  import AsItCame from './AsItCame.svelte';
  import AsItWillStand from './AsItWillStand.svelte';
  import FieldList from './FieldList.svelte';
  import OnItsWay from './OnItsWay.svelte';

  let { open }: { open: OpenPlan } = $props();

  let rows = $state.raw<WindowRow[]>([]);
  let entries = $state.raw<LedgerEntry[]>([]);
  let kinds = $state.raw<StepHelp[]>([]);
  const source = $derived(open.view.source);
  const field = $derived(
    open.view.table.fields.find((f) => f.name === open.field) ?? open.view.table.fields[0]!,
  );
  const fill = $derived(open.fill(field.name));

  $effect(() => {
    void got(api.GET('/api/steps')).then((k) => (kinds = k), tell);
  });

  // the rows around the cursor, anew after each save and each move
  $effect(() => {
    const from = Math.max(0, Math.min(open.cursor - 2, source.rows - 5));
    void open.view;
    const rehearsal = open.rehearsed ? open.rehearsal : null;
    untrack(() => void load(from, rehearsal?.id));
  });

  async function load(from: number, rehearsal: number | undefined) {
    try {
      const path = { id: open.view.id };
      rows = await got(
        api.GET('/api/plans/{id}/window', {
          params: { path, query: { ...open.into, from, count: 5 } },
        }),
      );
      entries = rehearsal ? await fates(rehearsal, from) : [];
    } catch (error) {
      tell(error);
    }
  }

  /** What became of the rows shown; where not all go to the table, they are looked for by lines. */
  async function fates(rehearsal: number, from: number): Promise<LedgerEntry[]> {
    const { where, split } = open.destination;
    const lines = rows.filter((r) => r.records).map((r) => r.line);
    const wanted = where || split ? { line: lines, limit: 100 } : { offset: from, limit: 5 };
    if ((where || split) && !lines.length) return [];
    const path = { id: rehearsal };
    const query = { ...open.into, ...wanted };
    return (await got(api.GET('/api/runs/{id}/ledger', { params: { path, query } }))).entries;
  }

  function go(to: number) {
    open.cursor = Math.max(0, Math.min(source.rows - 1, to));
  }

  async function nextTroubled() {
    try {
      const { row } = await got(
        api.GET('/api/plans/{id}/troubled', {
          params: { path: { id: open.view.id }, query: { ...open.into, after: open.cursor } },
        }),
      );
      if (row >= 0) {
        go(row);
        const window = await got(
          api.GET('/api/plans/{id}/window', {
            params: {
              path: { id: open.view.id },
              query: { ...open.into, from: row, count: 1 },
            },
          }),
        );
        const bad = window[0]?.values.find((v) => v.problem && !v.softened);
        if (bad) open.field = bad.field;
      }
    } catch (error) {
      tell(error);
    }
  }

  function moveField(by: number) {
    const names = open.view.table.fields.map((f) => f.name);
    open.field = names[(names.indexOf(field.name) + by + names.length) % names.length]!;
  }

  useKeys(() => [
    { keys: ['j'], say: '', act: () => go(open.cursor + 1) },
    { keys: ['k'], say: '', act: () => go(open.cursor - 1) },
    { keys: ['j', 'k'], say: 'record' },
    { keys: ['t'], say: 'next troubled', act: () => void nextTroubled() },
    { keys: ['ArrowDown'], say: '', act: () => moveField(1) },
    { keys: ['ArrowUp'], say: '', act: () => moveField(-1) },
    { keys: ['ArrowUp', 'ArrowDown'], say: 'field' },
  ]);
</script>

<div class="body">
  <FieldList {open} {rows} />
  <section class="right">
    <AsItCame {open} {rows} {field} {fill} {go} {nextTroubled} />
    {#key field.name}
      <OnItsWay {open} {field} {kinds} />
    {/key}
    <AsItWillStand {open} {rows} {entries} {field} {go} />
  </section>
</div>
<span class="sr" aria-live="polite">line {rows[0] ? count(rows[0].line) : ''}</span>

<style>
  .right {
    flex: 1;
    min-width: 0;
    display: flex;
    flex-direction: column;
  }
  @media (max-width: 900px) {
    .body > .right {
      max-height: none;
      overflow: visible;
    }
    .right :global(.band) {
      min-height: 300px;
      max-height: max(70vh, 300px);
    }
  }
  .sr {
    position: absolute;
    clip-path: inset(50%);
    width: 1px;
    height: 1px;
    overflow: hidden;
  }
</style>
