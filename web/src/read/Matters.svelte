<script lang="ts">
  // What a person has to settle before the file can be trusted, each with its answers.
  import type { Warning } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import Slip from '../ui/Slip.svelte';
  import { count, many } from '../ui/words';
  import { changeWords, toggled, withChanges, withConfirmed } from './reading';

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

  function locale(change: object) {
    open.putReading({ ...wanted, locale: { ...reading.locale!, ...change } });
  }

  function stands(w: Warning) {
    open.putReading(withConfirmed(wanted, w.code, w.column ?? undefined));
  }

  /** Renamings that the person does not believe. */
  let refused = $state<string[]>([]);
  const taken = $derived(
    source.changes.filter((c) => c.kind !== 'renamed' || !refused.includes(c.now!.name)),
  );

  /** Fields that a column fills. */
  function uses(name: string | undefined): string {
    if (!name) return '';
    const fields = open.destination.fills
      .filter((f) => f.origin.column?.toLowerCase() === name.toLowerCase())
      .map((f) => f.field);
    return fields.length ? `fills ${fields.join(', ')}` : 'fills nothing';
  }
</script>

{#if source.changes.length}
  <div class="confirm">
    <span class="o waiting"
      ><Slip of="waiting" /><b>{many(source.changes.length, 'column')} unlike last time</b></span
    >
    <ul>
      {#each source.changes.slice(0, 12) as change, i (i)}
        {@const words = changeWords(change)}
        <li>
          {#if change.kind === 'renamed'}
            <label
              ><input
                type="checkbox"
                checked={!refused.includes(change.now!.name)}
                onchange={() => (refused = toggled(refused, change.now!.name))}
              /> <b>{words.what}</b></label
            >
          {:else}<b>{words.what}</b>{/if}
          <span class="q2"
            >{words.detail}; {change.before ? uses(change.before.name) : 'offered for fills'}</span
          >
        </li>
      {/each}
    </ul>
    {#if source.changes.length > 12}<p class="q2">
        and {count(source.changes.length - 12)} more
      </p>{/if}
    <button
      class="button small"
      onclick={() => open.putReading(withChanges(wanted, taken, source.columns, source.titles))}
      >{taken.some((c) => c.kind === 'renamed')
        ? 'Take the new names, keep the fills'
        : 'Go on with these columns'}</button
    >
  </div>
{/if}
{#each warnings as warning (warning.code + warning.column)}
  <div class="confirm">
    <span class="o waiting"><Slip of="waiting" /><b>{NAMES[warning.code] ?? 'To confirm'}</b></span>
    <p class="q2">{warning.message}</p>
    <span class="answers">
      {#if warning.code === 'ambiguous-dates'}
        <button class="button small" onclick={() => locale({ dateOrder: 'day-month-year' })}
          >Day first</button
        >
        <button class="button small" onclick={() => locale({ dateOrder: 'month-day-year' })}
          >Month first</button
        >
      {:else if warning.code === 'ambiguous-decimals'}
        <button class="button small" onclick={() => locale({ decimal: ',' })}>Comma</button>
        <button class="button small" onclick={() => locale({ decimal: '.' })}>Point</button>
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
  li {
    display: grid;
    margin-bottom: 4px;
  }
</style>
