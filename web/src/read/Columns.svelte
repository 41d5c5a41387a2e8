<script lang="ts">
  // What each column holds over all rows.
  import type { ColumnProfile } from '../api/types';
  import Slip from '../ui/Slip.svelte';
  import { count } from '../ui/words';

  let { columns, rows }: { columns: ColumnProfile[]; rows: number } = $props();

  const SHOWN = 200;
  const NO: Record<string, string> = {
    date: 'date',
    datetime: 'date with a time',
    time: 'time',
    boolean: 'yes or no',
  };

  function range(column: ColumnProfile): string {
    if (column.least == null || column.type === 'empty') return '';
    return column.least === column.greatest
      ? column.least
      : `${column.least} to ${column.greatest}`;
  }
</script>

<div class="bt columns">
  <h2>Columns</h2>
  <span class="q">over all {count(rows)} rows</span>
</div>
{#each columns.slice(0, SHOWN) as column (column.name)}
  <details class="column">
    <summary>
      <span class="q m letter">{column.letter}</span>
      <b class="m name">{column.name}</b>
      <span class="q2">{column.type}</span>
      <span class="q r">{column.blank ? `${count(column.blank)} blank` : ''}</span>
      {#if column.misfits.length}
        <span class="misfit rejected"
          ><Slip of="rejected" />
          {column.misfits
            .slice(0, 3)
            .map((v) => `“${v.text}”`)
            .join(', ')}
          {column.misfits.length === 1 ? 'is' : 'are'} no {NO[column.type] ?? 'number'}</span
        >
      {/if}
    </summary>
    <dl>
      {#if column.pattern}<dt>written</dt>
        <dd class="m">{column.pattern}</dd>{/if}
      <dt>distinct</dt>
      <dd>{count(column.distinct)}{column.distinctCapped ? ' and more' : ''}</dd>
      {#if range(column)}<dt>from, to</dt>
        <dd class="m">{range(column)}</dd>{/if}
      <dt>longest</dt>
      <dd>{count(column.longest)} characters</dd>
      <dt>most often</dt>
      <dd class="m">
        {column.samples
          .slice(0, 5)
          .map((s) => `${s.text} (${count(s.rows)})`)
          .join(', ')}
      </dd>
      {#if column.misfits.length}<dt>do not fit</dt>
        <dd class="m">
          {column.misfits
            .slice(0, 6)
            .map((s) => `${s.text} in line ${count(s.line)}`)
            .join(', ')}
        </dd>{/if}
    </dl>
  </details>
{/each}
{#if columns.length > SHOWN}<p class="more q">
    and {count(columns.length - SHOWN)} columns more
  </p>{/if}

<style>
  .column {
    border-top: 1px solid var(--rule-soft);
    padding: 4px 12px 4px 16px;
  }
  summary {
    display: grid;
    grid-template-columns: 24px 1fr auto 66px;
    gap: 0 8px;
    cursor: pointer;
    list-style: none;
  }
  .letter {
    overflow: hidden;
  }
  .name {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .misfit {
    grid-column: 2/5;
  }
  dl {
    display: grid;
    grid-template-columns: 74px 1fr;
    gap: 2px 6px;
    padding: 4px 0 6px 32px;
    color: var(--ink-2);
  }
  dd {
    overflow-wrap: anywhere;
    color: var(--ink);
  }
  .more {
    padding: 6px 16px 12px;
  }
</style>
