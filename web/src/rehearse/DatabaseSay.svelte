<script lang="ts">
  // What the database has a say in: its own rules, and what becomes of the others if it refuses.
  import type { Plan } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import Pick from '../ui/Pick.svelte';
  import { many } from '../ui/words';

  let { open }: { open: OpenPlan } = $props();

  type Run = Plan['run'];
  const run = $derived(open.plan.run);
  const rules = $derived(open.view.table.ownRules);

  function set(change: Partial<Run>) {
    open.edit((plan) => ({ ...plan, run: { ...plan.run, ...change } }));
  }
</script>

<div class="say">
  <div>
    If the database refuses a row
    <Pick
      label="If the database refuses a row"
      value={run.mode}
      pick={(mode) => set({ mode })}
      options={[
        { value: 'all-or-nothing', text: 'nothing is written' },
        { value: 'set-aside', text: 'it is set aside' },
      ]}
    />
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
  label {
    cursor: pointer;
  }
  p {
    margin: 0;
  }
</style>
