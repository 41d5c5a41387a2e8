<script lang="ts">
  // The stages of the field in hand: a column a stage, a row a distinct value, troubled ones first.
  import { untrack } from 'svelte';
  import { api, ApiError, got } from '../api/client';
  import type { FieldInfo, Fill, StageTable, StepHelp, StepKind } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import { tell } from '../ui/toaster';
  import { count, many } from '../ui/words';
  import OriginEditor from './OriginEditor.svelte';
  import { firstSettings, step, withStep } from './repairs';
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
  let menuAt = $state(-1);
  // a step that is tried and not yet kept
  let trial = $state.raw<Fill | null>(null);
  const kept = $derived(open.fill(field.name));
  const fill = $derived(trial ?? kept);
  const filledHere = $derived(fill && fill.origin.kind !== 'database');

  $effect(() => {
    const tried = fill;
    const wanted = limit;
    void open.view.source.reading;
    untrack(() => void load(tried, wanted));
  });

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
    } catch (error) {
      if (mine !== asked) return;
      if (error instanceof ApiError && error.status === 422) refusal = error.message;
      else tell(error);
    }
  }

  function put(changed: Fill) {
    trial = null;
    open.putFill(changed);
  }

  function tryKind(kind: StepKind | null) {
    trial =
      kind && kept && menuAt >= 0 ? withStep(kept, menuAt, step(kind, settingsFor(kind))) : null;
  }

  /** A replacement begins with the first value in trouble. */
  function settingsFor(kind: StepKind): Record<string, string> {
    const first = firstSettings(kind, field);
    const bad = table?.rows.find((r) => r.trace.problem)?.trace.problem?.value;
    return kind === 'replace' ? { from: bad ?? '', to: bad ?? '' } : first;
  }

  function keep() {
    if (trial) put(trial);
    menuAt = -1;
  }

  function leave() {
    trial = null;
    menuAt = -1;
  }

  useKeys(() => [
    { keys: ['a'], say: 'add a step', act: () => filledHere && (menuAt = kept?.steps.length ?? 0) },
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
      {table.distinct === 1 ? 'value' : 'distinct values'}{#if table.troubled}, <b class="rejected"
          >{count(table.troubled)} troubled</b
        >
        in {many(table.troubledRows, 'row')}{:else}, none troubled{/if}</span
    >
  {/if}
</OriginEditor>
<div class="stages" bind:this={stages} {@attach region('Stages')}>
  {#if !fill || !filledHere}
    <p class="none">
      {#if field.generated}The database gives each new record a number of its own.
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
      addAt={(at) => (menuAt = at)}
      trialAt={trial ? menuAt : -1}
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
      <span class="end">pale = the step left it as it was</span>
    </div>
  {/if}
  {#if menuAt >= 0 && kept}
    <StepMenu {kinds} {tryKind} {keep} {leave} {table} />
  {/if}
</div>

<style>
  h2 .m {
    font-size: 15px;
    margin-left: 2px;
  }
  .stages {
    flex: 1;
    min-height: 80px;
    overflow: auto;
    position: relative;
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
  .more .end {
    margin-left: auto;
  }
</style>
