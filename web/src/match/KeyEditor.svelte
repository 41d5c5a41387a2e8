<script lang="ts">
  // The match keys, in the order in which they are tried; the chosen one is open to be changed.
  import type { FieldInfo, MatchClasses, MatchKey } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import { region } from '../ui/region';
  import Slip from '../ui/Slip.svelte';
  import Suggested from './Suggested.svelte';
  import { count } from '../ui/words';
  import {
    compared,
    type Compared,
    comparedInWords,
    decisionInWords,
    IGNORED,
    isNear,
    moved,
    withDistance,
    withAdded,
    withField,
    withFiner,
    withIgnored,
    withKey,
    withNear,
  } from './keys';

  interface Props {
    open: OpenPlan;
    classes: MatchClasses | null;
    busy: boolean;
  }
  let { open, classes, busy }: Props = $props();

  let chosen = $state(0);
  let list = $state<HTMLElement>();

  const keys = $derived(open.destination.keys);
  const at = $derived(Math.min(chosen, Math.max(0, keys.length - 1)));
  const told = $derived(open.told);
  const filled = $derived(
    open.view.table.fields.filter((f) => {
      const kind = open.fill(f.name)?.origin.kind;
      return (kind && kind !== 'database') || f.name === told.parentField;
    }),
  );
  const total = $derived(Math.max(1, told.rows));

  function put(next: MatchKey[]) {
    open.editDestination((d) => ({ ...d, keys: next }));
  }
  function change(how: (key: MatchKey) => MatchKey) {
    put(withKey(keys, at, how));
  }

  /** A further key: the first unique field that none has yet, or the first field of all. */
  function add() {
    const used = keys.flatMap((k) => k.fields);
    const free = filled.filter((f) => !used.includes(f.name));
    const field = free.find((f) => f.unique) ?? free[0];
    if (!field) return;
    const text = field.type === 'text';
    put([...keys, { fields: [field.name], ignoring: text ? ['case', 'spaces'] : [] }]);
    chosen = keys.length;
  }

  /** Ways in which a field of a key can be compared. */
  function ways(key: MatchKey, field: FieldInfo): Compared[] {
    const all: Compared[] = key.ignoring.length ? ['as above', 'exactly'] : ['exactly'];
    if (field.link) return all;
    if (field.type === 'text') all.push('spelt alike');
    if (['whole', 'decimal', 'date'].includes(field.type)) all.push('within');
    return all;
  }

  /** What a key is tried on: the rows that none before it found a record for. */
  function before(n: number): number {
    return (classes?.keys ?? [])
      .slice(0, n)
      .reduce((sum, k) => sum + k.one + k.several + k.similar, 0);
  }

  useKeys(() => [
    {
      keys: ['n'],
      say: keys.length ? 'add a key' : 'choose key fields',
      act: () => {
        if (keys.length) add();
        else list?.querySelector('input')?.focus();
      },
    },
  ]);
</script>

<aside>
  <div class="bt">
    <h2>Match keys</h2>
    <span class="q">{keys.length > 1 ? 'tried in this order' : 'what identifies a record'}</span>
    {#if keys.length}<button class="button small end" onclick={add}>+ Key</button>{/if}
  </div>
  <div class="scroll all" {@attach region('Match keys')}>
    {#each keys as key, n (n)}
      {@const finds = classes?.keys[n]}
      <div class="key" class:on={n === at}>
        <div class="head">
          <button class="pickkey" aria-pressed={n === at} onclick={() => (chosen = n)}>
            <b class="n">{n + 1}</b>
            <b class="m big">{key.fields.join(' with ')}</b>
          </button>
          {#if n > 0}<button
              class="go"
              title="try it before the one above"
              onclick={() => {
                put(moved(keys, n, -1));
                chosen = n - 1;
              }}>earlier</button
            >{/if}
          <button
            class="go"
            aria-label="Remove key {n + 1}"
            onclick={() => put(keys.filter((_, i) => i !== n))}>remove</button
          >
        </div>
        <p class="q2">
          As it will be written, against the record’s own, {comparedInWords(key)}{#if isNear(key)}.
            What it finds is asked about{/if}
        </p>
        {#if finds}
          <div class="tried" aria-hidden="true">
            <i class="gone" style="flex: {before(n)} 0 0"></i>
            <i class="one" style="flex: {finds.one} 0 0"></i>
            <i class="several" style="flex: {finds.several + finds.similar} 0 0"></i>
            <i style="flex: {Math.max(0, total - before(n + 1))} 0 0"></i>
          </div>
          <p class="q2">
            {#if finds.one || !isNear(key)}<b>{count(finds.one)}</b>
              {finds.one === 1 ? 'row' : 'rows'} found here{/if}{#if finds.several},
              <b>{count(finds.several)}</b>
              {finds.several === 1 ? 'finds' : 'find'} several{/if}
            {#if isNear(key)}<b>{count(finds.similar)}</b>
              {finds.similar === 1 ? 'row is' : 'rows are'} much like a record or an earlier row{/if}{#if !finds.comparesRows};
              the file has too many rows for them to be compared with each other{/if}
          </p>
        {/if}
        {#if n === at}
          <div class="ignore">
            {#each IGNORED as option (option.value)}
              <label
                ><input
                  type="checkbox"
                  checked={key.ignoring.includes(option.value)}
                  onchange={() => change((k) => withIgnored(k, option.value))}
                />
                {option.text}</label
              >
            {/each}
          </div>
        {/if}
      </div>
    {:else}
      <div class="key">
        <p class="o waiting"><Slip of="waiting" /><b>No match key</b></p>
        <p class="q2">
          Every row is added as a new record, also those that are there already. Choose the field
          that tells records apart.
        </p>
      </div>
    {/each}
    {#if classes?.further.length}
      <div class="key advice">
        <p class="q2">Would tell apart what finds several:</p>
        {#each classes.further as advice (advice.key + advice.field)}
          <p>
            <button class="go m" onclick={() => put(withFiner(keys, advice.key - 1, advice.field))}
              >{advice.field}</button
            >
            <span class="q2"
              >with key {advice.key} settles {count(advice.settles)} of {count(advice.of)}</span
            >
          </p>
        {/each}
      </div>
    {/if}
    <Suggested
      {open}
      {busy}
      add={(key) => {
        put(withAdded(keys, key));
        chosen = keys.length;
      }}
    />
    <div class="bt">
      <h2>Fields of key {keys.length ? at + 1 : 1}</h2>
      <span class="q">all of them must agree</span>
    </div>
    <div bind:this={list}>
      {#each filled as field (field.name)}
        {@const key = keys[at]}
        {@const isPart = key?.fields.includes(field.name) ?? false}
        <div class="field">
          <label>
            <input
              type="checkbox"
              checked={isPart}
              onchange={() =>
                key
                  ? change((k) => withField(k, field.name))
                  : put([{ fields: [field.name], ignoring: [] }])}
            />
            <span class="m">{field.name}</span>
          </label>
          {#if isPart && key}
            <span class="how">
              <select
                class="ed"
                aria-label="How {field.name} is compared"
                value={compared(key, field.name)}
                onchange={(e) => {
                  const how = e.currentTarget.value as Compared;
                  const next = withNear(keys, at, field.name, how);
                  chosen = at + next.length - keys.length;
                  put(next);
                }}
              >
                {#each ways(key, field) as way (way)}<option value={way}>{way}</option>{/each}
              </select>
              {#if compared(key, field.name) === 'within'}
                <input
                  class="entry m within"
                  inputmode="decimal"
                  aria-label="Distance in {field.name}"
                  value={key.nearIn?.[field.name]}
                  onchange={(e) => {
                    const within = e.currentTarget.value.trim().replace(',', '.');
                    change((k) => withDistance(k, field.name, within));
                  }}
                />
                {#if field.type === 'date'}<span class="q">days</span>{/if}
              {/if}
            </span>
          {:else}<span class="q">{field.unique ? 'unique' : ''}</span>{/if}
        </div>
      {/each}
    </div>
    <div class="bt"><h2>Look among</h2></div>
    <div class="key">
      <p class="q2">
        {open.destination.among ? 'Records of' : `All ${count(open.view.tableRecords)} records of`}
        <span class="m">{open.view.table.name}</span>{open.destination.among ? ' for which' : ''}
      </p>
      <input
        class="entry m"
        aria-label="Condition on the records"
        placeholder="a formula, such as [status] = &quot;afloat&quot;"
        value={open.destination.among ?? ''}
        onchange={(e) => {
          const among = e.currentTarget.value.trim();
          open.editDestination((d) => ({ ...d, among: among || undefined }));
        }}
      />
    </div>
    {#if open.destination.decisions.length}
      <div class="bt">
        <h2>Decided by hand</h2>
        <span class="q">{count(open.destination.decisions.length)}</span>
      </div>
      <ul class="decided">
        {#each open.destination.decisions as decision, i (i)}
          <li>
            <span class="m">{decisionInWords(decision)}</span>
            <button
              class="go q2"
              aria-label="Forget {decisionInWords(decision)}"
              onclick={() =>
                open.editDestination((d) => ({
                  ...d,
                  decisions: d.decisions.filter((_, n) => n !== i),
                }))}>forget</button
            >
          </li>
        {/each}
      </ul>
    {/if}
  </div>
</aside>

<style>
  aside {
    width: min(318px, 36vw);
    border-right: 1px solid var(--ink);
    display: flex;
    flex-direction: column;
    min-height: 0;
    flex: none;
  }
  .all {
    flex: 1;
  }
  @media (max-width: 900px) {
    aside {
      width: auto;
    }
  }
  .key {
    padding: 8px 14px 10px 16px;
    border-top: 1px solid var(--rule);
    display: grid;
    gap: 5px;
  }
  .key.on {
    background: var(--sheet);
    box-shadow: inset 4px 0 0 var(--zest-edge);
  }
  .head {
    display: flex;
    gap: 10px;
    align-items: baseline;
  }
  .pickkey {
    flex: 1;
    display: flex;
    gap: 8px;
    align-items: baseline;
    text-align: left;
    cursor: pointer;
    min-width: 0;
    overflow-wrap: anywhere;
  }
  .n {
    background: var(--zest);
    color: var(--on-zest);
    padding: 0 6px;
    flex: none;
  }
  .big {
    font-size: 15px;
  }
  .tried {
    display: flex;
    height: 7px;
    border: 1px solid var(--ink);
  }
  .tried .gone {
    background: repeating-linear-gradient(90deg, var(--rule-firm) 0 1px, transparent 1px 4px);
  }
  .tried .one {
    background: var(--ink-2);
  }
  .tried .several {
    background: repeating-linear-gradient(90deg, var(--ask) 0 2px, transparent 2px 4px);
  }
  .ignore {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 3px 10px;
  }
  input[type='checkbox'] {
    accent-color: var(--zest-edge);
    width: 14px;
    height: 14px;
    vertical-align: -2px;
    border: 1px solid var(--rule-firm);
  }
  .field {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    padding: 4px 16px;
    border-top: 1px solid var(--rule-soft);
    align-items: center;
  }
  .field label {
    display: grid;
    grid-template-columns: 22px 1fr;
  }
  .entry {
    width: 100%;
  }
  .how {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .within {
    width: 58px;
    height: 22px;
  }
  .decided li {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    padding: 3px 16px;
    border-top: 1px solid var(--rule-soft);
    overflow-wrap: anywhere;
  }
</style>
