<script lang="ts">
  // How the file is read, each setting with its evidence and a way to change it.
  import type { Reading } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { count, many } from '../ui/words';
  import { region } from '../ui/region';
  import Columns from './Columns.svelte';
  import Conditions from './Conditions.svelte';
  import Matters from './Matters.svelte';
  import { toggled, withPick, withTable } from './reading';
  import Setting from './Setting.svelte';
  import Words from './Words.svelte';

  let { open }: { open: OpenPlan } = $props();

  const source = $derived(open.view.source);
  const reading = $derived(source.reading);
  const wanted = $derived(open.plan.reading);
  const known = $derived(source.warnings.filter((w) => !w.confirm));
  const isText = $derived(reading.format === 'delimited' || reading.format === 'fixed');

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
    'ISO-8859-2',
    'ISO-8859-15',
    'windows-1250',
    'windows-1251',
    'windows-1253',
    'windows-1254',
    'windows-1255',
    'windows-1256',
    'windows-1257',
    'x-windows-874',
    'x-MacRoman',
    'IBM850',
    'IBM852',
    'IBM866',
    'IBM437',
    'KOI8-R',
    'KOI8-U',
    'Shift_JIS',
    'EUC-JP',
    'EUC-KR',
    'GB18030',
    'Big5',
    'UTF-16LE',
    'UTF-16BE',
    'UTF-32LE',
  ];
  const FORMATS: Record<string, string> = {
    delimited: 'cells with a delimiter',
    fixed: 'cells of fixed width',
    xlsx: 'workbook, .xlsx',
    xls: 'old workbook, .xls',
    ods: 'open workbook, .ods',
    json: 'JSON',
  };

  function why(...settings: string[]) {
    return source.evidence.filter((e) => settings.includes(e.setting));
  }

  function put(change: Partial<Reading>) {
    open.putReading({ ...wanted, ...change });
  }

  function locale(change: object) {
    put({ locale: { ...reading.locale!, ...change } });
  }

  function records() {
    return `in lines ${count(reading.firstRow ?? 0)} to ${count(reading.lastRow ?? 0)}`;
  }
</script>

<aside>
  <div class="bt">
    <h2>How it is read</h2>
    <span class="end q">found, with the evidence</span>
  </div>
  <div class="scroll" {@attach region('How the file is read')}>
    <Matters {open} />
    {#if source.proposals.picks.length || source.proposals.fillDown.length || source.proposals.others.length}
      <div class="offer">
        {#each source.proposals.others as other (other.titles + other.words.join())}
          <span
            ><button class="go" onclick={() => open.putReading(withTable(wanted, other))}
              >Read the table {other.omit
                ? `beside it, from ${other.words[0]}`
                : `in line ${count(other.titles)}`}</button
            >
            <span class="q2">instead: {other.words.join(', ')}; {many(other.lines, 'line')}</span
            ></span
          >
        {/each}
        {#each source.proposals.picks as pick (pick.column + pick.line)}
          <span
            ><button class="go" onclick={() => open.putReading(withPick(wanted, pick))}
              >Pick {pick.name}</button
            > <span class="q2">cell {pick.column}{pick.line}, for every record</span></span
          >
        {/each}
        {#each source.proposals.fillDown as column (column)}
          <span
            ><button class="go" onclick={() => put({ fillDown: toggled(wanted.fillDown, column) })}
              >Fill {column} down</button
            > <span class="q2">a word, then blanks down to the next</span></span
          >
        {/each}
      </div>
    {/if}
    <dl>
      <Setting
        name="Format"
        evidence={why('entry')}
        said={wanted.format !== undefined}
        again={() => put({ format: undefined, borders: undefined, delimiter: undefined })}
      >
        {#if isText}
          <select
            class="ed"
            aria-label="Format"
            value={reading.format}
            onchange={(e) =>
              put({
                format: e.currentTarget.value as Reading['format'],
                borders: undefined,
                delimiter: undefined,
              })}
          >
            <option value="delimited">{FORMATS['delimited']}</option>
            <option value="fixed">{FORMATS['fixed']}</option>
          </select>
        {:else}<b>{FORMATS[reading.format ?? '']}</b>{/if}
      </Setting>
      {#if reading.encoding}
        <Setting
          name="Encoding"
          evidence={why('encoding')}
          said={wanted.encoding !== undefined}
          again={() => put({ encoding: undefined })}
        >
          <select
            class="ed"
            aria-label="Encoding"
            value={reading.encoding}
            onchange={(e) => put({ encoding: e.currentTarget.value })}
          >
            {#each [...new Set([reading.encoding, ...ENCODINGS])] as name (name)}<option
                >{name}</option
              >{/each}
          </select>
        </Setting>
      {/if}
      {#if reading.format === 'delimited'}
        <Setting
          name="Delimiter"
          evidence={why('delimiter')}
          said={wanted.delimiter !== undefined}
          again={() => put({ delimiter: undefined })}
        >
          <select
            class="ed"
            aria-label="Delimiter"
            value={reading.delimiter! in DELIMITERS ? reading.delimiter : 'other'}
            onchange={(e) =>
              put({ delimiter: e.currentTarget.value === 'other' ? '^' : e.currentTarget.value })}
          >
            {#each Object.entries(DELIMITERS) as [sign, name] (sign)}<option value={sign}
                >{name}</option
              >{/each}
            <option value="other">another</option>
          </select>
          {#if !(reading.delimiter! in DELIMITERS)}
            <input
              class="entry sign"
              aria-label="Signs of the delimiter"
              value={reading.delimiter}
              maxlength="5"
              onchange={(e) => e.currentTarget.value && put({ delimiter: e.currentTarget.value })}
            />
          {/if}
        </Setting>
        <Setting
          name="Quote"
          evidence={why('quote', 'escape')}
          said={wanted.quote !== undefined}
          again={() => put({ quote: undefined, escape: undefined })}
        >
          <select
            class="ed"
            aria-label="Quote"
            value={reading.quote}
            onchange={(e) => put({ quote: e.currentTarget.value })}
          >
            <option value="&quot;">" double</option><option value="'">' single</option>
            <option value="">none</option>
          </select>
          {#if reading.quote}<select
              class="ed"
              aria-label="Quote inside a cell"
              value={reading.escape}
              onchange={(e) =>
                put({ escape: e.currentTarget.value as Reading['escape'], quote: reading.quote })}
            >
              <option value="doubled">twice inside</option><option value="backslash"
                >behind \ inside</option
              >
            </select>{/if}
        </Setting>
        {#if reading.comment || wanted.comment !== undefined}
          <Setting
            name="Comments"
            evidence={why('comment')}
            said={wanted.comment !== undefined}
            again={() => put({ comment: undefined })}
          >
            <b class="m">{reading.comment || 'none'}</b>
            {#if reading.comment}<button class="go q2" onclick={() => put({ comment: '' })}
                >they are rows</button
              >{/if}
          </Setting>
        {/if}
      {:else if reading.format === 'fixed'}
        <Setting
          name="Borders"
          evidence={why('borders')}
          said={wanted.borders !== undefined}
          again={() => put({ borders: undefined })}
        >
          <b>before {(reading.borders ?? []).map((b) => b + 1).join(', ') || 'none'}</b>
        </Setting>
      {:else}
        <Setting
          name={reading.format === 'json' ? 'List' : 'Sheet'}
          evidence={why('sheet', 'rows')}
          said={wanted.sheet !== undefined || !!wanted.sheets?.length}
        >
          <b
            >{reading.sheets?.length
              ? reading.sheets.join(', ')
              : reading.sheet === '.'
                ? 'the whole file'
                : reading.sheet}</b
          >
        </Setting>
      {/if}
      {#if reading.format !== 'json'}
        <Setting
          name="Titles"
          evidence={why('titles')}
          said={wanted.titleRows !== undefined}
          again={() => put({ titleRows: undefined, firstRow: undefined })}
        >
          <b
            >{reading.titleRows?.length
              ? `${reading.titleRows.length > 1 ? 'lines' : 'line'} ${reading.titleRows.map((l) => count(l)).join(' and ')}`
              : 'none'}</b
          >
          {#if reading.titleRows?.length}
            <button class="go q2" onclick={() => put({ titleRows: [], firstRow: undefined })}
              >there are none</button
            >
          {/if}
        </Setting>
        {#if reading.unitsRow || wanted.unitsRow !== undefined}
          <Setting
            name="Units"
            evidence={why('unitsRow')}
            said={wanted.unitsRow !== undefined}
            again={() => put({ unitsRow: undefined, firstRow: undefined })}
          >
            <b>{reading.unitsRow ? `line ${count(reading.unitsRow)}` : 'none'}</b>
            {#if reading.unitsRow}<button
                class="go q2"
                onclick={() => put({ unitsRow: 0, firstRow: undefined })}>it is a record</button
              >{/if}
          </Setting>
        {/if}
      {/if}
      <Setting
        name="Records"
        evidence={why('lastRow')}
        said={wanted.firstRow !== undefined || wanted.lastRow !== undefined}
        again={() => put({ firstRow: undefined, lastRow: undefined })}
      >
        <b>{records()}</b>
        <span class="small">
          <label
            >only records <input
              class="entry sign"
              inputmode="numeric"
              aria-label="First record taken"
              placeholder="1"
              value={wanted.records?.from ?? ''}
              onchange={(e) => {
                const from = Number(e.currentTarget.value);
                put({ records: from > 1 ? { ...wanted.records, from } : undefined });
              }}
            /></label
          >
          <label
            >to <input
              class="entry sign"
              inputmode="numeric"
              aria-label="Last record taken"
              placeholder="last"
              value={wanted.records?.to ?? ''}
              onchange={(e) => {
                const to = Number(e.currentTarget.value) || undefined;
                const from = wanted.records?.from ?? 1;
                put({ records: to || from > 1 ? { from, to } : undefined });
              }}
            /></label
          >
        </span>
        <span class="small">
          <label
            >end after <input
              class="entry sign"
              inputmode="numeric"
              aria-label="Blank lines that end the records"
              placeholder="no"
              value={wanted.stopAfterBlank || ''}
              onchange={(e) => put({ stopAfterBlank: Number(e.currentTarget.value) || undefined })}
            /> blank lines</label
          >
        </span>
      </Setting>
      {#if reading.section || wanted.section !== undefined}
        <Setting
          name="Sections"
          evidence={why('section')}
          said={wanted.section !== undefined}
          again={() => put({ section: undefined })}
        >
          {#if reading.section}
            column
            <input
              class="entry word"
              aria-label="Name of the column that sections make"
              value={reading.section}
              maxlength="60"
              onchange={(e) =>
                e.currentTarget.value.trim() && put({ section: e.currentTarget.value.trim() })}
            />
            <button class="go q2" onclick={() => put({ section: '' })}>they are records</button>
          {:else}<b>none</b>{/if}
        </Setting>
      {/if}
      <Setting name="Left out" evidence={why('leftOut')}>
        <Conditions {open} />
        {#if why('leftOut').some((e) => e.value === 'totals') || wanted.totals}
          <label class="small"
            ><input
              type="checkbox"
              checked={wanted.totals ?? false}
              onchange={(e) => put({ totals: e.currentTarget.checked || undefined })}
            /> totals are records</label
          >
        {/if}
      </Setting>
      {#if reading.omit?.length}
        <Setting
          name="Omitted"
          evidence={why('omit')}
          said={wanted.omit !== undefined}
          again={() => put({ omit: undefined })}
        >
          <Words
            words={reading.omit}
            name="omitted columns"
            remove={(w) => put({ omit: toggled(reading.omit, w) })}
          />
        </Setting>
      {/if}
      {#if reading.fillDown?.length}
        <Setting name="Filled down">
          <Words
            words={reading.fillDown}
            name="columns filled down"
            remove={(w) => put({ fillDown: toggled(reading.fillDown, w) })}
          />
        </Setting>
      {/if}
      {#if reading.picks?.length}
        <Setting name="Picked cells">
          <Words
            words={reading.picks.map((p) => p.name)}
            name="picked cells"
            remove={(w) => put({ picks: reading.picks?.filter((p) => p.name !== w) })}
          />
          <p class="q2">same for every record</p>
        </Setting>
      {/if}
      <Setting
        name="Means blank"
        evidence={why('blankWords')}
        said={wanted.blankWords !== undefined}
        again={() => put({ blankWords: undefined })}
      >
        <Words
          words={reading.blankWords ?? []}
          name="words for blank"
          add={(w) => put({ blankWords: [...(reading.blankWords ?? []), w] })}
          remove={(w) => put({ blankWords: reading.blankWords?.filter((b) => b !== w) })}
        />
      </Setting>
      <Setting
        name="Decimals"
        evidence={why('decimal')}
        said={wanted.locale !== undefined}
        again={() => put({ locale: undefined })}
      >
        <select
          class="ed"
          aria-label="Decimal sign"
          value={reading.locale?.decimal}
          onchange={(e) => locale({ decimal: e.currentTarget.value })}
        >
          <option value=",">comma</option><option value=".">point</option>
        </select>
      </Setting>
      <Setting name="Dates" evidence={why('dateOrder')} said={wanted.locale !== undefined}>
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
        {#if reading.century}<span class="q2"
            >two figures mean {reading.century}..
            <button class="go" onclick={() => put({ century: undefined })}>ask again</button></span
          >{/if}
      </Setting>
      {#if why('spaces').length}
        <Setting name="Spaces" evidence={why('spaces')}>
          <b>kept</b> and shown as <span class="sp">·</span>
        </Setting>
      {/if}
    </dl>
    {#if known.length}
      <div class="bt"><h2>Good to know</h2></div>
      <ul class="known">
        {#each known as w (w.code + w.column + w.row)}
          <li>
            {#if w.code === 'cell-count' && w.row}<span class="q">line {count(w.row)}</span>
            {/if}{w.message}
          </li>
        {/each}
      </ul>
    {/if}
    <Columns columns={source.columns} rows={source.rows} />
  </div>
</aside>

<style>
  aside {
    width: 324px;
    flex: none;
    border-left: 1px solid var(--ink);
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
  @media (max-width: 1180px) {
    aside {
      width: 280px;
    }
  }
  dl {
    display: grid;
    grid-template-columns: 92px minmax(0, 1fr);
    border-top: 1px solid var(--rule);
  }
  select.ed {
    font-weight: 650;
    max-width: 190px;
  }
  .word {
    width: 110px;
  }
  .sign {
    width: 52px;
    height: 22px;
    padding: 0 5px;
  }
  .small {
    display: flex;
    gap: 8px;
    margin-top: 3px;
    color: var(--ink-2);
  }
  .offer {
    display: grid;
    gap: 3px;
    padding: 8px 16px;
    border-top: 1px solid var(--rule);
  }
  .known {
    border-top: 1px solid var(--rule);
    padding: 6px 16px 8px;
    color: var(--ink-2);
    display: grid;
    gap: 5px;
  }
</style>
