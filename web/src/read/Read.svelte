<script lang="ts">
  import { untrack } from 'svelte';
  import type { Reading } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import { tell } from '../ui/toaster';
  import { count, many } from '../ui/words';
  import Borders from './Borders.svelte';
  import type { Cursor } from './cursor';
  import Evidence from './Evidence.svelte';
  import FoldPreview from './FoldPreview.svelte';
  import { letter } from './letters';
  import { Lines } from './lines.svelte';
  import MarkBar, { type Mark } from './MarkBar.svelte';
  import RawGrid from './RawGrid.svelte';
  import ReadAgain from './ReadAgain.svelte';
  import {
    elsewhere,
    foldOf,
    pickOf,
    together,
    toggled,
    withPick,
    withSkipped,
    withTitleLine,
    withTitles,
  } from './reading';

  let { open }: { open: OpenPlan } = $props();

  const COLUMNS = 60;
  // a plan's page is made anew for another plan
  const lines = untrack(() => new Lines(open.view.id, COLUMNS, tell));
  let cursor = $state.raw<Cursor>({ line: 1, column: 0, anchor: 0 });
  let goTo = $state('');
  let finder = $state<HTMLInputElement>();
  let grid = $state<ReturnType<typeof RawGrid>>();
  let unfolded = $state(false);

  const source = $derived(open.view.source);
  const reading = $derived(source.reading);
  const wanted = $derived(open.plan.reading);
  const here = $derived(lines.at(cursor.line));
  const fold = $derived(reading.fold ?? (unfolded ? undefined : source.proposals.fold));
  const first = $derived(Math.min(cursor.column, cursor.anchor));
  const last = $derived(Math.max(cursor.column, cursor.anchor));
  const chosen = $derived(source.titles.slice(first, last + 1));
  const isJson = $derived(reading.format === 'json');

  const folded = $derived.by(() => {
    if (!fold) return new Set<string>();
    const at = (name: string | undefined) =>
      source.titles.findIndex((t) => t.name === name || t.title === name || t.letter === name);
    if (fold.pattern) {
      const match = new RegExp(fold.pattern, 'i');
      return new Set(source.titles.filter((t) => match.test(t.title)).map((t) => t.letter));
    }
    const [from, to] = [at(fold.from), at(fold.to)];
    return new Set(source.titles.slice(from, to + 1).map((t) => t.letter));
  });

  function put(next: Reading) {
    open.putReading(next);
  }

  function place(next: Cursor) {
    cursor = {
      line: Math.max(1, Math.min(source.lines, next.line)),
      column: Math.max(0, Math.min(source.width - 1, next.column)),
      anchor: Math.max(0, Math.min(source.width - 1, next.anchor)),
    };
    if (cursor.column < lines.firstColumn || cursor.column >= lines.firstColumn + COLUMNS) {
      lines.goToColumn(Math.floor(cursor.column / COLUMNS) * COLUMNS);
    }
  }

  function move(down: number, right: number, extend = false) {
    const column = cursor.column + right;
    place({ line: cursor.line + down, column, anchor: extend ? cursor.anchor : column });
    grid?.reveal(cursor.line);
  }

  function firstText(): string {
    return here?.cells.find((c) => c.text.trim())?.text.trim() ?? '';
  }

  function pick() {
    const at = cursor.column - lines.firstColumn;
    if (!here?.cells[at]?.text) return;
    put(
      withPick(wanted, pickOf(letter(cursor.column), cursor.line, here.cells[at - 1]?.text ?? '')),
    );
  }

  function foldColumns() {
    if (reading.fold) put({ ...wanted, fold: undefined });
    else if (last > first) put({ ...wanted, fold: foldOf(chosen[0]!.name, chosen.at(-1)!.name) });
  }

  function eachColumn(setting: 'omit' | 'fillDown') {
    // what was found to lie beside the table is omitted unless a person says otherwise
    let list = setting === 'omit' ? reading.omit : wanted[setting];
    for (const column of chosen) list = toggled(list, column.name);
    const none = setting === 'omit' ? [] : undefined;
    put({ ...wanted, [setting]: list?.length ? list : none });
  }

  const lineMarks = $derived<Mark[]>(
    [
      {
        keys: ['h'],
        say: 'Titles',
        on: here?.role === 'titles',
        act: () => put(withTitles(wanted, cursor.line)),
      },
      {
        keys: ['+'],
        say: 'also',
        off: here?.role === 'titles',
        act: () => put(withTitleLine(wanted, reading.titleRows ?? [], cursor.line)),
      },
      {
        keys: ['u'],
        say: 'Units',
        on: here?.role === 'units',
        act: () =>
          put({
            ...wanted,
            unitsRow: here?.role === 'units' ? 0 : cursor.line,
            firstRow: undefined,
          }),
      },
      { keys: ['['], say: 'First', act: () => put({ ...wanted, firstRow: cursor.line }) },
      { keys: [']'], say: 'Last', act: () => put({ ...wanted, lastRow: cursor.line }) },
      {
        keys: ['x'],
        say: 'Leave out',
        on: reading.skip?.some((s) => s.line === cursor.line),
        off: !here,
        act: () => put(withSkipped(wanted, cursor.line, firstText())),
      },
    ].filter((m) => !isJson || ['[', ']', 'x'].includes(m.keys[0]!)),
  );
  const cellMarks = $derived<Mark[]>([
    {
      keys: ['p'],
      say: 'Pick',
      on: reading.picks?.some((p) => p.column + p.line === letter(cursor.column) + cursor.line),
      off: !here?.cells[cursor.column - lines.firstColumn]?.text,
      act: pick,
    },
  ]);
  const columnMarks = $derived<Mark[]>([
    {
      keys: ['f'],
      say: reading.fold ? 'Unfold' : 'Fold',
      off: !reading.fold && last === first,
      on: !!reading.fold,
      act: foldColumns,
    },
    {
      keys: ['d'],
      say: 'Fill down',
      on: chosen.some((c) => reading.fillDown?.includes(c.name)),
      act: () => eachColumn('fillDown'),
    },
    {
      keys: ['o'],
      say: 'Omit',
      on: chosen.some((c) => reading.omit?.includes(c.name)),
      act: () => eachColumn('omit'),
    },
  ]);

  useKeys(() => [
    { keys: ['j'], say: '', act: () => move(1, 0) },
    { keys: ['k'], say: '', act: () => move(-1, 0) },
    { keys: ['ArrowDown'], say: '', act: () => move(1, 0) },
    { keys: ['ArrowUp'], say: '', act: () => move(-1, 0) },
    { keys: ['ArrowRight'], say: '', act: (e) => move(0, 1, e.shiftKey) },
    { keys: ['ArrowLeft'], say: '', act: (e) => move(0, -1, e.shiftKey) },
    { keys: ['PageDown'], say: '', act: () => move(18, 0) },
    { keys: ['PageUp'], say: '', act: () => move(-18, 0) },
    { keys: ['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight'], say: 'cell' },
    ...[...lineMarks, ...cellMarks, ...columnMarks].map((m) => ({
      ...m,
      say: '',
      act: m.off ? () => {} : m.act,
    })),
    { keys: ['l'], say: 'go to a line', act: () => finder?.focus() },
  ]);
</script>

<div class="body">
  <section class="raw">
    <div class="bt sheets">
      {#if source.entries.length > 1}
        <label class="q" for="entry">file</label>
        <select
          id="entry"
          class="ed"
          value={reading.entry}
          onchange={(e) => put(elsewhere(wanted, { entry: e.currentTarget.value }))}
        >
          {#each source.entries as entry (entry)}<option>{entry}</option>{/each}
        </select>
      {/if}
      <div class="tabs">
        {#each source.sheets as sheet (sheet.name)}
          {@const on = sheet.name === reading.sheet || !!reading.sheets?.includes(sheet.name)}
          <span class="sheet" class:on>
            <button onclick={() => put(elsewhere(wanted, { sheet: sheet.name }))}>
              <b>{isJson && sheet.name === '.' ? 'the whole list' : sheet.name}</b>
              {#if on && !reading.sheets?.length}{count(source.lines)} lines{:else if sheet.hidden}hidden{:else if sheet.lines}{count(
                  sheet.lines,
                )} lines{/if}
            </button>
            {#if !isJson && source.sheets.length > 1 && !(on && !reading.sheets?.length)}
              <button
                class="go add"
                aria-label={on ? `without ${sheet.name}` : `read too: ${sheet.name}`}
                onclick={() => put(together(wanted, reading.sheet, sheet.name))}
                >{on ? 'without' : 'read too'}</button
              >
            {/if}
          </span>
        {:else}
          <b class="alone">{count(source.lines)} lines</b>
        {/each}
      </div>
      <form
        class="end"
        onsubmit={(e) => {
          e.preventDefault();
          place({ ...cursor, line: Number(goTo.replace(/\D/g, '')) || 1 });
          grid?.reveal(cursor.line);
          finder?.blur();
        }}
      >
        <label class="q" for="line">go to line</label>
        <input
          id="line"
          class="entry line"
          inputmode="numeric"
          bind:this={finder}
          bind:value={goTo}
        />
      </form>
    </div>
    <ReadAgain {open} />
    {#if reading.format === 'fixed'}
      <Borders {open} />
    {/if}
    <MarkBar
      line={`Line ${count(here?.lineOfSheet ?? cursor.line)}`}
      cell={`${letter(cursor.column)}${here?.lineOfSheet ?? cursor.line}`}
      columns={first === last ? letter(first) : `${letter(first)} to ${letter(last)}`}
      {lineMarks}
      {cellMarks}
      {columnMarks}
    />
    <RawGrid bind:this={grid} {open} {lines} {cursor} {folded} {place} />
    <div class="bt pages">
      <span class="q2"
        >{many(source.rows, 'record')}{reading.fold ? ', folded' : ''}, from {many(
          source.lines,
          'line',
        )}{source.blankRows ? `, ${many(source.blankRows, 'blank line')} among them` : ''}</span
      >
      <span class="end">
        {#if source.width > COLUMNS}
          <span class="q">{count(source.width)} columns</span>
          <button
            class="button small"
            disabled={lines.firstColumn === 0}
            onclick={() => move(0, -COLUMNS)}>Earlier columns</button
          >
          <button
            class="button small"
            disabled={lines.firstColumn + COLUMNS >= source.width}
            onclick={() => move(0, COLUMNS)}>Later columns</button
          >
        {/if}
        <button class="button small" onclick={() => (move(-source.lines, 0), grid?.reveal(1))}
          >First line</button
        >
        <button
          class="button small"
          onclick={() => (move(source.lines, 0), grid?.reveal(source.lines))}>Last line</button
        >
      </span>
    </div>
    {#if fold}
      <FoldPreview {open} {fold} {folded} dismiss={() => (unfolded = true)} />
    {/if}
  </section>
  <Evidence {open} />
</div>

<style>
  .raw {
    flex: 1;
    min-width: 0;
    display: flex;
    flex-direction: column;
  }
  .sheets {
    gap: 8px;
    border-bottom: 1px solid var(--ink);
    min-height: 38px;
    align-items: flex-end;
  }
  .sheets > :not(.tabs) {
    align-self: center;
  }
  .tabs {
    display: flex;
    align-items: flex-end;
    gap: 4px;
    overflow-x: auto;
    scrollbar-width: none;
    align-self: flex-end;
    min-height: 37px;
  }
  .alone {
    align-self: center;
  }
  .sheet {
    padding: 5px 10px 6px;
    color: var(--ink-2);
    margin-bottom: -1px;
    display: inline-flex;
    gap: 8px;
    border: 1px solid transparent;
    border-top-width: 4px;
  }
  .sheet button {
    cursor: pointer;
    color: inherit;
    white-space: nowrap;
  }
  .sheet.on {
    background: var(--paper);
    border-color: var(--ink);
    border-top-color: var(--zest-edge);
    border-bottom-color: var(--paper);
    color: var(--ink);
  }
  .sheet .add {
    color: var(--ink-3);
  }
  .line {
    width: 84px;
  }
  .pages {
    border-top: 1px solid var(--rule);
  }
</style>
