<script lang="ts">
  import type { MatchKey } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import Slip from '../ui/Slip.svelte';

  let { open }: { open: OpenPlan } = $props();

  const IGNORE: { value: MatchKey['ignoring'][number]; text: string }[] = [
    { value: 'case', text: 'capitals' },
    { value: 'spaces', text: 'spaces' },
    { value: 'punctuation', text: 'punctuation' },
    { value: 'accents', text: 'accents' },
    { value: 'leading-zeros', text: 'leading zeros' },
  ];
  const key = $derived(open.destination.keys[0]);
  const filled = $derived(
    open.view.table.fields.filter((f) => {
      const kind = open.fill(f.name)?.origin.kind;
      return kind && kind !== 'database';
    }),
  );

  function putKey(changed: MatchKey | null) {
    open.editDestination((d) => ({ ...d, keys: changed ? [changed] : [] }));
  }

  function toggleField(name: string) {
    const fields = key?.fields ?? [];
    const next = fields.includes(name) ? fields.filter((f) => f !== name) : [...fields, name];
    putKey(next.length ? { fields: next, ignoring: key?.ignoring ?? [] } : null);
  }

  function toggle(ignored: MatchKey['ignoring'][number]) {
    if (!key) return;
    const on = key.ignoring.includes(ignored);
    putKey({
      ...key,
      ignoring: on ? key.ignoring.filter((i) => i !== ignored) : [...key.ignoring, ignored],
    });
  }

  let list = $state<HTMLElement>();
  useKeys(() => [
    { keys: ['a'], say: 'choose key fields', act: () => list?.querySelector('input')?.focus() },
  ]);
</script>

<aside>
  <div class="bt">
    <h2>Match key</h2>
    <span class="q">what identifies a record</span>
  </div>
  <div class="key" class:on={key}>
    {#if key}
      <p><b class="m big">{key.fields.join(' with ')}</b></p>
      <p class="q2">As it will be written, against the record’s own, ignoring</p>
      <div class="ignore">
        {#each IGNORE as option (option.value)}
          <label
            ><input
              type="checkbox"
              checked={key.ignoring.includes(option.value)}
              onchange={() => toggle(option.value)}
            />
            {option.text}</label
          >
        {/each}
      </div>
    {:else}
      <p class="o waiting"><Slip of="waiting" /><b>No match key</b></p>
      <p class="q2">
        Every row is added as a new record, also those that are there already. Choose the field that
        tells records apart.
      </p>
    {/if}
  </div>
  <div class="bt">
    <h2>Key fields</h2>
    <span class="q">all of them must agree</span>
  </div>
  <div class="scroll list" bind:this={list}>
    {#each filled as field (field.name)}
      <label class="field">
        <input
          type="checkbox"
          checked={key?.fields.includes(field.name) ?? false}
          onchange={() => toggleField(field.name)}
        />
        <span class="m">{field.name}</span>
        <span class="q">{field.unique ? 'unique' : ''}</span>
      </label>
    {/each}
  </div>
</aside>

<style>
  aside {
    width: 318px;
    border-right: 1px solid var(--ink);
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
  .key {
    padding: 10px 16px 14px;
    border-top: 1px solid var(--rule);
    border-bottom: 1px solid var(--ink);
    display: grid;
    gap: 6px;
  }
  .key.on {
    background: var(--sheet);
  }
  .big {
    font-size: 15px;
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
    display: grid;
    grid-template-columns: 22px 1fr auto;
    padding: 4px 16px;
    border-top: 1px solid var(--rule-soft);
    align-items: center;
  }
</style>
