<script lang="ts">
  import type { MatchClass } from '../match/keys';
  import type { OpenPlan } from '../plan/plan.svelte';
  import type { Stop } from '../plan/trip';
  import Changes from '../read/Changes.svelte';
  import Slip from '../ui/Slip.svelte';
  import { wordsOf, work } from '../run/work.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import { tell } from '../ui/toaster';
  import { count, many, took, when } from '../ui/words';
  import type { Only } from './entries.svelte';
  import Since from './Since.svelte';
  import DatabaseSay from './DatabaseSay.svelte';
  import { lookedAt } from './shared';
  import LedgerView from './LedgerView.svelte';
  import OutcomeHead from './OutcomeHead.svelte';
  import Problems from './Problems.svelte';
  import Questions from './Questions.svelte';

  const LETTERS = 'ABCDEF';

  let { open, goTo }: { open: OpenPlan; goTo: (to: Stop) => void } = $props();

  const looked = lookedAt(location.search);
  let outcome = $state(looked.outcome);
  let search = $state(looked.search);
  const report = $derived(open.rehearsal?.report);
  /** What was found last stays in view while so few rows are gone through again. */
  const quick = $derived(open.view.source.rows <= 20_000);

  let only = $state.raw<Only>(looked.only);
  function show(field: string, value: string, of: Only = {}) {
    outcome = 'rejected';
    search = value || (of.problem ? '' : field);
    only = of;
  }
  function showWaiting(field: string, value: string, at: number) {
    outcome = 'waiting';
    search = value || field;
    only = { table: Math.max(0, at) || undefined };
  }
  async function decide(of: MatchClass, at: number) {
    open.matchClass = of;
    await shown(at);
    goTo('match');
  }
  /** Shows the table that something is about, if it is about one. */
  const shown = (at: number, field?: string) => open.show(Math.max(0, at), field).catch(tell);
  /** What is told beforehand and can be mended at another stop, each with a letter as answers have. */
  const mends = $derived(open.matters.filter((m) => m.field && m.code !== 'key-not-filled'));
  const takesColumns = $derived(open.view.source.changes.length > 0);
  function letter(matter: (typeof mends)[number]): string {
    // below what was rehearsed before, letters answer its questions
    const at = mends.indexOf(matter) + (takesColumns ? 1 : 0);
    return report ? '' : (LETTERS[at] ?? '');
  }
  useKeys(() =>
    open.matters.length
      ? [
          ...mends
            .filter((m) => letter(m))
            .map((m) => ({
              keys: [letter(m).toLowerCase()],
              say: '',
              act: () => void mend(m.field!, m.at),
            })),
          ...(mends.some(letter) ? [{ keys: mends.map(letter).filter(Boolean), say: 'mend' }] : []),
        ]
      : [],
  );

  async function mend(field: string, at: number) {
    await shown(at, field);
    goTo(open.view.table.fields.some((f) => f.name === field) ? 'fill' : 'match');
  }
</script>

{#if open.matters.length}
  <div class="note matters">
    <h2>Before it can be rehearsed</h2>
    {#if open.view.source.changes.length}
      <div class="changes"><Changes {open} letter={report ? undefined : 'A'} /></div>
    {/if}
    <ul>
      {#each open.matters as matter (`${matter.at}${matter.code}${matter.field}`)}
        <li>
          <span class="waiting"><Slip of="waiting" /></span>
          {#if matter.at}<b class="m">{open.view.tables[matter.at]?.name}</b>{/if}
          {matter.message}
          {#if mends.includes(matter)}
            <button
              class="button small"
              aria-keyshortcuts={letter(matter) || undefined}
              onclick={() => void mend(matter.field!, matter.at)}
              >{#if letter(matter)}<kbd aria-hidden="true">{letter(matter)}</kbd>{/if} Mend</button
            >
          {/if}
        </li>
      {/each}
    </ul>
  </div>
{:else if open.busy === 'rehearsal' && !(report && quick)}
  <p class="note" role="status">
    Rehearsing all {count(open.view.source.rows)} rows…
    {#if work.stand}<span class="q2">{wordsOf(work.stand)}</span>
      <button class="go" onclick={() => void work.stop(work.stand!.id)}>Stop</button>{/if}
  </p>
{:else if open.rehearsal?.state === 'failed' || open.rehearsal?.state === 'stopped'}
  <p class="message" role="alert">{open.rehearsal.message}</p>
{/if}
{#if open.rehearsal && report && (open.busy !== 'rehearsal' || quick)}
  <OutcomeHead
    report={open.report ?? report}
    run={open.rehearsal.id}
    kind="rehearsal"
    parents={open.view.tables.map((t) => t.parent)}
    verb="rehearsed, nothing written"
    at="at {when(open.rehearsal.startedAt)}, in {took(report.seconds)}"
  />
  {#if open.rehearsed}
    <Since
      run={open.rehearsal.id}
      first={report.destinations[0]?.table ?? ''}
      show={(to, table) => {
        outcome = to;
        search = '';
        only = {
          table:
            Math.max(
              0,
              report.destinations.findIndex((d) => d.table === table),
            ) || undefined,
        };
      }}
    />
  {/if}
  {#if !open.rehearsed && !open.busy}
    <p class="message mild">
      {open.recounted
        ? `The figures count your answers: ${many(open.recounted.rows, 'row')} were gone through again. All else here is as it was rehearsed.`
        : open.ran
          ? 'This was rehearsed before the last Run; the records have changed since.'
          : 'The Plan or its file changed after this rehearsal.'}
      <button class="button small" onclick={() => void open.rehearse()}>Rehearse again</button>
    </p>
  {/if}
  <div class="body" class:again={open.busy === 'rehearsal'}>
    <Problems {open} {report} run={open.rehearsal.id} {show} fix={mend}>
      {#snippet lead()}
        <Questions {open} show={showWaiting} {mend} {decide} />
      {/snippet}
      <DatabaseSay {open} />
      <div class="next">
        <button class="button main" disabled={!open.rehearsed} onclick={() => goTo('run')}
          >Go on to the Run</button
        >
      </div>
    </Problems>
    {#key open.rehearsal.id}
      <LedgerView {open} run={open.rehearsal} bind:outcome bind:search bind:only {goTo} />
    {/key}
  </div>
{:else if !open.busy && !open.rehearsal?.message && !open.matters.length}
  <div class="note">
    <p>
      A rehearsal goes through all {count(open.view.source.rows)} rows and says what would become of each.
      Nothing is written.
    </p>
    <p>
      <button class="button main" onclick={() => void open.rehearse()}>Rehearse <kbd>R</kbd></button
      >
    </p>
    {#if open.view.table.ownRules.length}<DatabaseSay {open} />{/if}
  </div>
{/if}

<style>
  .note {
    padding: 18px 16px;
    display: grid;
    gap: 12px;
    color: var(--ink-2);
  }
  .matters li {
    line-height: 30px;
  }
  .changes {
    display: grid;
    gap: 5px;
    justify-items: start;
  }
  .next {
    padding: 10px 16px;
    border-top: 1px solid var(--ink);
  }
  .message {
    flex: none;
  }
  .again {
    opacity: 0.7;
  }
</style>
