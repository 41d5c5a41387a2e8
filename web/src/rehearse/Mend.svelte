<script lang="ts">
  // A problem mended where it is listed: by a step for all, or value by value.
  import { untrack } from 'svelte';
  import type { ProblemGroup, StageRow, StepHelp, TableInfo, Trial } from '../api/types';
  import { repairs, withStep } from '../fill/repairs';
  import { Stages } from '../fill/stages.svelte';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { tell } from '../ui/toaster';
  import { count, many } from '../ui/words';

  interface Props {
    open: OpenPlan;
    group: ProblemGroup;
    /** Number of the destination that it is about. */
    at: number;
    /** Names of the kinds of steps. */
    kinds: StepHelp[];
    /** Leads to the field in Fill. */
    fill: () => void;
  }
  let { open, group, at, kinds, fill: toFill }: Props = $props();

  const SHOWN = 6;
  const stages = untrack(() => new Stages(open, group.field ?? '', at));
  let table = $state.raw<TableInfo>();
  const field = $derived(table?.fields.find((f) => f.name === group.field));

  $effect(() => {
    void open.view;
    untrack(() => {
      void stages.load();
      open.tableAt(at).then((found) => (table = found), tell);
    });
  });

  const rows = $derived(
    (stages.table?.rows ?? []).filter(
      (r) => r.trace.problem?.code === group.code && !r.trace.question && !r.trace.softened,
    ),
  );
  const helpful = $derived(
    (stages.trials ?? [])
      .filter((t) => t.frees > 0 && !t.breaks && !t.doubtful)
      .filter((t) => rows.some((r) => r.trace.origin && t.freed.includes(r.trace.origin)))
      .slice(0, 2),
  );
  const whole = $derived(
    rows[0] && stages.kept && field
      ? offered(rows[0]).find((r) => !r.asks && r.text === 'Leave blank')
      : undefined,
  );

  function offered(row: StageRow) {
    return repairs(row.trace.problem!, stages.kept!, field!, row.trace.stoppedAt, row);
  }
  function add(trial: Trial) {
    const fill = stages.kept;
    if (!fill) return;
    stages.put(withStep(fill, Math.min(trial.at, fill.steps.length), trial.step));
    open.rehearseSoon();
  }
  /** Reads a value as another one: a cell by a correction, several by a step. */
  function read(row: StageRow, answer: string) {
    const fill = stages.kept;
    if (!fill || !field || !answer) return;
    const known = offered(row).filter((r) => r.asks && !r.learns);
    const cell = known.find((r) => r.corrects);
    if (cell) {
      const column = fill.origin.column ?? '';
      open.correct({ line: row.line, column, was: row.trace.origin ?? '', now: answer });
    } else if (known[0]) {
      stages.put(known[0].apply(fill, answer));
    }
    open.rehearseSoon();
  }
  const title = (trial: Trial) =>
    kinds.find((k) => k.kind === trial.step.kind)?.title ?? trial.step.kind;
</script>

<div class="mend">
  {#if stages.refusal}<p class="q2">{stages.refusal}</p>{/if}
  {#if helpful.length || whole}
    <div class="all">
      {#each helpful as trial (trial.step.kind + trial.at)}
        <button class="button small" onclick={() => add(trial)}
          >+ {title(trial)} <span class="q2">frees {many(trial.frees, 'value')}</span></button
        >
      {/each}
      {#if whole && stages.kept}<button
          class="button small"
          onclick={() => {
            stages.put(whole.apply(stages.kept!, ''));
            open.rehearseSoon();
          }}>Leave all blank</button
        >{/if}
    </div>
  {/if}
  {#each rows.slice(0, SHOWN) as row (row.trace.origin ?? '')}
    <form
      onsubmit={(e) => {
        e.preventDefault();
        read(row, String(new FormData(e.currentTarget).get('means') ?? '').trim());
      }}
    >
      <span class="m was">{row.trace.origin || 'blank'}</span>
      <span class="q">{row.rows === 1 ? `line ${count(row.line)}` : many(row.rows, 'row')}</span>
      <input
        class="entry m"
        name="means"
        placeholder="reads"
        aria-label="{row.trace.origin || 'blank'} reads"
      />
      <button class="button small">Read so</button>
    </form>
  {/each}
  <p>
    {#if rows.length > SHOWN}<span class="q">{many(rows.length - SHOWN, 'value')} more.</span>{/if}
    <button class="go q2" onclick={toFill}>all of it in Fill</button>
  </p>
</div>

<style>
  .mend {
    grid-column: 1 / -1;
    display: grid;
    gap: 5px;
    background: var(--sheet);
    border: 1px solid var(--rule);
    padding: 8px;
  }
  .all {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
  form {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto minmax(70px, 1fr) auto;
    gap: 8px;
    align-items: center;
  }
  .was {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  input {
    height: 24px;
    min-width: 0;
  }
</style>
