<script lang="ts">
  import type { MatchClasses } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import Outcome from '../ui/Outcome.svelte';
  import Value from '../ui/Value.svelte';
  import { count, many } from '../ui/words';
  import { region } from '../ui/region';

  interface Props {
    open: OpenPlan;
    classes: MatchClasses;
    at: number;
    move: (by: number) => void;
  }
  let { open, classes, at, move }: Props = $props();

  const shown = $derived(classes.pairs.slice(at, at + 2));

  const info = (name: string) => open.view.table.fields.find((f) => f.name === name);

  function blank(field: string): string {
    const fill = open.fill(field);
    if (fill?.onlyNew) return 'only if New';
    if (fill?.whenBlank === 'reject') return 'required';
    return fill?.blankOnMatch ?? 'keep';
  }
</script>

<div class="bt">
  <h2>Pairs that change something</h2>
  <span class="q">in the order of the file</span>
  {#if classes.pairs.length}
    <span class="end">
      <button class="button small" onclick={() => move(-1)} aria-label="‹ K, pair before"
        >‹ <kbd>K</kbd></button
      >
      <b>{count(at + 1)}</b> <span class="q">of the first {count(classes.pairs.length)}</span>
      <button class="button small" onclick={() => move(1)} aria-label="J ›, pair after"
        ><kbd>J</kbd> ›</button
      >
    </span>
  {/if}
</div>
<div class="scroll" {@attach region('Pairs')}>
  {#if shown.length}
    <table class="g">
      <colgroup>
        <col style:width="122px" /><col style:width="96px" />
        {#each shown as pair (pair.line)}<col /><col />{/each}
      </colgroup>
      <thead>
        <tr>
          <th></th><th></th>
          {#each shown as pair (pair.line)}
            <th colspan="2" class="pair"
              ><Outcome of={pair.outcome} />
              {many(pair.changed.length, 'field')}, found by key {pair.matchedBy}</th
            >
          {/each}
        </tr>
        <tr class="second">
          <th>Field</th><th>Blank cell</th>
          {#each shown as pair (pair.line)}
            <th class="pair"><b>Line {pair.line}</b> will stand</th><th
              ><b>Record {pair.recordKey}</b> today</th
            >
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each classes.fields as field, i (field)}
          <tr>
            <td class="name">{field}</td>
            <td class="t q2">{blank(field)}</td>
            {#each shown as pair (pair.line)}
              {@const differs = pair.changed.includes(i)}
              <td class="pair" class:was={differs} class:pale={!differs}>
                {#if pair.after[i] == null}<span class="t q"
                    >blank, so {blank(field) === 'clear' ? 'clear' : 'keep'}</span
                  >
                {:else if differs}<b
                    ><Value
                      value={pair.after[i]}
                      field={info(field)}
                      connection={open.plan.connection}
                    /></b
                  >
                {:else}<Value
                    value={pair.after[i]}
                    field={info(field)}
                    connection={open.plan.connection}
                  />{/if}
              </td>
              <td class:was={differs} class:pale={!differs}
                ><Value
                  value={pair.before?.[i]}
                  field={info(field)}
                  connection={open.plan.connection}
                /></td
              >
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  {:else}
    <p class="q" style:padding="4px 16px 14px">No row changes a record that is there.</p>
  {/if}
</div>

<style>
  .name {
    background: var(--well);
  }
  .pair {
    border-left: 1px solid var(--rule-firm);
  }
  .second th {
    top: 25px;
    font-weight: 400;
  }
</style>
