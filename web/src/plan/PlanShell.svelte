<script lang="ts">
  // A plan's workspace: its head, the trip line, and the stop that is open.
  import { untrack } from 'svelte';
  import { searchParams } from 'sv-router';
  import { navigate, route } from '../router';
  import Fill from '../fill/Fill.svelte';
  import Match from '../match/Match.svelte';
  import Read from '../read/Read.svelte';
  import Rehearse from '../rehearse/Rehearse.svelte';
  import Run from '../run/Run.svelte';
  import Slip from '../ui/Slip.svelte';
  import { tell } from '../ui/toaster';
  import { useKeys } from '../ui/keys.svelte';
  import { count, many, when, listed } from '../ui/words';
  import { OpenPlan } from './plan.svelte';
  import TableStrip from './TableStrip.svelte';
  import TripLine from './TripLine.svelte';
  import { STOPS, type Stop } from './trip';

  let open = $state.raw<OpenPlan | null>(null);
  let failure = $state('');
  const id = $derived(Number(route.params.id));
  const stop = $derived((route.params.stop ?? 'fill') as Stop);
  /** True where one of several tables is in hand. */
  const inHand = $derived(stop === 'fill' || stop === 'match');

  $effect(() => {
    const wanted = id;
    untrack(() => void load(wanted));
  });

  // a run of old is shown in the place of the last one
  $effect(() => {
    const wanted = Number(searchParams.get('run') ?? 0);
    const plan = open;
    if (plan && wanted) untrack(() => plan.showRun(wanted).catch(tell));
  });

  /** What the head says of where it goes: the table in hand where there is one, else the first. */
  const into = $derived.by(() => {
    if (!open) return { table: '', said: '' };
    const { tables, table, tableRecords } = open.view;
    if (tables.length === 1) return { table: table.name, said: many(tableRecords, 'record') };
    return inHand
      ? { table: table.name, said: `one of ${tables.length} tables` }
      : { table: tables[0]!.table, said: `and ${many(tables.length - 1, 'more table')}` };
  });

  async function load(wanted: number) {
    open = null;
    failure = '';
    try {
      open = await OpenPlan.open(wanted);
    } catch (error) {
      failure = error instanceof Error ? error.message : String(error);
    }
  }

  function goTo(to: Stop) {
    void navigate('/plans/:id/:stop', { params: { id: String(id), stop: to } });
  }

  async function rehearse() {
    goTo('rehearse');
    await open?.rehearse();
  }

  function onkeydown(event: KeyboardEvent) {
    const typing = event.target instanceof HTMLInputElement;
    if ((event.ctrlKey || event.metaKey) && event.key === 'z' && !typing) {
      event.preventDefault();
      open?.unmake();
    }
  }

  useKeys(() => [
    {
      keys: ['1', '2', '3', '4', '5'],
      say: 'stops',
      act: (e) => goTo(STOPS[Number(e.key) - 1] ?? 'fill'),
    },
    { keys: ['r'], say: 'rehearse', act: () => void rehearse() },
  ]);
</script>

<svelte:window
  {onkeydown}
  onbeforeunload={(e) => open?.saving !== 'saved' && open && e.preventDefault()}
/>

{#if failure}
  <div class="pagehead"><h1>Plan</h1></div>
  <p class="message" style:margin="16px" role="alert">
    {failure} <a class="go" href="/plans">All plans</a>
  </p>
{:else if open}
  {@const view = open.view}
  <header class="head">
    <div class="top">
      <h1 class="sr">{open.plan.name}</h1>
      <input
        class="ed title"
        aria-label="Name of the plan"
        value={open.plan.name}
        onchange={(e) => open?.edit((p) => ({ ...p, name: e.currentTarget.value || p.name }))}
      />
      <span class="chip"
        ><span class="m">{view.source.name}</span><i
          >{#if view.source.reading.sheet}<bdi>{view.source.reading.sheet}</bdi>,&#32;{/if}{many(
            view.source.rows,
            'row',
          )}</i
        ></span
      >
      <Slip of="arrow" />
      <span class="chip"><span class="m">{into.table}</span><i>{into.said}</i></span>
      <span class="q saved" aria-live="polite">
        {#if open.followed.length && open.saving === 'saved'}
          <b>drafted anew:</b>
          <span title={open.followed.join(', ')}>{listed(open.followed, 2)}</span>
        {:else if open.saving === 'saved'}saved {when(view.savedAt)}, revision {view.revision}
        {:else if open.saving === 'saving'}saving
        {:else}not saved yet{/if}
      </span>
      <button class="button main" disabled={!!open.busy} onclick={rehearse}>
        {open.rehearsal ? 'Rehearse again' : 'Rehearse'} <kbd>R</kbd>
      </button>
    </div>
    <TripLine {open} {stop} {goTo} />
  </header>
  {#if view.tables.length > 1 && inHand}<TableStrip {open} />{/if}
  {#if open.conflict}
    <p class="message" role="alert">
      {open.conflict}
      <button class="button small" onclick={() => open?.reload()}>Load it again</button>
    </p>
  {:else if open.refusal}
    <p class="message" role="alert">
      {open.refusal}
      <button class="button small" onclick={() => open?.unmake()}>Unmake the change</button>
    </p>
  {/if}
  {#key open}
    {#if stop === 'read'}<Read {open} />
    {:else if stop === 'match'}<Match {open} />
    {:else if stop === 'rehearse'}<Rehearse {open} {goTo} />
    {:else if stop === 'run'}<Run {open} {goTo} />
    {:else}<Fill {open} />{/if}
  {/key}
{:else}
  <div class="pagehead"><h1 class="q">Opening {count(id)}…</h1></div>
{/if}

<style>
  .head {
    padding: 11px 16px 0;
    border-bottom: 1px solid var(--ink);
    flex: none;
  }
  .top {
    display: flex;
    align-items: center;
    gap: 10px;
    height: 28px;
  }
  .sr {
    position: absolute;
    clip-path: inset(50%);
  }
  .title {
    font-size: 20px;
    font-weight: 680;
    letter-spacing: -0.018em;
    height: 28px;
    border-color: transparent;
    field-sizing: content;
    max-width: 300px;
    min-width: 90px;
    margin-right: 8px;
    text-overflow: ellipsis;
  }
  .title:hover,
  .title:focus {
    border-color: var(--rule-firm);
  }
  .chip {
    display: inline-flex;
    align-items: center;
    gap: 7px;
    height: 26px;
    padding: 0 9px;
    border: 1px solid var(--rule-firm);
    background: var(--sheet);
    white-space: nowrap;
    overflow: hidden;
    min-width: 0;
  }
  .chip .m {
    font-weight: 560;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .chip i {
    font-style: normal;
    color: var(--ink-3);
  }
  @media (max-width: 1100px) {
    .chip i {
      display: none;
    }
  }
  .saved {
    margin-left: auto;
    white-space: nowrap;
  }
  .message {
    flex: none;
  }
  @media (max-width: 900px) {
    .saved {
      display: none;
    }
    .title {
      max-width: 160px;
    }
    .top .button {
      margin-left: auto;
    }
  }
</style>
