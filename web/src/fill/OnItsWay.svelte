<script lang="ts">
  // The stages of the field in hand: a column a stage, a row a distinct value, troubled ones first.
  import { untrack } from 'svelte';
  import type { FieldInfo, StepHelp } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import { count, many } from '../ui/words';
  import Offers from './Offers.svelte';
  import OriginEditor from './OriginEditor.svelte';
  import { changeStep } from './repairs';
  import StageGrid from './StageGrid.svelte';
  import { Stages } from './stages.svelte';
  import StepMenu from './StepMenu.svelte';
  import { region } from '../ui/region';
  import Slip from '../ui/Slip.svelte';

  interface Props {
    open: OpenPlan;
    field: FieldInfo;
    kinds: StepHelp[];
  }
  let { open, field, kinds }: Props = $props();

  // there is one of this for each field
  const stages = untrack(() => new Stages(open, field.name));
  const SURE = { plain: 'Plain', likely: 'Likely', guess: 'A guess' };
  let grid = $state<HTMLElement>();
  let offering = $state(false);
  const { table, fill, kept, trial, trials, editing, filledHere } = $derived(stages);
  const formula = $derived(editing >= 0 ? kept?.steps[editing] : undefined);
  const before = $derived(
    kept && editing >= 0 ? { ...kept, steps: kept.steps.slice(0, editing) } : null,
  );

  /** The table whose records those of the one in hand belong to, if this field tells to which. */
  const parent = $derived.by(() => {
    const { told } = open;
    return told.parentField === field.name ? open.view.tables[told.parent!] : undefined;
  });

  // why the draft chose this column, as long as it is still the one
  const because = $derived.by(() => {
    const found = open.view.evidence.find((e) => e.field === field.name);
    const kind = kept?.origin.kind;
    const drafted = found?.column
      ? found.column === kept?.origin.column
      : kind === 'generated' || kind === 'joined' || kind === 'fixed';
    if (!found || !drafted) return '';
    return `${SURE[found.sure ?? 'likely']}: ${found.because}`;
  });
  const guessed = $derived(open.isGuess(field.name));

  $effect(() => {
    void stages.fill;
    void stages.limit;
    void stages.words;
    void open.view.source.reading;
    void open.view.plan.corrections;
    untrack(() => void stages.load());
  });

  $effect(() => {
    void stages.words;
    untrack(() => void stages.loadBooks());
  });

  useKeys(() => [
    ...(guessed ? [{ keys: ['y'], say: 'confirm', act: () => open.confirm(field.name) }] : []),
    { keys: ['c'], say: 'column', act: () => (offering = !offering) },
    { keys: ['a'], say: 'add a step', act: () => stages.addAt(-1) },
    {
      keys: ['e'],
      say: 'edit the step',
      act: () => grid?.querySelector<HTMLElement>('th .ed')?.focus(),
    },
  ]);
</script>

<OriginEditor {open} {field} fill={kept} put={(changed) => stages.put(changed)}>
  <h2>On its way to <span class="m mark">{field.name}</span></h2>
  {#if table}
    <span class="q2"
      ><b>{count(table.distinct)}{table.distinctCapped ? '+' : ''}</b>
      {table.distinct === 1
        ? 'value'
        : table.columns.length > 1
          ? 'combinations'
          : 'distinct values'}{#if table.troubled}, <b
          class={table.questions === table.troubledRows ? 'waiting' : 'rejected'}
          >{count(table.troubled)}
          {table.questions === table.troubledRows ? 'to answer' : 'troubled'}</b
        >
        in {many(table.troubledRows, 'row')}{:else}, none troubled{/if}</span
    >
  {/if}
  {#if trial}
    <span class="end">
      <button class="button small" onclick={() => stages.leave()}>Drop it <kbd>Esc</kbd></button>
      <button class="button small main" onclick={() => stages.keep()}
        >Keep the step <kbd>↵</kbd></button
      >
    </span>
  {/if}
</OriginEditor>
{#if formula && before}
  {#key editing}
    <div class="ofstep q2">
      Formula of step {editing + 1}, where <span class="m">[value]</span> is the value so far
      <button class="go" onclick={() => (stages.editing = -1)}>Done</button>
    </div>
    {#await import('./FormulaEditor.svelte') then { default: FormulaEditor }}
      <FormulaEditor
        {open}
        fill={before}
        inStep
        formula={formula.with.formula ?? ''}
        change={(text) => {
          const now = open.fill(field.name);
          if (now?.steps[editing]?.kind === 'formula')
            stages.put(changeStep(now, editing, { with: { formula: text } }));
        }}
      />
    {/await}
  {/key}
{/if}
<div class="band">
  <div class="stages" bind:this={grid} {@attach region('Stages')}>
    {#if !fill || !filledHere}
      <p class="none">
        {#if parent}It takes the key of the record of <span class="m">{parent.name}</span> that the same
          row makes or matches.
        {:else if field.unfillable}Nothing can fill this field: {field.unfillable}.
        {:else if field.generated}The database gives each new record a number of its own.
        {:else if field.hasDefault}Nothing fills this field: new records get the database’s own
          default, existing ones keep what they have.
        {:else if field.nullable}Nothing fills this field: new records are blank here, existing ones
          keep what they have.
        {:else}<b>This field is required.</b> Choose where its value comes from.{/if}
      </p>
      {#if !field.unfillable && !parent}
        <Offers {open} {field} letters={offering} done={() => (offering = false)} />
      {/if}
    {:else if stages.refusal}
      <p class="message mild">{stages.refusal}</p>
    {/if}
    {#if offering && filledHere && !field.unfillable}
      <Offers {open} {field} letters done={() => (offering = false)} />
    {/if}
    {#if guessed}
      <p class="guess">
        <span class="o waiting"><Slip of="waiting" /><b>To confirm</b></span>
        {because || SURE.guess}. It is rehearsed so, but nothing is written before you say so.
        <span class="end">
          <button class="button small" onclick={() => open.confirm(field.name)}
            >Yes, fill it so <kbd>Y</kbd></button
          >
          <button
            class="button small"
            onclick={() => stages.put({ ...kept!, origin: { kind: 'database' }, steps: [] })}
            >No</button
          >
        </span>
      </p>
    {/if}
    {#if table && fill && filledHere}
      <StageGrid
        {open}
        {field}
        {fill}
        {table}
        {kinds}
        put={(changed) => stages.put(changed)}
        addAt={(at) => stages.addAt(at)}
        books={stages.books}
        trials={trial ? [] : (trials ?? [])}
        edit={(i) => stages.edit(i)}
        learnt={() => stages.learnt()}
        trialAt={trial?.at ?? -1}
      />
      <div class="more q">
        {#if table.distinct > table.rows.length}
          <button class="go" onclick={() => stages.showMore()}>
            {many(table.distinct - table.rows.length, 'more value')}{table.troubled <=
            table.rows.length
              ? ', all fine'
              : ''}
          </button>
        {/if}
        {#if because && !guessed}<span class="because" title={because}>{because}.</span>{/if}
        <span class="end">pale = the step left it as it was</span>
      </div>
    {/if}
  </div>
  {#if stages.choosing && kept}
    <StepMenu
      {kinds}
      {trials}
      tryStep={(step, at) => stages.tryStep(step, at)}
      keep={() => stages.keep()}
      leave={() => stages.leave()}
    />
  {/if}
</div>

<style>
  h2 .m {
    font-size: 15px;
    margin-left: 2px;
  }
  .band {
    flex: 1;
    min-height: 80px;
    position: relative;
    display: flex;
  }
  .stages {
    flex: 1;
    min-width: 0;
    overflow: auto;
  }
  .ofstep {
    padding: 0 12px 4px;
  }
  .guess {
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 6px 12px;
    background: var(--ask-w);
  }
  .guess .end {
    margin-left: auto;
    display: flex;
    gap: 6px;
    flex: none;
  }
  .none {
    padding: 14px 16px;
    color: var(--ink-2);
  }
  .more {
    display: flex;
    align-items: center;
    min-height: 28px;
    padding: 0 12px;
  }
  .because {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .more .end {
    margin-left: auto;
    white-space: nowrap;
    padding-left: 12px;
  }
</style>
