<script lang="ts">
  // What is about to happen: said before anything does, with a button that says it once more.
  import type { RunReport, RunView } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import type { Stop } from '../plan/trip';
  import { isAmbiguous } from '../read/reading';
  import { lookedAt } from '../rehearse/shared';
  import LedgerView from '../rehearse/LedgerView.svelte';
  import { tell } from '../ui/toaster';
  import { count, listed, many, OUTCOMES, when } from '../ui/words';
  import { deed, sumsOf } from './books';
  import FieldsChanged from './FieldsChanged.svelte';
  import OutcomeTitles from './OutcomeTitles.svelte';

  interface Props {
    open: OpenPlan;
    rehearsal: RunView;
    report: RunReport;
    goTo: (to: Stop) => void;
  }
  let { open, rehearsal, report, goTo }: Props = $props();

  const looked = lookedAt(location.search);
  let outcome = $state(looked.outcome);
  let search = $state(looked.search);
  let only = $state.raw(looked.only);
  const doing = $derived(deed(report));
  /** Rows that the database refused when it tried them; all is taken back then, by this plan. */
  const refused = $derived(
    open.plan.run.mode !== 'all-or-nothing'
      ? 0
      : report.problems.filter((p) => p.code === 'refused').reduce((sum, p) => sum + p.rows, 0),
  );
  async function setAside() {
    open.edit((plan) => ({ ...plan, run: { ...plan.run, mode: 'set-aside' } }));
    await open.rehearse();
  }

  /** Fields whose dates or numbers read in two ways. */
  const unread = $derived([
    ...new Set(report.questions.filter((q) => isAmbiguous(q.code)).map((q) => q.field)),
  ]);
  /** What is rejected, in words: a row may be rejected in one table and in another. */
  const rejected = $derived.by(() => {
    const some = report.destinations.filter((d) => d.rejected);
    if (some.length === 1) return many(some[0]!.rejected, 'rejected row');
    const each = some.map((d) => `${count(d.rejected)} of ${d.table}`).join(', ');
    return each && `rejected rows (${each})`;
  });
  /** The rejected rows that the plan bears, in words; empty if any number. */
  const bears = $derived.by(() => {
    const { stopAfter, stopAfterPercent } = open.plan.run;
    const most = stopAfter == null ? '' : many(stopAfter, 'rejected row');
    const share = stopAfterPercent == null ? '' : `${stopAfterPercent} % of the rows rejected`;
    return [most, share].filter(Boolean).join(', or ');
  });
  const changing = $derived(report.destinations.filter((d) => d.fieldsChanged.length));
</script>

<div class="bt top">
  <h2>What is about to happen</h2>
  <span class="q2"
    >as rehearsed {when(rehearsal.startedAt)}, by this Plan and this file{#if open.run?.number}; the
      last one was
      <a class="go" href="/plans/{open.view.id}/run?run={open.run.id}">{open.run.number}</a
      >{/if}</span
  >
  <span class="end">
    {#if open.guesses.length}
      <b class="waiting"
        >{listed(open.guesses.map((g) => g.field))}: filled by a guess that nobody has confirmed.</b
      >
      <button
        class="button"
        onclick={async () => {
          const { at, field } = open.guesses[0]!;
          await open.show(at, field).catch(tell);
          goTo('fill');
        }}>Confirm</button
      >
    {:else if unread.length}
      <b class="waiting">{listed(unread)}: may be read in two ways, and nobody has said which.</b>
      <button class="button" onclick={() => goTo('rehearse')}>Answer</button>
    {:else if refused}
      <b class="rejected">The database refuses {many(refused, 'row')}: nothing would be written.</b>
      <button class="button" onclick={() => goTo('rehearse')}>Mend</button>
      <button
        class="button main"
        title="A row that the database refuses is rejected, and the others are written"
        onclick={() => void setAside()}>Set {refused === 1 ? 'it' : 'them'} aside</button
      >
    {:else if doing}
      <button class="button main" onclick={() => void open.start()}>{doing}</button>
    {:else}
      <b class="q2">Nothing to write: the records already stand as the file has them.</b>
    {/if}
  </span>
</div>
<div class="body">
  <section>
    <table class="g">
      <colgroup>
        <col style:width="172px" /><col style:width="86px" />
        {#each OUTCOMES as outcome (outcome)}<col />{/each}
      </colgroup>
      <thead>
        <tr>
          <th>Into</th><th class="r">Rows</th>
          <OutcomeTitles />
        </tr>
      </thead>
      <tbody>
        {#each report.destinations as into (into.table)}
          <tr>
            <td><b>{into.table}</b></td>
            <td class="r">{count(into.rows)}</td>
            {#each OUTCOMES as outcome (outcome)}<td class="r"
                >{#if into[outcome]}<b class={outcome}>{count(into[outcome])}</b>{:else}<span
                    class="q">0</span
                  >{/if}</td
              >{/each}
          </tr>
        {/each}
        {#each report.createdIn as { table, records } (table)}
          <tr
            ><td><b>{table}</b></td><td class="t q" colspan="6"
              >{many(records, 'record')} that links need and that nobody made yet</td
            ></tr
          >
        {/each}
      </tbody>
    </table>
    {#if report.controlTotals.length}
      <div class="bt">
        <h2>Sums as they will stand</h2>
        <span class="q2">of rows that are new, changed or unchanged</span>
      </div>
      <table class="g">
        <colgroup><col style:width="258px" /><col /><col /></colgroup>
        <thead
          ><tr><th>Field</th><th class="r">In the file</th><th class="r">In the table</th></tr
          ></thead
        >
        <tbody>
          {#each report.controlTotals as total (`${total.destination}.${total.field}`)}
            {@const sum = sumsOf({ name: open.name, fields: open.view.table.fields }, total)}
            <tr>
              <td>{report.destinations.length > 1 ? `${total.destination}.` : ''}{total.field}</td>
              <td class="r">{sum.format(total.source)}</td>
              <td class="r">{sum.format(total.written)}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
    <LedgerView {open} run={rehearsal} bind:outcome bind:search bind:only {goTo} />
  </section>
  <aside>
    <div class="bt"><h2>How</h2></div>
    <ul>
      {#if open.plan.run.mode === 'batches'}
        <li>
          {many(open.plan.run.batchRows, 'row')} or a few more are made lasting at a time; rows that the
          database refuses are set aside and told.
        </li>
        <li>
          It can be paused. Should anything cut it off, it goes on where it stood, or what stands is
          taken back.
        </li>
      {:else if open.plan.run.mode === 'set-aside'}
        <li>All is written together; rows that the database refuses are set aside and told.</li>
      {:else}
        <li>All is written together, or nothing is: if one row is refused, none stands.</li>
      {/if}
      {#if bears}<li>
          With more than {bears} it ends{open.plan.run.mode === 'batches'
            ? '; what was written before stands.'
            : ', and nothing is written.'}
        </li>{/if}
      <li>It can be taken back afterwards, to the value, as long as its ledger is kept.</li>
      {#if rejected}<li>
          The {rejected} stay in the file and in the ledger, with their reasons.
          <button class="go" onclick={() => goTo('rehearse')}>See them</button>
        </li>{/if}
      <li>If another run goes into the same table, this one waits until it is done.</li>
      <li>
        Records are read anew as it goes. {open.plan.run.whenDifferent === 'refuse'
          ? `If a row comes out otherwise than rehearsed, it ends${open.plan.run.mode === 'batches' ? '; what was written before stands.' : ', and nothing is written.'}`
          : 'Rows that come out otherwise than rehearsed are named afterwards, with the reason.'}
      </li>
    </ul>
    {#each changing as into (into.table)}
      <div class="bt lower">
        <h2>Fields that change</h2>
        <span class="q2"
          >in {many(into.changed, 'record')} of <span class="m">{into.table}</span></span
        >
      </div>
      <FieldsChanged {into} />
    {/each}
  </aside>
</div>

<style>
  .top {
    border-bottom: 1px solid var(--ink);
    padding-block: 8px;
  }
  section {
    flex: 1;
    min-width: 0;
    min-height: 0;
    display: flex;
    flex-direction: column;
  }
  table {
    flex: none;
  }
  aside {
    width: min(382px, 30vw);
    border-left: 1px solid var(--ink);
    overflow: auto;
  }
  ul {
    list-style: square;
    padding: 0 14px 10px 28px;
    display: grid;
    gap: 6px;
  }
  .lower {
    border-top: 1px solid var(--ink);
  }
</style>
