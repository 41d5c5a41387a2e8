<script lang="ts">
  // How the file is read, each setting with its evidence and a way to change it.
  import type { Reading } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import Slip from '../ui/Slip.svelte';
  import { count } from '../ui/words';
  import { region } from '../ui/region';

  interface Props {
    open: OpenPlan;
    mark: (what: 'titleRows' | 'firstRow' | 'lastRow', value: number | null) => void;
  }
  let { open, mark }: Props = $props();

  const source = $derived(open.view.source);
  const reading = $derived(source.reading);
  const wanted = $derived(open.plan.reading);
  const DELIMITERS: Record<string, string> = {
    ',': 'comma',
    ';': 'semicolon',
    '\t': 'tab',
    '|': 'pipe',
  };
  const ENCODINGS = [
    'UTF-8',
    'windows-1252',
    'ISO-8859-1',
    'ISO-8859-15',
    'windows-1250',
    'windows-1251',
    'UTF-16LE',
    'UTF-16BE',
    'IBM850',
  ];

  function because(setting: string, own: unknown): string {
    if (own !== undefined && own !== null) return 'as you said';
    return source.evidence.find((e) => e.setting === setting)?.because ?? '';
  }

  function put(change: Partial<Reading>) {
    open.putReading({ ...wanted, ...change });
  }

  function locale(change: { decimal?: string; dateOrder?: string }) {
    put({ locale: { ...reading.locale!, ...change } as Reading['locale'] });
  }
</script>

<aside>
  <div class="bt">
    <h2>How it is read</h2>
    <span class="end q">found, with the evidence</span>
  </div>
  <div class="scroll" {@attach region('How the file is read')}>
    {#each source.warnings as warning (warning.code)}
      <div class="confirm">
        <span class="o waiting"><Slip of="waiting" /><b>To confirm</b></span>
        <p class="q2">{warning.message}</p>
        {#if warning.code === 'ambiguous-dates'}
          <button class="button small" onclick={() => locale({ dateOrder: 'day-month-year' })}
            >Day first</button
          >
          <button class="button small" onclick={() => locale({ dateOrder: 'month-day-year' })}
            >Month first</button
          >
        {/if}
      </div>
    {/each}
    {#if reading.titleRows?.length === 0 && wanted.titleRows === undefined}
      <div class="confirm">
        <span class="o waiting"><Slip of="waiting" /><b>No titles</b></span>
        <p class="q2">
          No line looks like titles, so the columns go by their letters and the first line is a
          record. If a line does hold them, choose it and press
          <kbd>H</kbd>.
        </p>
        <button class="button small" onclick={() => put({ titleRows: [] })}>There are none</button>
      </div>
    {/if}
    <dl>
      {#if source.reading.format === 'delimited'}
        <dt>Encoding</dt>
        <dd>
          <select
            class="ed"
            aria-label="Encoding"
            value={reading.encoding}
            onchange={(e) => put({ encoding: e.currentTarget.value })}
          >
            {#each [...new Set([reading.encoding!, ...ENCODINGS])] as name (name)}<option
                >{name}</option
              >{/each}
          </select>
          <p>{because('encoding', wanted.encoding)}</p>
        </dd>
        <dt>Delimiter</dt>
        <dd>
          <select
            class="ed"
            aria-label="Delimiter"
            value={reading.delimiter}
            onchange={(e) => put({ delimiter: e.currentTarget.value })}
          >
            {#each Object.entries(DELIMITERS) as [sign, name] (sign)}<option value={sign}
                >{name}</option
              >{/each}
          </select>
          <p>{because('delimiter', wanted.delimiter)}</p>
        </dd>
      {:else}
        <dt>Sheet</dt>
        <dd>
          <b>{reading.sheet}</b>
          <p>{because('sheet', wanted.sheet)}</p>
        </dd>
      {/if}
      <dt>Titles</dt>
      <dd>
        <b>{reading.titleRows?.length ? `line ${reading.titleRows.join(', ')}` : 'none'}</b>
        <p>{because('titles', wanted.titleRows)}</p>
        {#if reading.titleRows?.length}
          <button class="go q2" onclick={() => put({ titleRows: [], firstRow: undefined })}
            >there are none</button
          >
        {/if}
        {#if wanted.titleRows}<button class="go q2" onclick={() => mark('titleRows', null)}
            >find them again</button
          >{/if}
      </dd>
      <dt>Records</dt>
      <dd>
        <b>{count(reading.firstRow ?? 0)} to {count(reading.lastRow ?? 0)}</b>
        <p>{because('lastRow', wanted.lastRow)}</p>
        {#if wanted.firstRow || wanted.lastRow}
          <button class="go q2" onclick={() => put({ firstRow: undefined, lastRow: undefined })}
            >find them again</button
          >
        {/if}
      </dd>
      <dt>Decimals</dt>
      <dd>
        <select
          class="ed"
          aria-label="Decimal sign"
          value={reading.locale?.decimal}
          onchange={(e) => locale({ decimal: e.currentTarget.value })}
        >
          <option value=",">comma</option><option value=".">point</option>
        </select>
        <p>{because('decimal', wanted.locale)}</p>
      </dd>
      <dt>Dates</dt>
      <dd>
        <select
          class="ed"
          aria-label="Order of dates"
          value={reading.locale?.dateOrder}
          onchange={(e) => locale({ dateOrder: e.currentTarget.value })}
        >
          <option value="day-month-year">day, month, year</option>
          <option value="month-day-year">month, day, year</option>
          <option value="year-month-day">year, month, day</option>
        </select>
        <p>{because('dateOrder', wanted.locale)}</p>
      </dd>
    </dl>
    <div class="bt columns">
      <h2>Columns</h2>
      <span class="q">over all {count(source.rows)} rows</span>
    </div>
    {#each source.columns.slice(0, 200) as column (column.letter)}
      <div class="column">
        <span class="q m">{column.letter}</span>
        <b class="m name">{column.name}</b>
        <span class="q2">{column.type}</span>
        <span class="q r">{column.blank ? `${count(column.blank)} blank` : ''}</span>
        {#if column.misfits.length}
          <span class="misfit rejected"
            ><Slip of="rejected" />
            {column.misfits
              .map((v) => `“${v.text}”`)
              .slice(0, 3)
              .join(', ')}
            {column.misfits.length === 1 ? 'is' : 'are'} no {column.type === 'date'
              ? 'date'
              : 'number'}</span
          >
        {/if}
      </div>
    {/each}
  </div>
</aside>

<style>
  aside {
    width: 324px;
    border-left: 1px solid var(--ink);
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
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
  dl {
    display: grid;
    grid-template-columns: 92px 1fr;
    border-top: 1px solid var(--rule);
  }
  dt,
  dd {
    padding: 9px 12px 9px 16px;
    border-bottom: 1px solid var(--rule);
  }
  dt {
    color: var(--ink-2);
    padding-right: 0;
  }
  dd {
    padding-left: 6px;
  }
  dd p {
    color: var(--ink-2);
  }
  select.ed {
    font-weight: 650;
    cursor: pointer;
    max-width: 190px;
  }
  .column {
    display: grid;
    grid-template-columns: 20px 1fr auto 66px;
    gap: 0 8px;
    padding: 4px 12px 4px 16px;
    border-top: 1px solid var(--rule-soft);
  }
  .name {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .misfit {
    grid-column: 2/5;
  }
</style>
