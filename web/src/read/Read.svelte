<script lang="ts">
  import { untrack } from 'svelte';
  import { api, got } from '../api/client';
  import type { RawLine } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import CellText from '../ui/CellText.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import { tell } from '../ui/toaster';
  import { count, many } from '../ui/words';
  import Evidence from './Evidence.svelte';
  import { letter } from './letters';
  import { region } from '../ui/region';

  let { open }: { open: OpenPlan } = $props();

  const PAGE = 60;
  let lines = $state.raw<RawLine[]>([]);
  let from = $state(1);
  let at = $state(0);
  let goTo = $state('');
  let finder = $state<HTMLInputElement>();
  const source = $derived(open.view.source);
  const width = $derived(Math.min(200, Math.max(1, ...lines.map((l) => l.cells.length))));
  const records = $derived(lines.filter((l) => l.role !== 'left-out'));
  const shown = $derived(records.length ? records : lines);
  const widths = $derived(
    Array.from({ length: width }, (_, c) => {
      const longest = Math.max(4, ...shown.map((l) => l.cells[c]?.text.length ?? 0));
      return 18 + 7.6 * Math.min(26, longest);
    }),
  );
  const line = $derived(lines[at]?.line);

  $effect(() => {
    const wanted = from;
    void source.reading;
    untrack(() => void load(wanted));
  });

  async function load(wanted: number) {
    try {
      lines = await got(
        api.GET('/api/plans/{id}/lines', {
          params: { path: { id: open.view.id }, query: { from: wanted, count: PAGE } },
        }),
      );
    } catch (error) {
      tell(error);
    }
  }

  function role(l: RawLine, i: number): string {
    if (l.role === 'titles') return 'titles';
    if (l.line === source.reading.firstRow) return 'first record';
    if (l.line === source.reading.lastRow) return 'last record';
    return l.role === 'left-out' && lines[i - 1]?.role !== 'left-out' ? 'left out' : '';
  }

  function move(by: number) {
    const next = at + by;
    if (next >= lines.length && lines.length === PAGE) {
      from = lines.at(-1)!.line;
      at = 1;
    } else if (next < 0 && from > 1) {
      from = Math.max(1, from - PAGE + 1);
      at = PAGE - 2;
    } else {
      at = Math.max(0, Math.min(lines.length - 1, next));
    }
  }

  /** Marks a line; `null` lets the mark be found again. */
  function mark(what: 'titleRows' | 'firstRow' | 'lastRow', value: number | null) {
    const reading = { ...open.plan.reading };
    if (what === 'titleRows') {
      reading.titleRows = value === null ? undefined : [value];
      reading.firstRow = undefined;
    } else {
      reading[what] = value ?? undefined;
    }
    open.putReading(reading);
  }

  useKeys(() => [
    { keys: ['j'], say: '', act: () => move(1) },
    { keys: ['k'], say: '', act: () => move(-1) },
    { keys: ['ArrowDown'], say: '', act: () => move(1) },
    { keys: ['ArrowUp'], say: '', act: () => move(-1) },
    { keys: ['h'], say: 'titles on this line', act: () => line && mark('titleRows', line) },
    { keys: ['['], say: '', act: () => line && mark('firstRow', line) },
    { keys: [']'], say: '', act: () => line && mark('lastRow', line) },
    { keys: ['[', ']'], say: 'first, last record' },
    { keys: ['l'], say: 'go to a line', act: () => finder?.focus() },
  ]);
</script>

<div class="body">
  <section class="raw">
    <div class="bt sheets">
      {#each source.sheets as sheet (sheet.name)}
        <button
          class="sheet"
          class:on={sheet.name === source.reading.sheet}
          onclick={() =>
            open.putReading({
              ...open.plan.reading,
              sheet: sheet.name,
              titleRows: undefined,
              firstRow: undefined,
              lastRow: undefined,
            })}
        >
          <b>{sheet.name}</b>
          {#if sheet.name === source.reading.sheet}{count(source.lines)} lines{:else if sheet.hidden}hidden
            sheet{:else}not used{/if}
        </button>
      {:else}
        <b>{count(source.lines)} lines</b>
      {/each}
      <form
        class="end"
        onsubmit={(e) => {
          e.preventDefault();
          from = Math.max(1, Math.min(Number(goTo) || 1, source.lines));
          at = 0;
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
    <div class="scroll sheetbox" {@attach region('Lines of the file')}>
      <table class="g" style="width: {148 + widths.reduce((a, b) => a + b, 0)}px">
        <colgroup>
          <col style="width: 96px" /><col style="width: 52px" />
          {#each widths as w, c (c)}<col style="width: {w}px" />{/each}
        </colgroup>
        <thead>
          <tr>
            <th class="r">Read as</th><th></th>
            {#each { length: width }, c (c)}<th class="letter">{letter(c)}</th>{/each}
          </tr>
        </thead>
        <tbody>
          {#each lines as l, i (l.line)}
            <tr class={l.role} class:cur={i === at} onclick={() => (at = i)}>
              <td class="t role">{role(l, i)}</td>
              <td class="ln">{l.line}</td>
              {#each { length: width }, c (c)}
                {@const cell = l.cells[c]}
                <td
                  class:r={cell?.kind === 'number'}
                  class:bad={cell?.kind === 'error'}
                  title={cell?.text}><CellText text={cell?.text} /></td
                >
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <div class="bt pages">
      <span class="q2"
        >lines {count(lines[0]?.line ?? 0)} to {count(lines.at(-1)?.line ?? 0)} of {count(
          source.lines,
        )}</span
      >
      <span class="q"
        >{many(source.rows, 'record')}{source.blankRows
          ? `, ${many(source.blankRows, 'blank line')}`
          : ''}</span
      >
      <span class="end">
        <button
          class="button small"
          disabled={from <= 1}
          onclick={() => ((from = Math.max(1, from - PAGE)), (at = 0))}>Earlier lines</button
        >
        <button
          class="button small"
          disabled={lines.length < PAGE}
          onclick={() => ((from = lines.at(-1)!.line + 1), (at = 0))}>Later lines</button
        >
        <button
          class="button small"
          onclick={() => ((from = Math.max(1, source.lines - 20)), (at = 0))}>Last lines</button
        >
      </span>
    </div>
  </section>
  <Evidence {open} {mark} />
</div>

<style>
  .raw {
    flex: 1;
    min-width: 0;
    display: flex;
    flex-direction: column;
  }
  .sheets {
    gap: 4px;
    border-bottom: 1px solid var(--ink);
    min-height: 38px;
    align-items: flex-end;
  }
  .sheets .end {
    align-self: center;
  }
  .sheets > b {
    align-self: center;
    padding-left: 4px;
  }
  .sheet {
    padding: 5px 13px 6px;
    color: var(--ink-2);
    cursor: pointer;
    margin-bottom: -1px;
  }
  .sheet.on {
    background: var(--paper);
    border: 1px solid var(--ink);
    border-top: 4px solid var(--zest-edge);
    border-bottom-color: var(--paper);
    color: var(--ink);
  }
  .line {
    width: 84px;
  }
  .sheetbox {
    flex: 1;
  }
  .letter {
    text-align: center !important;
    font-weight: 500 !important;
  }
  .role {
    background: var(--paper) !important;
    text-align: right;
    color: var(--ink-2);
    font-weight: 600;
  }
  tr.titles td:not(.role, .ln) {
    background: var(--ink);
    color: var(--sheet);
    font-weight: 650;
  }
  tr.left-out td:not(.role, .ln),
  tr.blank td:not(.role, .ln) {
    background: var(--well);
    color: var(--ink-3);
  }
  tr.cur td {
    border-bottom-color: var(--ink);
  }
  .pages {
    border-top: 1px solid var(--rule);
  }
</style>
