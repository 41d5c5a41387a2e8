<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { api, got } from '../api/client';
  import type { Differences } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { recordsOf } from '../records/links';
  import type { Stop } from '../plan/trip';
  import type { Only } from '../rehearse/entries.svelte';
  import { lookedAt } from '../rehearse/shared';
  import LedgerView from '../rehearse/LedgerView.svelte';
  import OutcomeHead from '../rehearse/OutcomeHead.svelte';
  import Problems from '../rehearse/Problems.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import { tell } from '../ui/toaster';
  import { count, date, many, took, when } from '../ui/words';
  import Ahead from './Ahead.svelte';
  import Books from './Books.svelte';
  import Returned from './Returned.svelte';
  import { searchParams } from 'sv-router';
  import FieldsChanged from './FieldsChanged.svelte';
  import TakeBack from './TakeBack.svelte';
  import { why } from './undo';
  import UndoBooks from './UndoBooks.svelte';
  import { isCutOff } from './endings';
  import { shareOf, wordsOf, work } from './work.svelte';

  let { open, goTo }: { open: OpenPlan; goTo: (to: Stop) => void } = $props();

  const looked = lookedAt(location.search);
  let outcome = $state(looked.outcome);
  let search = $state(looked.search);
  let only = $state.raw<Only>(looked.only);
  let differences = $state.raw<Differences | null>(null);
  let takingBack = $state(false);
  const undo = $derived(open.run?.kind === 'undo');
  /** True if the run shown was cut off between two batches and may go on. */
  const cutOff = $derived(isCutOff(open.run) && !open.run?.undoneBy);
  /** True if the run shown stands, all of it or in part, so that it can be taken back. */
  const stands = $derived((open.run?.state === 'done' || cutOff) && !open.run?.undoneBy);
  const inBatches = $derived(open.plan.run.mode === 'batches');
  /** How far a run or undo of this plan has come, by whomever it was begun. */
  const stand = $derived(
    work.going.find((g) => g.plan === open.view.id && g.kind !== 'rehearsal') ?? null,
  );
  const going = $derived(open.busy === 'run' || open.busy === 'undo' || !!stand);

  // what somebody else began, or this page before it was loaded anew
  onMount(() =>
    work.whenEnded((gone) => {
      if (gone.plan === open.view.id && gone.kind !== 'rehearsal') void open.ended(gone.id);
    }),
  );

  useKeys(() =>
    stands && open.run?.keptUntil && !going
      ? [{ keys: ['u'], say: 'take it back', act: () => (takingBack = true) }]
      : [],
  );
  const rehearsed = $derived(open.rehearsed && open.rehearsal?.report ? open.rehearsal : undefined);
  /** The address names a run: it is shown, also where something else is about to happen. */
  const named = $derived(!!searchParams.get('run'));
  const ahead = $derived(named ? undefined : rehearsed);
  const report = $derived(ahead ? undefined : open.run?.report);
  const into = $derived(report?.destinations[0]);

  let shown = untrack(() => open.run?.id);
  $effect(() => {
    const id = open.run?.state === 'done' ? open.run.id : 0;
    untrack(() => {
      takingBack = false;
      // what the address looks at is looked at in the first one
      if (shown && shown !== open.run?.id) {
        outcome = '';
        search = '';
        only = {};
      }
      shown = open.run?.id;
      void compare(id);
    });
  });

  async function compare(id: number) {
    differences = null;
    if (!id) return;
    try {
      const path = { id };
      differences = await got(api.GET('/api/runs/{id}/differences', { params: { path } }));
    } catch (error) {
      tell(error);
    }
  }

  async function stop() {
    const id = stand?.id ?? work.current?.id;
    try {
      if (id) await work.stop(id);
    } catch (error) {
      tell(error);
    }
  }

  /** What was written until now is looked at once it has ended, and then taken back. */
  async function stopAndTakeBack() {
    const gone = new Promise<void>((resolve) => {
      const hear = work.whenEnded((one) => {
        if (one.plan === open.view.id) {
          hear();
          resolve();
        }
      });
    });
    await stop();
    await gone;
    await open.refreshLast();
    takingBack = stands && !!open.run?.keptUntil;
  }
</script>

{#if going}
  <div class="going" role="status">
    <p>
      {#if undo || open.busy === 'undo'}
        <b>Taking it back.</b> All of it or nothing; until the end nothing has changed.
      {:else if inBatches}
        <b>Running in batches.</b> What is written so far stands, and the rest follows.
      {:else}
        <b>Running.</b> Everything is written together at the end; until then nothing has changed.
      {/if}
    </p>
    <progress value={shareOf(stand)} aria-label="How far it has come"></progress>
    <p class="q2">{stand ? wordsOf(stand) : work.words}</p>
    <p class="choices">
      {#if undo || open.busy === 'undo'}
        <button class="button grave" onclick={stop}>Stop, and leave the run standing</button>
      {:else if inBatches}
        <button class="button" onclick={stop}>Pause, and keep what stands</button>
        <button class="button grave" onclick={stopAndTakeBack}>Stop, and take it back…</button>
      {:else}
        <button class="button grave" onclick={stop}>Stop, and write nothing</button>
      {/if}
    </p>
  </div>
  {#if open.busy !== 'undo' && !undo && open.rehearsal?.report}
    <OutcomeHead report={open.rehearsal.report} verb="as rehearsed" at="" run={open.rehearsal.id} />
  {/if}
{:else if ahead}
  <Ahead {open} rehearsal={ahead} report={ahead.report!} {goTo} />
{:else if rehearsed}
  <p class="message mild">
    Another run is rehearsed and can begin.
    <a class="button small" href="/plans/{open.view.id}/run">What is about to happen</a>
  </p>
{:else if !open.ran && !cutOff && !(open.run && (undo || open.run.undoneBy))}
  <div class="begin">
    <p>
      {open.rehearsal
        ? 'The Plan, its file or the records changed since the last rehearsal.'
        : 'Nothing runs unrehearsed.'} Rehearse first; then it can be run from here.
    </p>
    <button class="button main" onclick={() => goTo('rehearse')}>Go to Rehearse</button>
  </div>
{/if}
{#if cutOff && open.run && !going && !takingBack}
  <div class="message mild cut" role="status">
    <p>
      <b>Run {open.run.number} {open.run.state === 'paused' ? 'is paused' : 'was cut off'}.</b>
      {open.run.message}
    </p>
    <button class="button main" disabled={!!open.busy} onclick={() => void open.resume(open.run!)}
      >Go on with it</button
    >
    <button class="button" disabled={!!open.busy} onclick={() => (takingBack = true)}
      >Take back what stands…</button
    >
  </div>
{/if}
{#if open.run?.state === 'failed' || open.run?.state === 'stopped'}
  <p class="message" role="alert">
    <b>{undo ? 'Undo' : 'Run'} {open.run.number}</b>
    {open.run.message}
    {#if undo}The run {open.run.undoes?.number} stands.{/if}
  </p>
{/if}
{#if open.run && takingBack && !going}
  <TakeBack {open} run={open.run} close={() => (takingBack = false)} />
{/if}
{#if open.run && report && into && !going}
  {#if open.run.undoneBy}
    <p class="message mild" role="status">
      <b>This run was taken back</b> by
      <a class="go" href="/plans/{open.view.id}/run?run={open.run.undoneBy.id}"
        >{open.run.undoneBy.number}</a
      >: what it did no longer stands.
    </p>
  {/if}
  <OutcomeHead
    {report}
    run={open.run.id}
    kind={open.run.kind}
    title={undo ? `Undo ${open.run.number}` : `Run ${open.run.number}`}
    verb="{undo ? `of ${open.run.undoes?.number ?? 'a run'}, ` : ''}{cutOff
      ? `${open.run.state} after ${count(open.run.rowsStanding)} rows,`
      : 'finished'} {when(open.run.finishedAt)}{open.run.revision === open.view.revision
      ? ''
      : `, revision ${open.run.revision}`}"
    at="{took(report.seconds)}, {count(report.rowsPerSecond)} rows a second"
  />
  {#if differences?.total}
    <div class="message mild" role="status">
      <b>{many(differences.total, 'row')} came out otherwise than rehearsed:</b>
      {#each differences.first.slice(0, 6) as d (d.line)}
        line {d.line} {d.came}, not {d.rehearsed} ({d.why});
      {/each}
      {differences.total > 6 ? `and ${count(differences.total - 6)} more` : ''}
    </div>
  {/if}
  <div class="body">
    <section class="main">
      {#if undo}<UndoBooks {report} />{:else}<Books
          {report}
          shown={{ name: open.name, fields: open.view.table.fields }}
        />{/if}
      {#key open.run.id}
        <LedgerView {open} run={open.run} bind:outcome bind:search bind:only {goTo} />
      {/key}
    </section>
    <aside>
      <div class="bt">
        <h2>Records touched</h2>
        {#if stands && open.run.keptUntil}<button
            class="button small end"
            disabled={!!open.busy}
            onclick={() => (takingBack = true)}
            >{undo ? 'Undo this undo…' : cutOff ? 'Take it back…' : 'Take this run back…'}</button
          >{/if}
      </div>
      {#if stands}
        <p class="q2 touched">
          {open.run.keptUntil
            ? `It can be taken back until ${date(open.run.keptUntil)}.`
            : 'Its ledger is gone, and it can’t be taken back any more.'}
        </p>
      {/if}
      {#each report.destinations as some (some.table)}
        {@const table = open.tableOf(some.table)}
        <p class="touched">
          {#if undo}
            {many(some.removed ?? 0, 'record')} removed, {count(some.changed)} put back{some.new
              ? `, ${count(some.new)} brought back`
              : ''}
          {:else}
            <a
              class="go"
              href={recordsOf(open.plan.connection, table, `?run=${open.run.id}&outcome=new`)}
              >{many(some.new, 'new record')}</a
            >,
            <a
              class="go"
              href={recordsOf(open.plan.connection, table, `?run=${open.run.id}&outcome=changed`)}
              >{count(some.changed)} changed</a
            >
          {/if}{some.table === open.name ? '; ' : ' in '}<span class="m">{some.table}</span
          >{some.table === open.name ? ` now holds ${count(open.view.tableRecords)}` : ''}
        </p>
      {/each}
      {#if into.fieldsChanged.length}
        <FieldsChanged {into} />
      {/if}
      {#if !undo && into.rejected}{#key open.run.id}<Returned run={open.run.id} />{/key}{/if}
      {#if undo}
        {#if report.problems.length}
          <div class="bt"><h2>Not taken back as they were</h2></div>
          <ul class="why">
            {#each report.problems as problem (`${problem.destination}.${problem.code}`)}
              <li>
                <b>{count(problem.rows)}</b>
                {why(problem)}
                {#if problem.code !== 'altered'}<button
                    class="go"
                    onclick={() => (outcome = problem.code === 'held' ? 'rejected' : 'skipped')}
                    >show</button
                  >{/if}
              </li>
            {/each}
          </ul>
        {/if}
      {:else}<Problems
          {open}
          {report}
          run={open.run!.id}
          show={(field, value, of = {}) => {
            outcome = 'rejected';
            search = value || (of.problem ? '' : field);
            only = of;
          }}
        />{/if}
    </aside>
  </div>
{/if}

<style>
  .begin,
  .going {
    padding: 12px 16px;
    border-bottom: 1px solid var(--ink);
    background: var(--sheet);
    display: flex;
    flex-wrap: wrap;
    gap: 8px 16px;
    align-items: center;
    flex: none;
  }
  .begin p,
  .going p {
    width: 100%;
  }
  .going .choices {
    display: flex;
    gap: 10px;
  }
  .cut {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 12px;
    align-items: center;
  }
  .cut p {
    flex: 1 1 420px;
  }
  .going progress {
    width: 100%;
    accent-color: var(--new);
  }
  section.main {
    flex: 1;
    min-width: 0;
    display: flex;
    flex-direction: column;
    min-height: 0;
    /* beneath an undo there may be too little room for all */
    overflow-y: auto;
  }
  aside {
    width: min(382px, 30vw);
    border-left: 1px solid var(--ink);
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
  aside :global(.problems) {
    width: auto;
    flex: 1;
    border-right: 0;
    border-top: 1px solid var(--ink);
  }
  .touched {
    padding: 0 12px 8px;
  }
  .why {
    list-style: none;
    margin: 0;
    padding: 0 12px 8px;
  }
  .message {
    flex: none;
  }
</style>
