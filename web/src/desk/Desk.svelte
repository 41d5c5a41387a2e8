<script lang="ts">
  import { onMount } from 'svelte';
  import { navigate } from '../router';
  import RunTable from '../run/RunTable.svelte';
  import { work } from '../run/work.svelte';
  import Slip from '../ui/Slip.svelte';
  import { DeskState } from './desk.svelte';
  import FirstRows from './FirstRows.svelte';
  import GoingOn from './GoingOn.svelte';
  import Proposals from './Proposals.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import { count, when } from '../ui/words';
  import { region } from '../ui/region';

  const desk = new DeskState();
  // a proposal with tables that take columns which it leaves
  const further = $derived(desk.proposals.find((p) => p.besides));
  // how many elements a dragged file is over
  let over = $state(0);
  let chooser = $state<HTMLInputElement>();

  const today = new Date().toLocaleDateString('en-GB', {
    weekday: 'long',
    day: 'numeric',
    month: 'long',
    year: 'numeric',
  });

  onMount(() => void desk.load());
  // what has ended stands among the runs
  onMount(() => work.whenEnded(() => void desk.loadRuns()));

  async function begin(...chosen: Parameters<typeof desk.begin>) {
    const begun = await desk.begin(...chosen);
    if (begun)
      void navigate('/plans/:id/:stop', {
        params: { id: String(begun.plan), stop: begun.stop },
      });
  }

  function onPaste(event: ClipboardEvent) {
    const text = event.clipboardData?.getData('text/plain');
    const file = event.clipboardData?.files[0];
    if (file) void desk.take(file);
    else if (text?.includes('\t')) void desk.take(new File([text], 'pasted-cells.tsv'));
  }

  function onDrop(event: DragEvent) {
    event.preventDefault();
    over = 0;
    void desk.take(event.dataTransfer?.files[0]);
  }

  useKeys(() => [
    { keys: ['b'], say: 'browse for a file', act: () => chooser?.click() },
    {
      keys: ['Enter'],
      say: 'begin with the first proposal',
      act: () => desk.proposals[0] && void begin(desk.proposals[0]),
    },
    ...(further
      ? [
          {
            keys: ['w'],
            say: 'begin with further tables',
            act: () => void begin(further, true),
          },
        ]
      : []),
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
    <GoingOn />
    <div class="bt">
      <h2>Recent runs</h2>
      {#if desk.runs.length}
        <span class="end legend">
          {#each ['new', 'changed', 'unchanged', 'skipped', 'rejected'] as outcome (outcome)}
            <span class="o {outcome}"><Slip of={outcome} />{outcome}</span>
          {/each}
        </span>
      {/if}
    </div>
    {#if desk.runs.length}
      <div class="scroll" {@attach region('Recent runs')}><RunTable runs={desk.runs} /></div>
    {:else if desk.loaded}
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
          void desk.take(e.currentTarget.files?.[0]);
          e.currentTarget.value = '';
        }}
      />
    </div>
    <div class="slot">
      {#if desk.refusal}
        <div class="message" role="alert">
          <b class="m">{desk.refusal.name}</b><br />{desk.refusal.why}
        </div>
      {:else if desk.share !== null}
        <div class="arrive">
          <b class="m">{desk.arriving}</b>
          {#if desk.share < 1 || !desk.reached}
            <progress value={desk.share} max="1" aria-label="Part of the file that has arrived"
            ></progress>
            <span class="q2"
              >{desk.share < 1 ? `${Math.round(desk.share * 100)} % here` : 'reading it'}</span
            >
          {/if}
          {#if desk.peek}
            <FirstRows peek={desk.peek} reached={desk.reached} />
          {/if}
        </div>
      {:else if desk.source}
        <Proposals
          source={desk.source}
          proposals={desk.proposals}
          tables={desk.tables}
          elsewhere={(c) => desk.elsewhere(c)}
          {begin}
        />
      {:else}
        <button class="empty" onclick={() => chooser?.click()}>
          <b>Drop a file</b>
          <span class="q2">text, workbooks, JSON, .gz or .zip, or paste cells</span>
        </button>
      {/if}
      {#if desk.connections.length > 1}
        <label class="into"
          >into <select
            class="entry"
            value={desk.connection}
            onchange={(e) => void desk.goInto(e.currentTarget.value)}
          >
            {#each desk.connections as c (c.name)}<option value={c.name}>{c.shownName}</option
              >{/each}
          </select></label
        >
      {:else if desk.loaded && !desk.connections.length}
        <p class="message mild">
          No database is connected yet. <a class="go" href="/connections">Add a connection</a>
        </p>
      {/if}
    </div>
    <div class="bt lower"><h2>Plans you last had open</h2></div>
    <div class="scroll">
      {#each desk.plans.slice(0, 8) as plan (plan.id)}
        <a class="last" href="/plans/{plan.id}/fill">
          <b>{plan.name}</b><span class="m q2">{plan.table}</span><span class="q"
            >{when(plan.openedAt)}</span
          >
        </a>
      {:else}
        <p class="last q">{desk.loaded ? 'None yet.' : ''}</p>
      {/each}
      {#if desk.plans.length > 8}<a class="last go" href="/plans"
          >all {count(desk.plans.length)} plans</a
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
    gap: clamp(8px, 1.1vw, 14px) !important;
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
