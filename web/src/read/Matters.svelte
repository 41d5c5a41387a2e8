<script lang="ts">
  // What a person has to settle before the file can be trusted, each with its answers.
  import type { Warning } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import Slip from '../ui/Slip.svelte';
  import Changes from './Changes.svelte';
  import { withConfirmed, withMeaning, type Ambiguous } from './reading';

  let { open }: { open: OpenPlan } = $props();

  const source = $derived(open.view.source);
  const reading = $derived(source.reading);
  const wanted = $derived(open.plan.reading);
  const warnings = $derived(source.warnings.filter((w) => w.confirm));
  const untitled = $derived(
    reading.titleRows?.length === 0 && wanted.titleRows === undefined && reading.format !== 'json',
  );
  const NAMES: Partial<Record<Warning['code'], string>> = {
    'ambiguous-dates': 'Day or month first',
    'ambiguous-decimals': 'Thousands or decimals',
    'short-years': 'Two-figure years',
    'shortened-numbers': 'Shortened numbers',
    'dates-among-codes': 'Dates among codes',
    'several-currencies': 'Several currencies',
    undecodable: 'Broken characters',
    'other-date-order': 'Another order of dates',
  };

  function means(code: Ambiguous, meaning: string) {
    open.putReading(withMeaning(wanted, reading, code, meaning));
  }

  function stands(w: Warning) {
    open.putReading(withConfirmed(wanted, w.code, w.column ?? undefined));
  }
</script>

{#if source.changes.length}
  <div class="confirm"><Changes {open} /></div>
{/if}
{#each warnings as warning (warning.code + warning.column)}
  <div class="confirm">
    <span class="o waiting"><Slip of="waiting" /><b>{NAMES[warning.code] ?? 'To confirm'}</b></span>
    <p class="q2">{warning.message}</p>
    <span class="answers">
      {#if warning.code === 'ambiguous-dates'}
        <button class="button small" onclick={() => means('ambiguous-dates', 'day-month-year')}
          >Day first</button
        >
        <button class="button small" onclick={() => means('ambiguous-dates', 'month-day-year')}
          >Month first</button
        >
      {:else if warning.code === 'ambiguous-decimals'}
        <button class="button small" onclick={() => means('ambiguous-decimals', ',')}>Comma</button>
        <button class="button small" onclick={() => means('ambiguous-decimals', '.')}>Point</button>
      {:else if warning.code === 'short-years'}
        <button class="button small" onclick={() => open.putReading({ ...wanted, century: '20' })}
          >20..</button
        >
        <button class="button small" onclick={() => open.putReading({ ...wanted, century: '19' })}
          >19..</button
        >
        <button class="button small" onclick={() => stands(warning)}>They are problems</button>
      {:else}
        <button class="button small" onclick={() => stands(warning)}>Seen, let it stand</button>
      {/if}
    </span>
  </div>
{/each}
{#if untitled}
  <div class="confirm">
    <span class="o waiting"><Slip of="waiting" /><b>No titles</b></span>
    <p class="q2">
      No line looks like titles, so the columns go by their letters and the first line is a record.
      If a line does hold them, choose it and press <kbd>H</kbd>.
    </p>
    <button class="button small" onclick={() => open.putReading({ ...wanted, titleRows: [] })}
      >There are none</button
    >
  </div>
{/if}

<style>
  .confirm {
    border-top: 1px solid var(--ink);
    border-bottom: 1px solid var(--ink);
    box-shadow: inset 5px 0 0 var(--zest);
    background: var(--sheet);
    padding: 9px 16px 12px;
    display: grid;
    gap: 5px;
    justify-items: start;
  }
  .confirm + .confirm {
    border-top: 0;
  }
  .answers {
    display: flex;
    gap: 6px;
  }
</style>
