<script lang="ts">
  // What the database has a say in: its own rules, and what becomes of the others if it refuses.
  import type { Plan } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import Pick from '../ui/Pick.svelte';
  import { count, many } from '../ui/words';

  let { open }: { open: OpenPlan } = $props();

  type Run = Plan['run'];
  const run = $derived(open.plan.run);
  const rules = $derived(open.view.table.ownRules);

  let changing = $state(false);
  /** How it runs, in one sentence. */
  const inWords = $derived(
    [
      {
        'all-or-nothing': 'All is written or nothing',
        'set-aside': 'A row that the database refuses is set aside',
        batches: `In batches of ${count(run.batchRows)}, refused rows set aside`,
      }[run.mode],
      ...(run.stopAfter != null ? [`ends with more than ${count(run.stopAfter)} rejected`] : []),
      ...(run.stopAfterPercent != null
        ? [`ends with more than ${run.stopAfterPercent} % rejected`]
        : []),
      run.whenDifferent === 'refuse'
        ? 'nothing if records change meanwhile'
        : 'goes on if records change meanwhile',
    ].join('; ') + '.',
  );

  const bears = $derived(
    run.stopAfter != null
      ? String(run.stopAfter)
      : run.stopAfterPercent != null
        ? `${run.stopAfterPercent} %`
        : '',
  );

  function setBatch(input: HTMLInputElement) {
    const rows = Number(input.value.replace(/[ ,.]/g, ''));
    if (Number.isInteger(rows) && rows >= 1 && rows <= 10_000_000) set({ batchRows: rows });
    input.value = count(run.batchRows);
  }

  function setBears(input: HTMLInputElement) {
    const said = /^(\d{1,9})\s*(%?)$/.exec(input.value.trim());
    const number = Number(said?.[1]);
    if (!input.value.trim()) set({ stopAfter: undefined, stopAfterPercent: undefined });
    else if (said && !said[2]) set({ stopAfter: number, stopAfterPercent: undefined });
    else if (said && number <= 100) set({ stopAfter: undefined, stopAfterPercent: number });
    input.value = bears;
  }

  function set(change: Partial<Run>) {
    open.edit((plan) => ({ ...plan, run: { ...plan.run, ...change } }));
  }
</script>

<div class="say">
  <div class="short">
    <span class="q2">{inWords}</span>
    <button class="go" aria-expanded={changing} onclick={() => (changing = !changing)}
      >{changing ? 'done' : 'change'}</button
    >
  </div>
  {#if changing}
    <div>
      If the database refuses a row
      <Pick
        label="If the database refuses a row"
        value={run.mode}
        pick={(mode) => set({ mode })}
        options={[
          { value: 'all-or-nothing', text: 'nothing is written' },
          { value: 'set-aside', text: 'it is set aside' },
          {
            value: 'batches',
            text: 'it is set aside, in batches',
            hint: 'Some thousand rows are made lasting at a time; a run that is cut off goes on where it stood',
          },
        ]}
      />
      {#if run.mode === 'batches'}
        of <input
          class="entry number"
          inputmode="numeric"
          aria-label="Rows of a batch"
          value={count(run.batchRows)}
          onchange={(e) => setBatch(e.currentTarget)}
        /> rows
      {/if}
    </div>
    <div>
      End the run with more than
      <input
        class="entry number"
        aria-label="Rejected rows, or a share of them, with which the run ends"
        placeholder="any"
        title="A number of rows, or a share such as 5 %"
        value={bears}
        onchange={(e) => setBears(e.currentTarget)}
      />
      rejected
    </div>
    <div>
      If records change meanwhile
      <Pick
        label="If records change between this and the run"
        value={run.whenDifferent}
        pick={(whenDifferent) => set({ whenDifferent })}
        options={[
          {
            value: 'go-on',
            text: 'go on',
            hint: 'Rows that come out otherwise than rehearsed are written and named',
          },
          {
            value: 'refuse',
            text: 'nothing is written',
            hint: 'If a row comes out otherwise than rehearsed',
          },
        ]}
      />
    </div>
  {/if}
  {#if rules.length}
    <label title={rules.join('\n')}>
      <input
        type="checkbox"
        checked={run.tryInDatabase}
        onchange={(e) => set({ tryInDatabase: e.currentTarget.checked })}
      />
      {many(rules.length, 'rule')} of <span class="m">{open.view.table.name}</span>
      {rules.length === 1 ? 'is' : 'are'} the database’s own: let it try {rules.length === 1
        ? 'it'
        : 'them'} when rehearsing
    </label>
    {#if run.tryInDatabase}
      <p class="q2">
        Everything is written and taken back: the table is locked meanwhile, numbers are used up,
        and what triggers do outside the database stays done.
      </p>
    {/if}
  {/if}
</div>

<style>
  .say {
    display: grid;
    gap: 6px;
    padding: 8px 16px;
    border-top: 1px solid var(--rule);
  }
  .short {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 12px;
    align-items: baseline;
  }
  .say :global(.pick) {
    flex-wrap: wrap;
  }
  label {
    cursor: pointer;
  }
  .number {
    width: 76px;
    text-align: right;
  }
  p {
    margin: 0;
  }
</style>
