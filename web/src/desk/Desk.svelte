<script lang="ts">
  import { onMount } from 'svelte';
  import { api, ApiError, bring, got, peekAt } from '../api/client';
  import type {
    Connection,
    Peek,
    PlanSummary,
    Proposal,
    Reached,
    RunView,
    Source,
  } from '../api/types';
  import { navigate } from '../router';
  import RunTable from '../run/RunTable.svelte';
  import Slip from '../ui/Slip.svelte';
  import FirstRows from './FirstRows.svelte';
  import Proposals from './Proposals.svelte';
  import { untilRead } from './reached';
  import { useKeys } from '../ui/keys.svelte';
  import { tell } from '../ui/toaster';
  import { count, when } from '../ui/words';
  import { region } from '../ui/region';

  let runs = $state.raw<RunView[]>([]);
  let plans = $state.raw<PlanSummary[]>([]);
  let connections = $state.raw<Connection[]>([]);
  let connection = $state('');
  let tables = $state.raw<string[]>([]);
  let source = $state.raw<Source | null>(null);
  let proposals = $state.raw<Proposal[]>([]);
  let share = $state<number | null>(null);
  let peek = $state.raw<Peek | null>(null);
  let reached = $state.raw<Reached | null>(null);
  let arriving = $state('');
  let refusal = $state.raw<{ name: string; why: string } | null>(null);
  let over = $state(0);
  let chooser = $state<HTMLInputElement>();
  let loaded = $state(false);

  /** Bytes from which on the first rows are asked for while the file is still on its way. */
  const LARGE = 4_000_000;

  const today = new Date().toLocaleDateString('en-GB', {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    year: 'numeric',
  });

  onMount(async () => {
    try {
      [runs, plans, connections] = await Promise.all([
        got(api.GET('/api/runs', { params: { query: { limit: 12 } } })),
        got(api.GET('/api/plans')),
        got(api.GET('/api/connections')),
      ]);
      connection = connections[0]?.name ?? '';
    } catch (error) {
      tell(error);
    }
    loaded = true;
  });

  async function take(file: File | undefined) {
    if (!file) return;
    refusal = null;
    source = null;
    proposals = [];
    arriving = file.name;
    share = 0;
    try {
      if (file.size > LARGE) {
        void peekAt(file).then(
          (first) => (peek = share === null ? null : first),
          () => {},
        );
      }
      let brought = await bring(file, (s) => (share = s));
      if (brought.state === 'reading') brought = await readThrough(brought.id);
      source = brought;
      await propose();
    } catch (error) {
      const why = error instanceof Error ? error.message : String(error);
      if (!(error instanceof ApiError && error.code === 'signed-out'))
        refusal = { name: file.name, why };
    } finally {
      share = null;
      peek = null;
    }
  }

  /** Shows the first rows while a large file is read to its end. */
  async function readThrough(id: number): Promise<Source> {
    const path = { id };
    peek ??= await got(api.GET('/api/sources/{id}/peek', { params: { path } }));
    try {
      await untilRead(id, (r) => (reached = r));
      return await got(api.GET('/api/sources/{id}', { params: { path } }));
    } finally {
      reached = null;
    }
  }

  async function propose() {
    if (!source || !connection) return;
    const path = { source: source.id };
    proposals = await got(
      api.GET('/api/sources/{source}/proposals', { params: { path, query: { connection } } }),
    );
    const found = await got(
      api.GET('/api/connections/{name}/tables', { params: { path: { name: connection } } }),
    );
    tables = found.map((t) => t.name);
  }

  async function begin(proposal: { plan?: number; table: string }) {
    if (!source) return;
    try {
      let id = proposal.plan;
      let stop = 'fill';
      if (id) {
        const view = await got(
          api.PUT('/api/plans/{id}/source', {
            params: { path: { id } },
            body: { source: source.id },
          }),
        );
        // a file unlike the last one is looked at first
        if (view.source.changes.length) stop = 'read';
      } else {
        const body = { source: source.id, connection, table: proposal.table };
        id = (await got(api.POST('/api/plans', { body }))).id;
      }
      void navigate('/plans/:id/:stop', { params: { id: String(id), stop } });
    } catch (error) {
      tell(error);
    }
  }

  function onPaste(event: ClipboardEvent) {
    const text = event.clipboardData?.getData('text/plain');
    const file = event.clipboardData?.files[0];
    if (file) void take(file);
    else if (text?.includes('\t')) void take(new File([text], 'pasted-cells.tsv'));
  }

  function onDrop(event: DragEvent) {
    event.preventDefault();
    over = 0;
    void take(event.dataTransfer?.files[0]);
  }

  useKeys(() => [
    { keys: ['b'], say: 'browse for a file', act: () => chooser?.click() },
    {
      keys: ['Enter'],
      say: 'begin with the first proposal',
      act: () => proposals[0] && void begin(proposals[0]),
    },
  ]);
</script>

<svelte:window
  onpaste={onPaste}
  ondragenter={() => over++}
  ondragleave={() => over--}
  ondragover={(e) => e.preventDefault()}
  ondrop={onDrop}
/>
<div class:dropping={over > 0}></div>

<div class="pagehead">
  <h1>Desk</h1>
  <span class="q2">{today}</span>
</div>
<div class="body">
  <section class="left">
    <div class="bt">
      <h2>Recent runs</h2>
      <span class="end legend">
        {#each ['new', 'changed', 'unchanged', 'skipped', 'rejected'] as outcome (outcome)}
          <span class="o {outcome}"><Slip of={outcome} />{outcome}</span>
        {/each}
      </span>
    </div>
    {#if runs.length}
      <div class="scroll" {@attach region('Recent runs')}><RunTable {runs} /></div>
    {:else if loaded}
      <div class="first">
        <p><b>Nothing has been brought in yet.</b></p>
        <ol>
          <li>Drop a spreadsheet or text file anywhere on this page.</li>
          <li>Look at how its columns fill the fields of a table, and mend what needs mending.</li>
          <li>Rehearse every row; nothing is written until you run it.</li>
        </ol>
      </div>
    {/if}
  </section>
  <aside>
    <div class="bt">
      <h2>Quick start</h2>
      <span class="q">drop a file on this page</span>
      <span class="end">
        <button class="button small" onclick={() => chooser?.click()}>Browse <kbd>B</kbd></button>
      </span>
      <input
        bind:this={chooser}
        id="file"
        class="hidden"
        type="file"
        aria-label="File to bring in"
        onchange={(e) => {
          void take(e.currentTarget.files?.[0]);
          e.currentTarget.value = '';
        }}
      />
    </div>
    <div class="slot">
      {#if refusal}
        <div class="message" role="alert"><b class="m">{refusal.name}</b><br />{refusal.why}</div>
      {:else if share !== null}
        <div class="arrive">
          <b class="m">{arriving}</b>
          {#if share < 1 || !reached}
            <progress value={share} max="1" aria-label="Part of the file that has arrived"
            ></progress>
            <span class="q2">{share < 1 ? `${Math.round(share * 100)} % here` : 'reading it'}</span>
          {/if}
          {#if peek}
            <FirstRows {peek} {reached} />
          {/if}
        </div>
      {:else if source}
        <Proposals {source} {proposals} {tables} {begin} />
      {:else}
        <button class="empty" onclick={() => chooser?.click()}>
          <b>Drop a file</b>
          <span class="q2">text, workbooks, JSON, .gz or .zip, or paste cells</span>
        </button>
      {/if}
      {#if connections.length > 1}
        <label class="into"
          >into <select class="entry" bind:value={connection} onchange={() => void propose()}>
            {#each connections as c (c.name)}<option value={c.name}>{c.shownName}</option>{/each}
          </select></label
        >
      {:else if loaded && !connections.length}
        <p class="message mild">
          No database is connected yet. <a class="go" href="/connections">Add a connection</a>
        </p>
      {/if}
    </div>
    <div class="bt lower"><h2>Plans you last had open</h2></div>
    <div class="scroll">
      {#each plans.slice(0, 8) as plan (plan.id)}
        <a class="last" href="/plans/{plan.id}/fill">
          <b>{plan.name}</b><span class="m q2">{plan.table}</span><span class="q"
            >{when(plan.openedAt)}</span
          >
        </a>
      {:else}
        <p class="last q">{loaded ? 'None yet.' : ''}</p>
      {/each}
      {#if plans.length > 8}<a class="last go" href="/plans">all {count(plans.length)} plans</a
        >{/if}
    </div>
  </aside>
</div>

<style>
  .left {
    flex: 1;
    min-width: 0;
    display: flex;
    flex-direction: column;
  }
  .legend {
    gap: 14px !important;
    text-transform: capitalize;
  }
  .first {
    padding: 10px 16px;
    line-height: 24px;
    color: var(--ink-2);
  }
  .first ol {
    list-style: decimal;
    padding-left: 18px;
  }
  aside {
    width: 420px;
    border-left: 1px solid var(--ink);
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
  .hidden {
    position: absolute;
    width: 1px;
    height: 1px;
    opacity: 0;
    overflow: hidden;
  }
  .slot {
    padding: 4px 12px 16px;
    display: grid;
    gap: 10px;
  }
  .empty {
    display: grid;
    gap: 4px;
    place-items: center;
    padding: 34px;
    border: 1px dashed var(--rule-firm);
    background: var(--sheet);
    cursor: pointer;
  }
  .arrive {
    border: 1px solid var(--ink);
    background: var(--sheet);
    padding: 12px;
    display: grid;
    gap: 7px;
    min-width: 0;
  }
  .lower {
    border-top: 1px solid var(--ink);
  }
  .last {
    display: grid;
    grid-template-columns: 1fr 110px auto;
    padding: 7px 16px;
    border-top: 1px solid var(--rule-soft);
  }
</style>
