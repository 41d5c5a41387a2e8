<script lang="ts">
  // The ledger of a rehearsal or run, with the fate of one row below it.
  import { untrack } from 'svelte';
  import { api, got } from '../api/client';
  import type { LedgerEntry, LedgerPage, Outcome as OutcomeName, RunView } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import type { Stop } from '../plan/trip';
  import { useKeys } from '../ui/keys.svelte';
  import Outcome from '../ui/Outcome.svelte';
  import Pick from '../ui/Pick.svelte';
  import { tell } from '../ui/toaster';
  import { count, happened, outcomesOf, outcomeWord } from '../ui/words';
  import Inspector from './Inspector.svelte';
  import { region } from '../ui/region';

  interface Props {
    open: OpenPlan;
    run: RunView;
    outcome: OutcomeName | '';
    search: string;
    goTo: (to: Stop) => void;
  }
  let { open, run, outcome = $bindable(), search = $bindable(), goTo }: Props = $props();

  const PAGE = 100;
  let page = $state.raw<LedgerPage | null>(null);
  let offset = $state(0);
  let at = $state(0);
  let finder = $state<HTMLInputElement>();
  let list = $state<HTMLElement>();
  const into = $derived(run.report?.destinations[0]);
  const outcomes = $derived(outcomesOf(run.kind, into));
  const written = $derived(run.kind !== 'rehearsal');
  const fields = $derived(page?.fields ?? []);
  const shownFields = $derived(
    [
      open.destination.keys[0]?.fields[0] ?? fields[0],
      fields.find((f) => /name|title|label/.test(f)),
    ].filter((f, i, all): f is string => !!f && all.indexOf(f) === i && fields.includes(f)),
  );
  const entry = $derived(page?.entries[at]);

  $effect(() => {
    const wanted = { outcome, search };
    untrack(() => {
      offset = 0;
      at = 0;
      void load(wanted.outcome, wanted.search);
    });
  });

  let asked = 0;
  async function load(wantedOutcome: string, wantedSearch: string) {
    const mine = ++asked;
    try {
      const query = {
        outcome: wantedOutcome || undefined,
        search: wantedSearch || undefined,
        offset,
        limit: PAGE,
      };
      const answer = await got(
        api.GET('/api/runs/{id}/ledger', { params: { path: { id: run.id }, query } }),
      );
      if (mine === asked) page = answer;
    } catch (error) {
      tell(error);
    }
  }

  function turn(by: number) {
    offset = Math.max(0, offset + by);
    at = 0;
    void load(outcome, search);
  }

  function move(by: number) {
    at = Math.max(0, Math.min((page?.entries.length ?? 1) - 1, at + by));
    list?.querySelectorAll('tbody tr')[at]?.scrollIntoView({ block: 'nearest' });
  }

  function words(e: LedgerEntry): string {
    const filled = e.after.filter((v) => v != null).length;
    return happened(
      e.outcome,
      e.changed.map((i) => fields[i] ?? ''),
      e.notes,
      filled,
    );
  }

  function value(e: LedgerEntry, field: string): string {
    const i = fields.indexOf(field);
    return e.after[i] ?? e.before?.[i] ?? '';
  }

  useKeys(() => [
    { keys: ['j'], say: '', act: () => move(1) },
    { keys: ['k'], say: '', act: () => move(-1) },
    { keys: ['j', 'k'], say: 'ledger row' },
    {
      keys: ['o'],
      say: 'outcome',
      act: () => {
        const all: (OutcomeName | '')[] = ['', ...outcomes];
        outcome = all[(all.indexOf(outcome) + 1) % all.length]!;
      },
    },
    { keys: ['/'], say: 'find', act: () => finder?.focus() },
  ]);
</script>

<section class="ledger">
  <div class="bt">
    <h2>Ledger</h2>
    <Pick
      label="Outcome"
      value={outcome}
      pick={(o) => (outcome = o)}
      options={[
        { value: '', text: 'All' },
        ...outcomes.map((o) => ({
          value: o,
          text: `${outcomeWord(o, run.kind)} ${count(into?.[o] ?? 0)}`,
        })),
      ]}
    />
    <span class="end"
      ><input
        class="entry find"
        placeholder="find"
        aria-label="Find in the ledger"
        bind:this={finder}
        bind:value={search}
      /></span
    >
  </div>
  <div class="scroll list" {@attach region('Ledger')} bind:this={list}>
    <table class="g">
      <colgroup>
        <col style:width="52px" /><col style:width="104px" />
        {#each shownFields as f, i (f)}<col style="width: {i === 0 ? 100 : 150}px" />{/each}
        {#if written}<col style:width="70px" />{/if}
        <col />
      </colgroup>
      <thead>
        <tr>
          <th class="ln">line</th><th>Outcome</th>
          {#each shownFields as f (f)}<th>{f}</th>{/each}
          {#if written}<th>record</th>{/if}
          <th>{written ? 'What happened' : 'What happens'}, or why not</th>
        </tr>
      </thead>
      <tbody>
        {#each page?.entries ?? [] as e, i (`${e.row}.${e.part}`)}
          <tr class="pickable" class:cur={i === at} onclick={() => (at = i)}>
            <td class="ln">{e.line}</td>
            <td class="t"
              ><Outcome
                of={e.outcome}
                kind={run.kind}
                waiting={run.kind === 'rehearsal' && e.notes.some((n) => n.question)}
              /></td
            >
            {#each shownFields as f (f)}<td>{value(e, f)}</td>{/each}
            {#if written}
              <td
                >{#if e.recordKey && e.outcome !== 'removed'}<a
                    class="go"
                    href="/records/{open.plan.connection}/{open.view.table.name}?key={e.recordKey}"
                    >{e.recordKey}</a
                  >{/if}</td
              >
            {/if}
            <td class="t" class:rejected={e.outcome === 'rejected'} title={words(e)}>{words(e)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#if page?.total === 0}<p class="q" style:padding="12px 16px">No row is of this kind.</p>{/if}
  </div>
  {#if page && page.total > PAGE}
    <div class="bt turn">
      <span class="q2"
        >{count(offset + 1)} to {count(Math.min(page.total, offset + PAGE))} of {count(
          page.total,
        )}</span
      >
      <span class="end">
        <button class="button small" disabled={offset === 0} onclick={() => turn(-PAGE)}
          >Earlier</button
        >
        <button
          class="button small"
          disabled={offset + PAGE >= page.total}
          onclick={() => turn(PAGE)}>Later</button
        >
      </span>
    </div>
  {/if}
  {#if entry}<Inspector {open} {entry} {fields} {goTo} low={written} kind={run.kind} />{/if}
</section>

<style>
  .ledger {
    flex: 1;
    min-width: 0;
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
  .list {
    flex: 1;
  }
  .find {
    width: min(96px, 7vw);
  }
  .turn {
    border-top: 1px solid var(--rule);
  }
</style>
