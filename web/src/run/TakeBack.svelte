<script lang="ts">
  // Taking a run back: first what it would do, and what was edited since; then it is done.
  import { api, got } from '../api/client';
  import type { Edited, EditedRecord, Prospect, RunView } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import Pick from '../ui/Pick.svelte';
  import { recordsOf } from '../records/links';
  import { region } from '../ui/region';
  import { tell } from '../ui/toaster';
  import { count, many } from '../ui/words';
  import { choices, deed, does, placeOf, request } from './undo';

  let { open, run, close }: { open: OpenPlan; run: RunView; close: () => void } = $props();

  let prospect = $state.raw<Prospect | null>(null);
  let forAll = $state<Edited>('keep');
  let single = $state<Record<string, Edited>>({});
  const editedTotal = $derived(prospect?.parts.reduce((n, p) => n + p.edited, 0) ?? 0);

  $effect(() => void look(run.id));

  async function look(id: number) {
    try {
      prospect = await got(api.GET('/api/runs/{id}/undo', { params: { path: { id } } }));
    } catch (error) {
      tell(error);
      close();
    }
  }

  function address(record: EditedRecord): string {
    const table = prospect?.parts.find((p) => p.destination === record.destination)?.table ?? '';
    return recordsOf(open.plan.connection, table, `?key=${encodeURIComponent(record.key)}`);
  }

  async function go() {
    if (!prospect) return;
    if (await open.undo(run, request(prospect.edited, forAll, single))) close();
  }
</script>

<section class="back" aria-labelledby="take-back">
  <div class="bt">
    <h2 id="take-back">
      {run.kind === 'undo'
        ? `Have what ${run.number} took back stand again`
        : `Take ${run.number} back`}
    </h2>
  </div>
  {#if !prospect}
    <p class="q2" role="status">Looking at what the records are today…</p>
  {:else}
    <ul class="parts">
      {#each prospect.parts as part (part.destination)}
        <li><b class="m">{part.destination}</b> {does(part)}</li>
      {/each}
    </ul>
    {#if prospect.edited.length}
      <div class="bt">
        <h3>{many(editedTotal, 'record was', 'records were')} edited since</h3>
        <span class="all"
          >for all:
          <Pick
            label="For all that were edited"
            value={forAll}
            pick={(e) => {
              forAll = e;
              single = {};
            }}
            options={choices(false)}
          /></span
        >
      </div>
      <div class="scroll edited" {@attach region('Edited since')}>
        <table class="g">
          <colgroup>
            <col style:width="52px" /><col style:width="76px" /><col style:width="136px" /><col
            /><col /><col /><col style:width="330px" />
          </colgroup>
          <thead>
            <tr>
              <th class="ln">line</th><th>Record</th><th>Field</th><th>Before the run</th><th
                >As the run left it</th
              ><th>Today</th><th>Decision</th>
            </tr>
          </thead>
          <tbody>
            {#each prospect.edited as record (placeOf(record))}
              {#each record.fields as field, i (field.field)}
                <tr class:first={i === 0}>
                  <td class="ln">{i ? '' : record.line}</td>
                  <td title={record.destination}
                    >{#if i === 0}<a class="go" href={address(record)}>{record.key}</a>{/if}</td
                  >
                  <td>{field.field}</td>
                  <td class="q">{record.added ? '' : (field.before ?? 'blank')}</td>
                  <td>{field.left ?? 'blank'}</td>
                  <td class:changed={field.now !== field.left}>{field.now ?? 'blank'}</td>
                  <td class="t"
                    >{#if i === 0}<Pick
                        label="What is done with {record.key}"
                        value={single[placeOf(record)] ??
                          (record.added && forAll === 'fields' ? 'keep' : forAll)}
                        pick={(e) => (single = { ...single, [placeOf(record)]: e })}
                        options={choices(record.added)}
                      />{/if}</td
                  >
                </tr>
              {/each}
            {/each}
          </tbody>
        </table>
      </div>
      {#if editedTotal > prospect.edited.length}
        <p class="q2">
          The first {count(prospect.edited.length)} are shown; the others follow what is decided for all.
        </p>
      {/if}
    {/if}
    {#if prospect.held.length}
      <div class="bt"><h3>Held by the database</h3></div>
      <ul class="held">
        {#each prospect.held.slice(0, 8) as held (`${held.destination}.${held.key}`)}
          <li>
            <span class="m">{held.destination}</span>
            {held.key}, line {count(held.line)}: {held.reason}
          </li>
        {/each}
        {#if prospect.held.length > 8}<li class="q">
            and {count(prospect.held.length - 8)} more
          </li>{/if}
      </ul>
    {/if}
    {#if !prospect.tried}
      <p class="q2">
        It was not tried beforehand, since it is large or another run is writing: records that
        others point at by now will be held by the database, and told.
      </p>
    {/if}
    <p class="do">
      <button class="button main" disabled={!!open.busy} onclick={go}
        >{deed(prospect, forAll, single)}</button
      >
      <button class="button" onclick={close}>Leave it as it is</button>
      <span class="q2">All of it or nothing, with a ledger of its own; it can be undone too.</span>
    </p>
  {/if}
</section>

<style>
  .back {
    border-bottom: 1px solid var(--ink);
    background: var(--sheet);
    padding-bottom: 10px;
    flex: none;
    max-height: 70%;
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
  .back > p,
  .parts,
  .held {
    padding: 2px 16px;
    margin: 0;
    list-style: none;
  }
  .edited {
    min-height: 60px;
    border-bottom: 1px solid var(--rule);
  }
  .edited td,
  .edited th {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .first td {
    border-top: 1px solid var(--rule-firm);
  }
  h3 {
    font-size: 13px;
    font-weight: 680;
    margin: 0;
  }
  .all {
    margin-left: auto;
  }
  .do {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 12px;
    align-items: center;
    padding-top: 10px !important;
  }
</style>
