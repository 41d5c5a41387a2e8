<script lang="ts">
  import { recordsOf } from './links';
  import { onMount, untrack } from 'svelte';
  import { searchParams } from 'sv-router';
  import { navigate, route } from '../router';
  import { useKeys } from '../ui/keys.svelte';
  import GridHead from '../ui/GridHead.svelte';
  import Value from '../ui/Value.svelte';
  import { capital, count, fieldWords, many } from '../ui/words';
  import { region } from '../ui/region';
  import { PAGE, RecordsState } from './records.svelte';

  const records = new RecordsState();
  let search = $state('');
  let finder = $state<HTMLInputElement>();
  const connection = $derived(route.params.connection ?? records.connections[0]?.name ?? '');
  const table = $derived(route.params.table ?? '');
  const run = $derived(searchParams.get('run') as number | string | null);
  const outcome = $derived(searchParams.get('outcome') as string | null);
  const key = $derived(searchParams.get('key') as number | string | null);
  const { record, total, page, info, single, at, offset } = $derived(records);

  onMount(() => void records.loadConnections());
  $effect(() => {
    const name = connection;
    if (name) untrack(() => void showTables(name));
  });
  $effect(() => {
    const wanted = { connection, table, run, outcome, key };
    const words = search;
    untrack(() => void records.look(wanted, words));
  });

  async function showTables(name: string) {
    const fullest = await records.loadTables(name);
    if (!table && fullest)
      void navigate('/records/:connection/:table', {
        params: { connection: name, table: encodeURIComponent(fullest) },
        replace: true,
      });
  }

  const numeric = (i: number) =>
    !info?.fields[i]?.link && ['decimal', 'whole'].includes(info?.fields[i]?.type ?? '');
  function width(i: number): number {
    const field = info?.fields[i];
    if (!field) return 100;
    if (field.link) return 176;
    const size =
      { text: Math.min(24, field.length ?? 24), date: 11, datetime: 19 }[field.type as string] ?? 9;
    return Math.max(60, 18 + 7.6 * Math.max(size, field.name.length));
  }

  const heads = $derived(
    (page?.fields ?? []).map((name, i) => ({
      key: name,
      name,
      width: width(i),
      right: numeric(i),
    })),
  );

  useKeys(() => [
    { keys: ['j'], say: '', act: () => records.move(1) },
    { keys: ['k'], say: '', act: () => records.move(-1) },
    { keys: ['j', 'k'], say: 'record' },
    {
      keys: ['Enter'],
      say: records.single ? 'as a grid' : 'one at a time',
      act: () => (records.single = !records.single),
    },
    { keys: ['/'], say: 'find', act: () => finder?.focus() },
  ]);
</script>

<div class="pagehead">
  <h1>Records</h1>
  {#if records.connections.length > 1}
    <select
      class="entry"
      aria-label="Connection"
      value={connection}
      onchange={(e) =>
        void navigate('/records/:connection/:table', {
          params: { connection: e.currentTarget.value, table: '' },
        })}
    >
      {#each records.connections as c (c.name)}<option value={c.name}>{c.shownName}</option>{/each}
    </select>
  {:else}<span class="q2">{records.connections[0]?.shownName ?? ''}</span>{/if}
  <span class="end">
    {#if run != null}<span class="q2">{capital(outcome ?? 'new')} by one Run</span>
      <a class="button small" href={recordsOf(connection, table)}>Show all</a>
    {:else if key != null}<a class="button small" href={recordsOf(connection, table)}>Show all</a>
    {:else}<input
        class="entry"
        placeholder="Find a record"
        aria-label="Find a record"
        bind:this={finder}
        bind:value={search}
      />{/if}
    <button class="button" onclick={() => (records.single = !records.single)}
      >{single ? 'As a grid' : 'One at a time'} <kbd>↵</kbd></button
    >
  </span>
</div>
<div class="body">
  <nav class="scroll tables" aria-label="Tables">
    {#each records.tables as t (t.name)}
      <a class:on={t.name === table} href={recordsOf(connection, t.name)}
        ><span class="m">{t.name}</span><span class="q"
          >{t.records == null ? '–' : count(t.records)}</span
        ></a
      >
    {/each}
  </nav>
  <section>
    {#if page && info}
      {#if single && record}
        <div class="bt">
          <h2><span class="m">{table}</span> {record.key}</h2>
          <span class="end">
            <button class="button small" onclick={() => records.move(-1)}>‹ <kbd>K</kbd></button>
            <span class="q2">{count(offset + at + 1)} of {count(total)}</span>
            <button class="button small" onclick={() => records.move(1)}><kbd>J</kbd> ›</button>
          </span>
        </div>
        <div class="scroll" {@attach region('One record')}>
          <table class="g one">
            <colgroup><col style:width="190px" /><col style:width="360px" /><col /></colgroup>
            <tbody>
              {#each info.fields as field, i (field.name)}
                <tr
                  ><td class="ln name">{field.name}</td><td
                    ><Value value={record.values[i]} {field} {connection} /></td
                  ><td class="t q"
                    >{fieldWords(field)}{field.comment ? `, ${field.comment}` : ''}</td
                  ></tr
                >
              {/each}
            </tbody>
          </table>
        </div>
      {:else}
        <div class="scroll sheetbox" {@attach region('Records')}>
          <table
            class="g"
            style="min-width: 100%; width: {heads.reduce((sum, head) => sum + head.width, 0)}px"
          >
            <GridHead columns={heads} />
            <tbody>
              {#each page.records as r, i (r.key + i)}
                <tr
                  class="pickable"
                  class:cur={i === at}
                  onclick={() => (records.at = i)}
                  ondblclick={() => ((records.at = i), (records.single = true))}
                >
                  {#each r.values as value, c (c)}<td dir="auto" class:r={numeric(c)} title={value}
                      ><Value {value} field={info.fields[c]} {connection} /></td
                    >{/each}
                  <td></td></tr
                >
              {/each}
            </tbody>
          </table>
          {#if page.records.length === 0}<p class="q" style:padding="14px 16px">
              No record is like that.
            </p>{/if}
        </div>
        <div class="bt turn">
          <span class="q2"
            >{many(total, 'record')}{total > PAGE
              ? `, ${count(offset + 1)} to ${count(Math.min(total, offset + PAGE))} shown`
              : ''}</span
          >
          {#if total > PAGE}
            <span class="end">
              <button
                class="button small"
                disabled={offset === 0}
                onclick={() => records.turn(-PAGE)}>Earlier</button
              >
              <button
                class="button small"
                disabled={offset + PAGE >= total}
                onclick={() => records.turn(PAGE)}>Later</button
              >
            </span>
          {/if}
        </div>
      {/if}
    {/if}
  </section>
</div>

<style>
  .tables {
    width: 208px;
    border-right: 1px solid var(--ink);
    padding: 6px 0;
    flex: none;
  }
  @media (max-width: 900px) {
    .tables {
      width: auto;
      max-height: 150px;
      border-right: 0;
      border-bottom: 1px solid var(--ink);
    }
  }
  .tables a {
    display: flex;
    justify-content: space-between;
    padding: 5px 12px 5px 16px;
  }
  .tables a.on {
    background: var(--sheet);
    box-shadow: inset 4px 0 0 var(--zest-edge);
    font-weight: 650;
  }
  section {
    flex: 1;
    min-width: 0;
    display: flex;
    flex-direction: column;
  }
  .sheetbox {
    flex: 1;
  }
  .turn {
    border-top: 1px solid var(--rule);
  }
  .one td {
    height: 29px;
  }
  .name {
    padding-right: 12px !important;
    color: var(--ink) !important;
  }
</style>
