<script lang="ts">
  // The stages of the field in hand: a column a stage, a row a distinct value, troubled ones first.
  import { untrack } from 'svelte';
  import { api, ApiError, got } from '../api/client';
  import type { FieldInfo, Fill, StageTable, Step, StepHelp, Trial } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import { tell } from '../ui/toaster';
  import { count, many } from '../ui/words';
  import OriginEditor from './OriginEditor.svelte';
  import { changeStep, withStep } from './repairs';
  import StageGrid from './StageGrid.svelte';
  import StepMenu from './StepMenu.svelte';
  import { region } from '../ui/region';

  interface Props {
    open: OpenPlan;
    field: FieldInfo;
    kinds: StepHelp[];
  }
  let { open, field, kinds }: Props = $props();

  const PAGE = 40;
  let table = $state.raw<StageTable | null>(null);
  let refusal = $state('');
  let stages = $state<HTMLElement>();
  let limit = $state(PAGE);
  let menu = $state(false);
  // steps that could be added, and where the person wants the new one; -1 for wherever it helps
  let trials = $state.raw<Trial[] | null>(null);
  let wantedAt = $state(-1);
  // a step that is tried and not yet kept
  let trial = $state.raw<{ fill: Fill; at: number } | null>(null);
  // a step whose formula is being written
  let editing = $state(-1);
  let books = $state.raw<string[]>([]);
  // goes up when a phrasebook has learnt something
  let words = $state(0);
  const kept = $derived(open.fill(field.name));
  const fill = $derived(trial?.fill ?? kept);
  const filledHere = $derived(fill && fill.origin.kind !== 'database');
  const formula = $derived(editing >= 0 ? kept?.steps[editing] : undefined);
  const before = $derived(
    kept && editing >= 0 ? { ...kept, steps: kept.steps.slice(0, editing) } : null,
  );

  // why the draft chose this column, as long as it is still the one
  const because = $derived.by(() => {
    const found = open.view.evidence.find((e) => e.field === field.name);
    const kind = kept?.origin.kind;
    const drafted = found?.column
      ? found.column === kept?.origin.column
      : kind === 'generated' || kind === 'joined';
    return found && drafted ? found.because : '';
  });

  $effect(() => {
    const tried = fill;
    const wanted = limit;
    void open.view.source.reading;
    void open.view.plan.corrections;
    void words;
    untrack(() => void load(tried, wanted));
  });

  $effect(() => {
    void words;
    untrack(() => void loadBooks());
  });

  async function loadBooks() {
    try {
      const shared = (await got(api.GET('/api/phrasebooks'))).map((b) => b.name);
      books = [...new Set([...open.plan.phrasebooks.map((b) => b.name), ...shared])];
    } catch (error) {
      tell(error);
    }
  }

  let asked = 0;
  async function load(tried: Fill | undefined, wanted: number) {
    const mine = ++asked;
    if (!tried || tried.origin.kind === 'database') {
      table = null;
      return;
    }
    try {
      const answer = await got(
        api.POST('/api/plans/{id}/stages', {
          params: { path: { id: open.view.id } },
          body: { fill: tried, offset: 0, limit: wanted },
        }),
      );
      if (mine !== asked) return;
      table = answer;
      refusal = '';
      if (!trial) void rank(tried, mine);
    } catch (error) {
      if (mine !== asked) return;
      if (error instanceof ApiError && error.status === 422) refusal = error.message;
      else tell(error);
    }
  }

  /** Tries all steps, so that the failing cells can offer those that free them. */
  async function rank(tried: Fill, mine: number) {
    try {
      const ranked = await got(
        api.POST('/api/plans/{id}/trials', {
          params: { path: { id: open.view.id } },
          body: { fill: tried, at: wantedAt },
        }),
      );
      if (mine === asked) trials = ranked;
    } catch (error) {
      if (!(error instanceof ApiError)) tell(error);
    }
  }

  function put(changed: Fill) {
    trial = null;
    trials = null;
    open.putFill(changed);
  }

  function addAt(at: number) {
    if (!kept || !filledHere) return;
    menu = true;
    trial = null;
    if (at !== wantedAt || !trials) {
      wantedAt = at;
      trials = null;
      void rank(kept, asked);
    }
  }

  function tryStep(step: Step, at: number) {
    if (kept) trial = { fill: withStep(kept, at, step), at };
  }

  function keep() {
    if (!trial) return;
    const { fill: tried, at } = trial;
    leave();
    put(tried);
    if (tried.steps[at]?.kind === 'formula') editing = at;
  }

  function leave() {
    trial = null;
    menu = false;
    if (wantedAt >= 0) trials = null;
    wantedAt = -1;
  }

  useKeys(() => [
    { keys: ['a'], say: 'add a step', act: () => addAt(-1) },
    {
      keys: ['e'],
      say: 'edit the step',
      act: () => stages?.querySelector<HTMLElement>('th .ed')?.focus(),
    },
  ]);
</script>

<OriginEditor {open} {field} fill={kept} {put}>
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
      <button class="button small" onclick={leave}>Drop it <kbd>Esc</kbd></button>
      <button class="button small main" onclick={keep}>Keep the step <kbd>↵</kbd></button>
    </span>
  {/if}
</OriginEditor>
{#if formula && before}
  {#key editing}
    <div class="ofstep q2">
      Formula of step {editing + 1}, where <span class="m">[value]</span> is the value so far
      <button class="go" onclick={() => (editing = -1)}>Done</button>
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
            put(changeStep(now, editing, { with: { formula: text } }));
        }}
      />
    {/await}
  {/key}
{/if}
<div class="band">
  <div class="stages" bind:this={stages} {@attach region('Stages')}>
    {#if !fill || !filledHere}
      <p class="none">
        {#if field.unfillable}Nothing can fill this field: {field.unfillable}.
        {:else if field.generated}The database gives each new record a number of its own.
        {:else if field.hasDefault}Nothing fills this field: new records get the database’s own
          default, existing ones keep what they have.
        {:else if field.nullable}Nothing fills this field: new records are blank here, existing ones
          keep what they have.
        {:else}<b>This field is required.</b> Choose above where its value comes from.{/if}
      </p>
    {:else if refusal}
      <p class="message mild">{refusal}</p>
    {/if}
    {#if table && fill && filledHere}
      <StageGrid
        {open}
        {field}
        {fill}
        {table}
        {kinds}
        {put}
        {addAt}
        {books}
        trials={trial ? [] : (trials ?? [])}
        edit={(i) => (editing = editing === i ? -1 : i)}
        learnt={() => {
          words++;
          void open.refresh();
        }}
        trialAt={trial?.at ?? -1}
      />
      <div class="more q">
        {#if table.distinct > table.rows.length}
          <button class="go" onclick={() => (limit += 200)}>
            {many(table.distinct - table.rows.length, 'more value')}{table.troubled <=
            table.rows.length
              ? ', all fine'
              : ''}
          </button>
        {/if}
        {#if because}<span class="because" title={because}>Drafted so: {because}.</span>{/if}
        <span class="end">pale = the step left it as it was</span>
      </div>
    {/if}
  </div>
  {#if menu && kept}
    <StepMenu {kinds} {trials} {tryStep} {keep} {leave} />
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
