<script lang="ts">
  // The ledger of a rehearsal or run, with the fate of one row below it.
  import { untrack } from 'svelte';
  import { api, got } from '../api/client';
  import type { LedgerEntry, Outcome as OutcomeName, RunView } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { recordsOf } from '../records/links';
  import type { Stop } from '../plan/trip';
  import { useKeys } from '../ui/keys.svelte';
  import Outcome from '../ui/Outcome.svelte';
  import { Tall } from '../ui/tall.svelte';
  import { awaits, rowsOf, waitingRows } from './asked';
  import { Entries, held, type Only } from './entries.svelte';
  import { addressed, queryOf } from './shared';
  import FieldChanges from './FieldChanges.svelte';
  import Pick from '../ui/Pick.svelte';
  import { tell, toaster } from '../ui/toaster';
  import { fit, letters, needed } from '../ui/widths';
  import { count, happened, many, outcomesOf, outcomeWord } from '../ui/words';
  import Inspector from './Inspector.svelte';
  import { region } from '../ui/region';
  import OtherRecords from './OtherRecords.svelte';
  import { RowRecords } from './records.svelte';
  import RowFates from './RowFates.svelte';

  type Shown = OutcomeName | 'waiting' | '';

  interface Props {
    open: OpenPlan;
    run: RunView;
    outcome: Shown;
    search: string;
    only?: Only;
    goTo: (to: Stop) => void;
  }
  let {
    open,
    run,
    outcome = $bindable(),
    search = $bindable(),
    only = $bindable({}),
    goTo,
  }: Props = $props();

  const ROW = 25;
  const HEAD = 26;
  const all = untrack(() =>
    (run.report?.destinations ?? [null]).map(
      (_, place) => new Entries(run.id, place, run.kind === 'rehearsal', tell),
    ),
  );
  /** Place of the table whose entries are shown. */
  const table = $derived(Math.min(only.table ?? 0, all.length - 1));
  const found = $derived(all[table]!);
  /** The other tables that rows go to, by their places; an undo goes by records, not by rows. */
  const others = $derived(
    run.kind === 'undo' ? [] : all.map((_, at) => at).filter((at) => at !== table),
  );
  const beside = untrack(() => new RowRecords(run.id, tell));
  const nameOf = (place: number) => run.report?.destinations[place]?.table ?? '';
  const filled = $derived(open.plan.destinations[table]);
  const tall = new Tall(ROW, () => found.total ?? 0, HEAD);
  let at = $state(0);
  let by = $state<'rows' | 'fields'>('rows');
  let finder = $state<HTMLInputElement>();
  let list = $state<HTMLElement>();
  const into = $derived(run.report?.destinations[table]);

  /** The fields of the table shown that hold keys of others. */
  async function linksOf(): Promise<string[]> {
    const path = { name: open.plan.connection!, table: open.tableOf(into?.table ?? '') };
    const shown = table
      ? await got(api.GET('/api/connections/{name}/tables/{table}', { params: { path } }))
      : open.view.table;
    return shown.fields.filter((f) => f.link).map((f) => f.name);
  }
  const outcomes = $derived(outcomesOf(run.kind, into));
  const waiting = $derived(waitingRows(run.kind, into));
  const options = $derived<{ value: Shown; text: string; hint?: string }[]>([
    { value: '', text: 'All' },
    // how many they are stands above; beside the choice of a table there is room for some only
    ...outcomes
      .filter((o) => all.length === 1 || o === outcome || rowsOf(run.kind, into, o))
      .map((o) => ({
        value: o,
        text: outcomeWord(o, run.kind),
        hint: many(rowsOf(run.kind, into, o), 'row'),
      })),
    ...(waiting
      ? [{ value: 'waiting' as const, text: 'Waiting', hint: many(waiting, 'row') }]
      : []),
  ]);
  const written = $derived(run.kind !== 'rehearsal');
  const fields = $derived(found.fields);
  /** Pixels of the columns beside those of fields, with some for what happens; the least of these. */
  const beyond = $derived(others.length ? 280 : 370);
  const RECORD = 70;
  const FATE = 104;
  const LEAST = 100;
  let room = $state(0);
  /** Those of the other tables for which there is room; the row in hand tells of all. */
  const shownOthers = $derived(
    others.slice(0, Math.max(0, Math.min(3, Math.floor((room - beyond - LEAST) / FATE)))),
  );
  const forFields = $derived(room - beyond - (written ? RECORD : 0) - shownOthers.length * FATE);
  const needs = (f: string) => needed(Math.max(letters(f), found.longest[fields.indexOf(f)] ?? 0));
  /** A field of plain text, where the table is known. */
  const isText = (f: string) =>
    !table &&
    f !== filled?.keys[0]?.fields[0] &&
    open.view.table.fields.some((i) => i.name === f && i.type === 'text' && !i.link && !i.choices);
  const shownFields = $derived.by(() => {
    const first = filled?.keys[0]?.fields[0] ?? fields[0];
    const hasRoom = !!first && needs(first) + LEAST <= forFields;
    const name = fields.find((f) => /name|title|label/.test(f));
    return [first, name ?? (hasRoom ? fields.find(isText) : undefined)].filter(
      (f, i, all): f is string => !!f && all.indexOf(f) === i && fields.includes(f),
    );
  });
  const widths = $derived(
    fit(
      shownFields.map((f) => ({ least: LEAST, need: needs(f) })),
      forFields,
    ),
  );
  const entry = $derived(found.at(at));
  const seen = $derived(Array.from({ length: tall.to - tall.from }, (_, i) => tall.from + i));

  $effect(() => {
    const wanted = { outcome, search, only };
    untrack(() => {
      at = 0;
      by = 'rows';
      if (list) tall.scrollTo(list, 0);
      found.find(wanted.outcome, wanted.search, wanted.only);
      addressed(wanted);
    });
  });
  $effect(() => {
    const [a, b] = [tall.from, tall.to];
    untrack(() => found.want(a, b));
  });
  $effect(() => {
    const lines = seen.map((i) => found.at(i)?.line).filter((line) => line !== undefined);
    const wanted = others;
    untrack(() => wanted.forEach((place) => void beside.want(lines, place)));
  });

  function move(by: number) {
    at = Math.max(0, Math.min((found.total ?? 1) - 1, at + by));
    found.want(at, at + 1);
    if (list) tall.reveal(list, at);
  }

  /** Gives the address of a row to be passed on: in the clipboard, where that is allowed. */
  function share(line: number) {
    const address = location.origin + location.pathname;
    const query = queryOf(
      { outcome: '', search: '', only: { table: only.table, line } },
      location.search,
    );
    outcome = '';
    search = '';
    only = { table: only.table, line };
    const copied = navigator.clipboard?.writeText(address + query);
    void (copied ?? Promise.reject(new Error('not allowed'))).then(
      () => toaster.success({ title: `The address of line ${line} is in the clipboard.` }),
      () => toaster.info({ title: `The address of line ${line} stands in the address bar.` }),
    );
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

  const value = (e: LedgerEntry, field: string) => held(e, fields.indexOf(field));

  useKeys(() => [
    { keys: ['j'], say: '', act: () => move(1) },
    { keys: ['k'], say: '', act: () => move(-1) },
    { keys: ['j', 'k'], say: 'ledger row' },
    {
      keys: ['o'],
      say: 'outcome',
      act: () => {
        const all = options.map((o) => o.value);
        outcome = all[(all.indexOf(outcome) + 1) % all.length]!;
      },
    },
    {
      keys: ['v'],
      say: by === 'rows' ? 'fields' : 'rows',
      act: () => (by = by === 'rows' ? 'fields' : 'rows'),
    },
    { keys: ['/'], say: 'find', act: () => finder?.focus() },
  ]);
</script>

<section class="ledger">
  <div class="bt">
    <h2>Ledger{all.length > 1 ? ' of' : ''}</h2>
    {#if all.length > 1}
      <select
        class="ed m"
        aria-label="Table"
        value={table}
        onchange={(e) => {
          outcome = '';
          search = '';
          only = { table: Number(e.currentTarget.value) || undefined };
        }}
      >
        {#each run.report?.destinations ?? [] as of, place (of.table)}<option value={place}
            >{of.table}</option
          >{/each}
      </select>
    {/if}
    {#if into?.changed}
      <button
        class="button small"
        class:on={by === 'fields'}
        aria-pressed={by === 'fields'}
        title="what becomes of each field"
        onclick={() => (by = by === 'rows' ? 'fields' : 'rows')}>Fields</button
      >
    {/if}
    {#if by === 'rows'}
      <Pick label="Outcome" value={outcome} pick={(o) => (outcome = o)} {options} />
      <span class="end"
        ><input
          class="entry find"
          placeholder="find"
          aria-label="Find in the ledger"
          bind:this={finder}
          bind:value={search}
        /></span
      >
    {:else}<span class="q">what becomes of records that are there</span>{/if}
  </div>
  {#if only.changed || only.problem || only.line}
    <p class="only q2">
      {#if only.line}Only line {only.line}{:else if only.changed}Only rows that change
        <b class="m">{only.changed}</b>{:else}Only rows with this problem:
        {#if only.field}<b class="m">{only.field}</b>{/if}
        {only.said}{/if}
      <button class="go" onclick={() => (only = { table: only.table })}>all rows</button>
    </p>
  {/if}
  {#if by === 'rows' && search && found.total}
    <p class="only q2" aria-live="polite">
      {found.total === 1 ? '1 row holds' : `${count(found.total)} rows hold`} “{search}”.
    </p>
  {/if}
  {#if by === 'fields'}
    <FieldChanges
      run={run.id}
      {table}
      changed={into?.changed ?? 0}
      {linksOf}
      pick={(field) => {
        outcome = 'changed';
        search = '';
        only = { table: only.table, changed: field };
        by = 'rows';
      }}
    />
  {:else}
    <div
      class="scroll list"
      {@attach region('Ledger')}
      bind:this={list}
      bind:clientHeight={tall.height}
      bind:clientWidth={room}
      onscroll={() => (tall.top = list!.scrollTop)}
      onwheel={(e) => tall.wheel(list!, e)}
    >
      <div class="tall" style="height: {tall.total}px">
        <table class="g" style="top: {tall.offset}px">
          <colgroup>
            <col style:width="52px" /><col style:width="104px" />
            {#each shownFields as f, i (f)}<col style="width: {widths[i]}px" />{/each}
            {#if written}<col style:width="{RECORD}px" />{/if}
            {#each shownOthers as place (place)}<col style:width="{FATE}px" />{/each}
            <col />
          </colgroup>
          <thead>
            <tr>
              <th class="ln">line</th><th>Outcome</th>
              {#each shownFields as f (f)}<th>{f}</th>{/each}
              {#if written}<th>record</th>{/if}
              {#each shownOthers as place (place)}<th class="m" title={nameOf(place)}
                  >{nameOf(place)}</th
                >{/each}
              <th>{written ? 'What happened' : 'What happens'}, or why not</th>
            </tr>
          </thead>
          <tbody>
            {#each seen as i (i)}
              {@const e = found.at(i)}
              {#if e}
                <tr class="pickable" class:cur={i === at} onclick={() => (at = i)}>
                  <td class="ln">{e.line}</td>
                  <td class="t"
                    ><Outcome of={e.outcome} kind={run.kind} waiting={awaits(run.kind, e)} /></td
                  >
                  {#each shownFields as f (f)}<td>{value(e, f)}</td>{/each}
                  {#if written}
                    <td
                      >{#if e.recordKey && e.outcome !== 'removed'}<a
                          class="go"
                          href={recordsOf(
                            open.plan.connection,
                            filled?.table ?? open.view.table.name,
                            `?key=${encodeURIComponent(e.recordKey)}`,
                          )}>{e.recordKey}</a
                        >{/if}</td
                    >
                  {/if}
                  {#each shownOthers as place (place)}<td class="t"
                      ><RowFates entries={beside.of(e, place)} kind={run.kind} /></td
                    >{/each}
                  <td class="t" class:rejected={e.outcome === 'rejected'} title={words(e)}
                    >{words(e)}</td
                  >
                </tr>
              {:else}<tr
                  ><td class="ln">…</td><td
                    colspan={2 + shownFields.length + shownOthers.length + (written ? 1 : 0)}
                  ></td></tr
                >{/if}
            {/each}
          </tbody>
        </table>
      </div>
      {#if found.total === 0}<p class="q none">No row is of this kind.</p>
      {:else if found.total === undefined}<p class="q none later" role="status">
          Looking through all rows…
        </p>{/if}
    </div>
  {/if}
  {#if entry && by === 'rows'}<Inspector
      {open}
      {entry}
      into={filled}
      {table}
      {fields}
      {goTo}
      low={written}
      kind={run.kind}
      {share}
      ><OtherRecords
        kind={run.kind}
        others={others.map((place) => ({
          table: nameOf(place),
          isUnder: !!open.plan.destinations[place]?.parent,
          fields: beside.fields.get(place) ?? [],
          entries: beside.of(entry, place) ?? [],
        }))}
      /></Inspector
    >{/if}
</section>

<style>
  .ledger :global(.pick) {
    flex-wrap: wrap;
    flex: 0 1 auto;
  }
  .ledger {
    flex: 1;
    min-width: 0;
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
  .list {
    flex: 1;
    min-height: 130px;
    position: relative;
  }
  .find {
    width: min(96px, 7vw);
  }
  /* a line of its own for what does not fit beside the rest */
  @media (max-width: 1180px) {
    .bt {
      flex-wrap: wrap;
      padding-top: 4px;
    }
    .ledger :global(.pick) {
      order: 1;
      flex-basis: 100%;
      border: 0;
    }
  }
  .on {
    background: var(--ink);
    color: var(--paper);
  }
  .only {
    padding: 4px 16px;
    border-bottom: 1px solid var(--rule);
  }
  .tall {
    position: relative;
  }
  table {
    position: absolute;
    left: 0;
    width: 100%;
  }
  /* what comes at once is not announced */
  .later {
    animation: later 0s 400ms both;
  }
  @keyframes later {
    from {
      visibility: hidden;
    }
    to {
      visibility: visible;
    }
  }
  .none {
    position: absolute;
    padding: 12px 16px;
    margin-top: 26px;
  }
</style>
