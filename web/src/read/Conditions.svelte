<script lang="ts">
  // Rows that are left out because of what a cell of theirs holds.
  import type { RowTest } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';

  let { open }: { open: OpenPlan } = $props();

  const TESTS: Record<RowTest['test'], string> = {
    blank: 'is blank',
    filled: 'is filled',
    is: 'is',
    'is-not': 'is not',
    contains: 'contains',
    begins: 'begins with',
    less: 'is less than',
    more: 'is more than',
    'no-number': 'is no number',
  };
  const ALONE = ['blank', 'filled', 'no-number'];

  let adding = $state(false);
  let column = $state('');
  let test = $state<RowTest['test']>('is');
  let value = $state('');

  const tests = $derived(open.plan.reading.leaveOut ?? []);
  const titles = $derived(open.view.source.titles);

  function put(next: RowTest[]) {
    open.putReading({ ...open.plan.reading, leaveOut: next.length ? next : undefined });
  }

  function add() {
    put([...tests, { column, test, value: ALONE.includes(test) ? undefined : value }]);
    adding = false;
    value = '';
  }
</script>

{#each tests as t, i (i)}
  <span class="line"
    ><span>rows where <span class="col">{t.column}</span> {TESTS[t.test]} {t.value ?? ''}</span>
    <button class="go q2" onclick={() => put(tests.filter((_, at) => at !== i))}>take back</button
    ></span
  >
{/each}
{#if adding}
  <form
    class="form"
    onsubmit={(e) => {
      e.preventDefault();
      add();
    }}
  >
    <select class="entry" aria-label="Column of the condition" bind:value={column}>
      {#each titles.slice(0, 400) as t (t.letter)}<option value={t.name}>{t.name}</option>{/each}
    </select>
    <select class="entry" aria-label="Test of the condition" bind:value={test}>
      {#each Object.entries(TESTS) as [word, say] (word)}<option value={word}>{say}</option>{/each}
    </select>
    {#if !ALONE.includes(test)}<input
        class="entry"
        aria-label="Value of the condition"
        bind:value
      />{/if}
    <span>
      <button class="button small">Leave them out</button>
      <button type="button" class="button small" onclick={() => (adding = false)}>Cancel</button>
    </span>
  </form>
{:else}
  <button class="go" onclick={() => ((adding = true), (column = titles[0]?.name ?? ''))}
    >leave out rows where…</button
  >
{/if}

<style>
  .line {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    margin-bottom: 4px;
  }
  .form {
    display: grid;
    gap: 4px;
  }
</style>
