<script lang="ts">
  import type { FieldInfo, FieldValue, Fill, WindowRow } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import CellText from '../ui/CellText.svelte';
  import GridHead from '../ui/GridHead.svelte';
  import Slip from '../ui/Slip.svelte';
  import { columnsOf, count } from '../ui/words';
  import { COLUMN, feed, FIELD } from './offers.svelte';
  import { region } from '../ui/region';
  import { reveal } from '../ui/reveal';
  import { fit, letters, longestOf, needed } from '../ui/widths';

  interface Props {
    open: OpenPlan;
    rows: WindowRow[];
    field: FieldInfo;
    fill: Fill | undefined;
    go: (row: number) => void;
    nextTroubled: () => void;
  }
  let { open, rows, field, fill, go, nextTroubled }: Props = $props();

  let box = $state<HTMLElement>();
  // of very wide files the first columns and the one in hand
  const SHOWN = 150;
  const lit = $derived(columnsOf(fill));
  const columns = $derived(
    open.view.source.columns.filter((c, i) => i < SHOWN || lit.includes(c.name)),
  );
  const place = $derived(
    columns.map((c) => open.view.source.columns.findIndex((o) => o.letter === c.letter)),
  );

  /** Room for the columns; not known before the box is drawn. */
  let room = $state(0);
  const widths = $derived(
    fit(
      columns.map((c) => ({
        least: Math.max(
          54,
          Math.min(190, needed(Math.max(letters(c.name), Math.min(longestOf(c), 20)))),
        ),
        need: needed(Math.min(60, Math.max(longestOf(c), letters(c.name)))),
      })),
      room - 46,
    ),
  );
  const heads = $derived(
    columns.map((c, i) => ({
      key: c.letter,
      name: c.name,
      width: widths[i]!,
      lit: lit.includes(c.name),
      right: c.type === 'decimal' || c.type === 'whole',
      title: c.name,
    })),
  );
  const total = $derived(heads.reduce((sum, head) => sum + head.width, 46));

  function troubled(row: WindowRow, column: string): FieldValue | undefined {
    const fields = open.destination.fills.filter((f) => columnsOf(f).includes(column));
    return row.values.find(
      (v) => v.problem && !v.softened && fields.some((f) => f.field === v.field),
    );
  }

  function select(row: WindowRow, column: string) {
    go(row.row);
    const fed = open.destination.fills.find((f) => columnsOf(f).includes(column));
    if (fed) open.field = fed.field;
  }

  $effect(() => {
    void field.name;
    reveal(box, box?.querySelector('th.lit'));
  });
</script>

<div class="bt">
  <h2>As it came</h2>
  <span class="q2">lines {count(rows[0]?.line ?? 0)} to {count(rows.at(-1)?.line ?? 0)}</span>
  <span class="end">
    <button class="step" aria-label="‹ K, record before" onclick={() => go(open.cursor - 1)}
      >‹ <kbd>K</kbd></button
    >
    <span
      ><b>Record {count(open.cursor + 1)}</b>
      <span class="q">of {count(open.view.source.rows)}</span></span
    >
    <button class="step" aria-label="J ›, record after" onclick={() => go(open.cursor + 1)}
      ><kbd>J</kbd> ›</button
    >
    <button class="button small" onclick={nextTroubled}
      ><span class="rejected"><Slip of="rejected" /></span> Next troubled <kbd>T</kbd></button
    >
  </span>
</div>
<div class="box" {@attach region('As it came')} bind:this={box} bind:clientWidth={room}>
  <table class="g" style="min-width: 100%; width: {total}px">
    <GridHead
      lead={[{ name: '', width: 46, line: true }]}
      columns={heads}
      carries={COLUMN}
      accepts={FIELD}
      dropped={(column, name) => void feed(open, name, column)}
    />
    <tbody>
      {#each rows as row (row.row)}
        <tr class:cur={row.row === open.cursor} class="pickable">
          <td class="ln" onclick={() => go(row.row)}>{row.line}</td>
          {#each columns as column, c (column.letter)}
            {@const why = troubled(row, column.name)}
            <td
              dir="auto"
              class:lit={heads[c]!.lit}
              class:r={heads[c]!.right}
              class:trouble={why && !why.question}
              class:asked={why?.question}
              title={why?.problem?.reason ?? row.cells[place[c]!]?.text}
              onclick={() => select(row, column.name)}
              >{#if why}<span class={why.question ? 'waiting' : 'rejected'}
                  ><Slip of={why.question ? 'waiting' : 'rejected'} /></span
                >{/if}<CellText text={row.cells[place[c]!]?.text} /></td
            >
          {/each}
          <td></td></tr
        >
      {/each}
    </tbody>
  </table>
</div>

<style>
  .box {
    overflow-x: auto;
    overflow-y: hidden;
    flex: none;
  }
  .step {
    display: inline-flex;
    gap: 4px;
    align-items: center;
    color: var(--ink-2);
    cursor: pointer;
  }
  .asked {
    color: var(--ask) !important;
    font-weight: 650 !important;
  }
  .asked > span,
  .trouble > span {
    margin-right: 5px;
  }
  .trouble {
    color: var(--rej) !important;
    font-weight: 650 !important;
  }
</style>
