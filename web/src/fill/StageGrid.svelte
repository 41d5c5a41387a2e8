<script lang="ts">
  import type { FieldInfo, Fill, StageRow, StageTable, StepHelp, Trial } from '../api/types';
  import { api, got } from '../api/client';
  import type { OpenPlan } from '../plan/plan.svelte';
  import CellText from '../ui/CellText.svelte';
  import Slip from '../ui/Slip.svelte';
  import Value from '../ui/Value.svelte';
  import { tell } from '../ui/toaster';
  import { fit, letters, needed } from '../ui/widths';
  import { count, limits, lookedIn } from '../ui/words';
  import { changeStep } from './repairs';
  import StageHead from './StageHead.svelte';
  import Troubled from './Troubled.svelte';

  interface Props {
    open: OpenPlan;
    field: FieldInfo;
    fill: Fill;
    table: StageTable;
    kinds: StepHelp[];
    put: (fill: Fill) => void;
    addAt: (at: number) => void;
    trialAt: number;
    books: string[];
    trials: Trial[];
    edit: (step: number) => void;
    learnt: (book: string) => void;
  }
  let { open, field, fill, table, kinds, put, addAt, trialAt, books, trials, edit, learnt }: Props =
    $props();

  const numeric = $derived(field.type === 'decimal' || field.type === 'whole');
  const right = $derived(numeric && fill.origin.kind !== 'link');
  const origin = $derived(
    fill.origin.column ??
      {
        fixed: 'Fixed value',
        generated: 'Generated',
        joined: 'Joined',
        formula: 'Formula',
        link: fill.origin.formula ? 'Formula' : fill.origin.template ? 'Joined' : 'Fixed value',
      }[fill.origin.kind as string] ??
      '',
  );
  // the columns that come together, where it is not only the one that the value comes from
  const parts = $derived(
    table.columns.length > 1 || !fill.origin.column
      ? table.columns.map((name, i) => ({ name, i })).filter((c) => c.name !== fill.origin.column)
      : [],
  );
  const WIDE: Record<string, number> = {
    replace: 190,
    'replace-words': 190,
    'replace-pattern': 190,
    translate: 200,
    formula: 170,
    'convert-unit': 150,
    'read-number': 140,
    'read-date': 180,
    'take-between': 170,
    'read-boolean': 190,
    pad: 200,
    'shift-date': 160,
    'period-edge': 160,
  };
  const widthOf = (kind: string) => WIDE[kind] ?? 128;
  /** Room for the stages; not known before they are drawn. */
  let room = $state(0);
  const LINES = 56;
  /** The written value, and the room that a reason takes with its buttons. */
  const OUT = 212;
  const OUT_TROUBLED = 470;

  function longest(text: (row: StageRow) => string | undefined): number {
    return table.rows.reduce((most, row) => Math.max(most, letters(text(row) ?? '')), 0);
  }
  const widths = $derived(
    fit(
      [
        ...parts.map((p) => ({ least: 116, need: needed(longest((r) => r.trace.cells[p.i])) })),
        {
          least: 116,
          need: needed(
            Math.max(
              longest((r) => r.trace.origin),
              letters(origin) + 2,
            ),
          ),
        },
        ...fill.steps.map((s, i) => ({
          least: widthOf(s.kind),
          need: needed(longest((r) => r.trace.steps[i])),
        })),
      ],
      room - LINES - (table.troubled ? OUT_TROUBLED : OUT),
    ),
  );
  const width = $derived(LINES + widths.reduce((sum, w) => sum + w, 0) + OUT);

  /** What a stage shows, and whether the step left it as it was. */
  function stage(row: StageRow, i: number): { text: string | undefined; pale: boolean } {
    const text = row.trace.steps[i];
    const before = i === 0 ? row.trace.origin : row.trace.steps[i - 1];
    return { text, pale: text === before };
  }

  /** Moves the cursor to the first record that has the value. */
  async function goTo(row: StageRow) {
    if (!row.line) return;
    try {
      const window = await got(
        api.GET('/api/plans/{id}/row', {
          params: { path: { id: open.view.id }, query: { line: row.line } },
        }),
      );
      open.cursor = window.row;
    } catch (error) {
      tell(error);
    }
  }
</script>

<div bind:clientWidth={room}></div>
<table class="g stage" style="min-width: 100%; width: {width}px">
  <colgroup>
    <col style="width: {LINES}px" />
    {#each widths as w, i (i)}<col style="width: {w}px" />{/each}
    <col />
  </colgroup>
  <thead>
    <tr>
      <th class="ln">rows</th>
      {#each parts as part (part.i)}
        <th class="lit"><span class="clip" title={part.name}>{part.name}</span><u>as it came</u></th
        >
      {/each}
      <th class:lit={fill.origin.column}>
        <span class="clip">{origin}</span><u>{fill.origin.column ? 'as it came' : 'gives'}</u>
        {#if trialAt < 0}<button class="plus" aria-label="Add a step first" onclick={() => addAt(0)}
            >+</button
          >{/if}
      </th>
      {#each fill.steps as s, i (i)}
        <StageHead
          step={s}
          at={i}
          {fill}
          {put}
          help={kinds.find((k) => k.kind === s.kind)}
          altered={table.altered[i]}
          tried={i === trialAt}
          trying={trialAt >= 0}
          columns={open.view.source.columns.map((c) => c.name)}
          {books}
          edit={() => edit(i)}
          add={() => addAt(i + 1)}
          change={(change) => put(changeStep(fill, i, change))}
        />
      {/each}
      <th class="out"
        ><span class="m">{field.name}</span><u title={limits(field)}
          >{fill.origin.kind === 'link'
            ? `finds ${field.link?.table}.${lookedIn(fill.origin.link)}`
            : 'as written'}{limits(field) ? `, ${limits(field)}` : ''}</u
        ></th
      >
    </tr>
  </thead>
  <tbody>
    {#each table.rows as row (`${row.line}|${row.trace.origin}|${row.trace.cells.join('|')}`)}
      {@const stopped = row.trace.stoppedAt}
      {@const bad = row.trace.problem}
      <tr class:tr={bad} onclick={() => void goTo(row)} class="pickable">
        <td class="ln" title={row.line ? `first on line ${row.line}` : ''}>{count(row.rows)}</td>
        {#each parts as part (part.i)}
          <td class="lit"
            >{#if row.trace.cells[part.i]}<CellText text={row.trace.cells[part.i]} />{:else}<span
                class="q">blank</span
              >{/if}</td
          >
        {/each}
        <td dir="auto" class:lit={fill.origin.column} class:r={right}>
          {#if row.trace.origin}<CellText text={row.trace.origin} />{:else}<span class="q"
              >blank</span
            >{/if}
        </td>
        {#each fill.steps as s, i (i)}
          {#if !bad || stopped < 0 || i < stopped}
            {@const shown = stage(row, i)}
            <td dir="auto" class:r={right} class:pale={shown.pale || s.off}
              ><CellText text={shown.text} /></td
            >
          {/if}
        {/each}
        {#if bad}
          <Troubled
            {open}
            {row}
            {field}
            {fill}
            {put}
            {trials}
            {kinds}
            {learnt}
            span={fill.steps.length - Math.min(Math.max(stopped, 0), fill.steps.length) + 1}
          />
        {:else}
          <td class="out" class:r={right}>
            {#if row.trace.result}<b
                ><Value value={row.trace.result} {field} connection={open.plan.connection} /></b
              >{:else}<span class="q t"
                >{fill.whenBlank === 'default' ? fill.defaultValue : 'blank'}</span
              >{/if}
            {#if row.trace.softened}<span class="skipped"><Slip of="skipped" /></span>{/if}
          </td>
        {/if}
      </tr>
    {/each}
  </tbody>
</table>

<style>
  .stage :global(th) {
    height: 43px;
    padding: 5px 8px 0 8px;
    vertical-align: top;
    overflow: visible;
    position: relative;
    z-index: auto;
    line-height: 16px;
    color: var(--ink);
  }
  thead {
    position: sticky;
    top: 0;
    z-index: 2;
  }
  .stage :global(th u) {
    display: block;
    text-decoration: none;
    font-weight: 400;
    color: var(--ink-2);
    line-height: 17px;
    overflow: hidden;
    padding-right: 16px;
    text-overflow: ellipsis;
  }
  .stage :global(th.lit),
  .stage :global(th.lit u) {
    color: var(--on-zest);
  }
  .stage :global(th + th + th) {
    border-left: 1px solid var(--rule-firm);
    padding-left: 15px;
  }
  .stage :global(td + td + td) {
    border-left: 1px solid var(--rule-soft);
  }
  .stage :global(.plus) {
    position: absolute;
    right: -9px;
    top: 13px;
    z-index: 3;
    width: 17px;
    height: 17px;
    line-height: 14px;
    text-align: center;
    background: var(--sheet);
    border: 1px solid var(--rule-firm);
    color: var(--ink);
    cursor: pointer;
    font-weight: 500;
  }
  .clip {
    display: block;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .out {
    border-left: 2px solid var(--ink) !important;
  }
  tr.tr :global(td) {
    height: 30px;
  }
</style>
