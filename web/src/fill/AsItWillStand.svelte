<script lang="ts">
  import type { FieldInfo, LedgerEntry, WindowRow } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { awaits } from '../rehearse/asked';
  import GridHead from '../ui/GridHead.svelte';
  import Outcome from '../ui/Outcome.svelte';
  import Slip from '../ui/Slip.svelte';
  import Value from '../ui/Value.svelte';
  import { when } from '../ui/words';
  import { region } from '../ui/region';
  import { reveal } from '../ui/reveal';
  import { fit, letters, longestOf, needed } from '../ui/widths';

  interface Props {
    open: OpenPlan;
    rows: WindowRow[];
    entries: LedgerEntry[];
    field: FieldInfo;
    go: (row: number) => void;
  }
  let { open, rows, entries, field, go }: Props = $props();

  let box = $state<HTMLElement>();
  const fields = $derived(
    open.view.table.fields.filter((f) =>
      rows.some((r) => r.values.some((v) => v.field === f.name)),
    ),
  );
  const numeric = (f: FieldInfo) => !f.link && (f.type === 'decimal' || f.type === 'whole');
  /** Room for the columns; not known before the box is drawn. */
  let room = $state(0);
  const LEAD = 150;
  /** Letters of the longest value that the file has for a field. */
  function longest(f: FieldInfo): number {
    const column = open.fill(f.name)?.origin.column;
    const source = open.view.source.columns.find((c) => c.name === column);
    // a key is told with the words that it stands for
    return source ? longestOf(source) + (f.link ? 6 : 0) : 0;
  }
  const widths = $derived(
    fit(
      fields.map((f) => ({
        least: Math.max(
          f.type === 'text' ? 130 : f.link ? 124 : 78,
          needed(Math.max(letters(f.name), Math.min(20, longest(f)))),
        ),
        need: needed(Math.min(60, longest(f))),
      })),
      room - LEAD,
    ),
  );
  const heads = $derived(
    fields.map((f, i) => ({
      key: f.name,
      name: f.name,
      width: widths[i]!,
      lit: f.name === field.name,
      right: numeric(f),
    })),
  );
  const total = $derived(heads.reduce((sum, head) => sum + head.width, LEAD));

  $effect(() => {
    void field.name;
    reveal(box, box?.querySelector('th.lit'));
  });
</script>

<div class="bt top">
  <h2>As it will stand</h2>
  <span class="q2">records of <span class="m">{open.view.table.name}</span></span>
  <span class="q"
    >{open.rehearsed
      ? `outcomes of the ${when(open.rehearsal?.startedAt)} Rehearsal`
      : 'outcomes after a Rehearsal'}</span
  >
</div>
<div class="box" {@attach region('As it will stand')} bind:this={box} bind:clientWidth={room}>
  <table class="g" style="min-width: 100%; width: {total}px">
    <GridHead
      lead={[
        { name: '', width: 46, line: true },
        { name: 'Outcome', width: 104 },
      ]}
      columns={heads}
    />
    <tbody>
      {#each rows.slice(0, 4) as row (row.row)}
        {@const entry = entries.find((e) => e.line === row.line)}
        <tr class:cur={row.row === open.cursor} class="pickable" onclick={() => go(row.row)}>
          <td class="ln">{row.line}</td>
          <td class="t" title={row.broken}
            >{#if !row.records}<span class="q">no record</span>{:else if entry}<Outcome
                of={entry.outcome}
                waiting={awaits('rehearsal', entry)}
              />{:else if row.records > 1}<span class="q">1st of {row.records}</span
              >{:else if row.broken}<span class="rejected"><Slip of="rejected" /> {row.broken}</span
              >{/if}</td
          >
          {#each fields as f (f.name)}
            {@const value = row.values.find((v) => v.field === f.name)}
            {@const bad = value?.problem && !value.softened}
            <td
              dir="auto"
              class:lit={f.name === field.name && !bad}
              class:bad={bad && !value?.question}
              class:ask={value?.question}
              class:r={numeric(f)}
              title={value?.problem?.reason}
              >{#if value?.question}<Slip of="waiting" /> {value.problem?.value}{:else if bad}<Slip
                  of="rejected"
                /> none{:else}<Value
                  value={value?.value}
                  field={f}
                  connection={open.plan.connection}
                />{/if}</td
            >
          {/each}
          <td></td></tr
        >
      {/each}
    </tbody>
  </table>
</div>

<style>
  .top {
    border-top: 1px solid var(--ink);
    margin-top: auto;
  }
  .ask {
    background: var(--ask-w);
    color: var(--ask);
  }
  .box {
    overflow-x: auto;
    overflow-y: hidden;
    flex: none;
  }
</style>
