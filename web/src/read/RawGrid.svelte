<script lang="ts">
  // The whole file as it is, line by line; only what is seen is in the page.
  import { untrack } from 'svelte';
  import type { RawLine } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import CellText from '../ui/CellText.svelte';
  import { region } from '../ui/region';
  import { Tall } from '../ui/tall.svelte';
  import { fit, letters as lettersOf, longestOf, needed } from '../ui/widths';
  import { letter } from './letters';
  import type { Lines } from './lines.svelte';
  import type { Cursor } from './cursor';

  interface Props {
    open: OpenPlan;
    lines: Lines;
    cursor: Cursor;
    folded: Set<string>;
    place: (cursor: Cursor) => void;
  }
  let { open, lines, cursor, folded, place }: Props = $props();

  const ROW = 26;
  const COLUMNS = 60;
  /** The columns of line numbers and of what a line is. */
  const HEAD = 150;
  const LETTERS = 26;

  let room = $state(0);
  let box = $state<HTMLElement>();

  const source = $derived(open.view.source);
  const reading = $derived(source.reading);
  const tall = new Tall(ROW, () => source.lines, 40);
  const seen = $derived(Array.from({ length: tall.to - tall.from }, (_, i) => tall.from + i + 1));
  const width = $derived(Math.min(COLUMNS, source.width - lines.firstColumn));
  const columns = $derived(Array.from({ length: width }, (_, i) => i + lines.firstColumn));
  const profiles = $derived(new Map(source.columns.map((c) => [c.letter, c])));
  const widths = $derived(fit(columns.map(wanting), room - HEAD));
  const sheetWidth = $derived(HEAD + widths.reduce((a, b) => a + b, 0));
  const blankWords = $derived(new Set(reading.blankWords?.map((w) => w.toLowerCase()) ?? []));
  const omitted = $derived(
    new Set(source.titles.filter((t) => reading.omit?.includes(t.name)).map((t) => t.letter)),
  );
  const picked = $derived(new Set(reading.picks?.map((p) => p.column + p.line) ?? []));
  const offered = $derived(new Set(source.proposals.picks.map((p) => p.column + p.line)));

  function wanting(column: number) {
    const profile = profiles.get(letter(column));
    const title = lettersOf(source.titles[column]?.title ?? '');
    const longest = Math.max(profile ? longestOf(profile) : 8, Math.min(title, 18), 4);
    return { least: needed(Math.min(LETTERS, longest)), need: needed(longest) };
  }

  let known = untrack(() => reading);
  $effect(() => {
    const [a, b] = [tall.from + 1, Math.max(tall.to, tall.from + 1)];
    const now = reading;
    void lines.firstColumn;
    untrack(() => {
      if (now !== known) lines.renew();
      known = now;
      lines.want(a, b);
    });
  });

  /** Scrolls so that a line is seen, in the middle if it was far away. */
  export function reveal(line: number) {
    if (box) tall.reveal(box, line - 1);
  }

  function role(l: RawLine | undefined, line: number): string {
    if (!l) return '';
    if (l.role === 'titles') return 'titles';
    if (l.role === 'units') return 'units';
    if (l.role === 'section') return 'section';
    if (line === reading.firstRow && l.role === 'record') return 'first record';
    if (line === reading.lastRow && l.role === 'record') return 'last record';
    if (l.role === 'left-out') {
      return lines.at(line - 1)?.role === 'left-out' ? '' : 'left out';
    }
    return '';
  }

  function kind(l: RawLine, column: number): string {
    const name = letter(column);
    const cell = l.cells[column - lines.firstColumn];
    const words: string[] = [];
    if (cell?.kind === 'number') words.push('r');
    if (cell?.kind === 'error') words.push('bad');
    if (picked.has(name + l.line)) words.push('picked');
    else if (offered.has(name + l.line)) words.push('offered');
    if (l.role === 'record') {
      if (folded.has(name)) words.push('lit');
      if (omitted.has(name)) words.push('omitted');
      if (cell && blankWords.has(cell.text.trim().toLowerCase())) words.push('means-blank');
    }
    if (l.line === cursor.line && inRange(column)) words.push('here');
    return words.join(' ');
  }

  function inRange(column: number): boolean {
    return (
      column >= Math.min(cursor.column, cursor.anchor) &&
      column <= Math.max(cursor.column, cursor.anchor)
    );
  }

  function chooseColumn(column: number, extend: boolean) {
    place({ ...cursor, column, anchor: extend ? cursor.anchor : column });
  }
</script>

<div
  class="scroll box"
  bind:this={box}
  bind:clientHeight={tall.height}
  bind:clientWidth={room}
  onscroll={() => (tall.top = box!.scrollTop)}
  onwheel={(e) => tall.wheel(box!, e)}
  {@attach region('Lines of the file')}
>
  <div class="tall" style="height: {tall.total}px; width: {sheetWidth}px">
    <table class="g" style="top: {tall.offset}px; width: {sheetWidth}px">
      <colgroup>
        <col style:width="92px" /><col style:width="58px" />
        {#each widths as w, i (i)}<col style="width: {w}px" />{/each}
      </colgroup>
      <thead>
        <tr>
          <th class="r">Read as</th><th></th>
          {#each columns as c (c)}
            {@const name = letter(c)}
            <th class="letter" class:lit={folded.has(name)} class:chosen={inRange(c)}>
              <button
                title={source.titles[c]?.name}
                aria-pressed={inRange(c)}
                onclick={(e) => chooseColumn(c, e.shiftKey)}>{name}</button
              >
            </th>
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each seen as line (line)}
          {@const l = lines.at(line)}
          <tr
            class={l?.role ?? (lines.has(line) ? 'blank' : 'coming')}
            class:cur={line === cursor.line}
          >
            <td class="t role">{role(l, line)}</td>
            <td class="ln" title={l?.sheet ?? undefined}
              ><button tabindex="-1" onclick={() => place({ ...cursor, line })}
                >{l?.lineOfSheet ?? line}</button
              ></td
            >
            {#each columns as c (c)}
              {@const cell = l?.cells[c - lines.firstColumn]}
              <td
                dir="auto"
                class={l ? kind(l, c) : ''}
                title={cell?.text}
                onclick={(e) => place({ line, column: c, anchor: e.shiftKey ? cursor.anchor : c })}
                ><CellText text={cell?.text} /></td
              >
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
</div>

<style>
  .box {
    flex: 1;
    position: relative;
  }
  .tall {
    position: relative;
    min-width: 100%;
  }
  table {
    position: absolute;
    left: 0;
  }
  .letter {
    padding: 0 !important;
    text-align: center !important;
  }
  .letter button {
    width: 100%;
    line-height: 23px;
    cursor: pointer;
    font-weight: 500;
    color: inherit;
  }
  .letter.chosen {
    box-shadow: inset 0 -3px 0 var(--ink);
  }
  .ln button {
    cursor: pointer;
    color: inherit;
    font-weight: inherit;
    width: 100%;
    text-align: right;
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
  tr.section td:not(.role, .ln) {
    font-weight: 700;
    color: var(--ink-2);
    background: var(--well);
  }
  tr.units td:not(.role, .ln) {
    background: var(--well);
    color: var(--ink-2);
    border-bottom-color: var(--ink);
  }
  tr.left-out td:not(.role, .ln, .picked, .offered),
  tr.blank td:not(.role, .ln) {
    background: var(--well);
    color: var(--ink-3);
  }
  td.picked {
    background: var(--zest-lit) !important;
    box-shadow: inset 0 0 0 2px var(--zest-edge);
    font-weight: 650;
    color: var(--ink);
  }
  td.offered {
    box-shadow: inset 0 0 0 1px var(--zest-edge);
  }
  td.omitted {
    background: var(--well);
    color: var(--ink-3);
  }
  td.means-blank {
    color: var(--ink-3);
    background:
      repeating-linear-gradient(135deg, transparent 0 6px, var(--rule-soft) 6px 7px), var(--sheet);
  }
  tr.cur td {
    border-bottom-color: var(--ink);
  }
  tr.cur td.here {
    outline: 2px solid var(--ink);
    outline-offset: -2px;
  }
</style>
