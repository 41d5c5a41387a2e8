<script lang="ts">
  // Match keys that could be added, with what each would find, and keys that lack an index.
  import { untrack } from 'svelte';
  import { api, got } from '../api/client';
  import type { KeyHints, MatchKey } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import Slip from '../ui/Slip.svelte';
  import { tell } from '../ui/toaster';
  import { count, many } from '../ui/words';
  import { isNear } from './keys';

  interface Props {
    open: OpenPlan;
    /** True while it is found out what the plan's own keys find, which comes first. */
    busy: boolean;
    add: (key: MatchKey) => void;
  }
  let { open, busy, add }: Props = $props();

  /** Of files with more rows keys are only tried once nobody edits for a moment. */
  const SMALL = 100_000;
  const MOMENT = 1_000;

  let hints = $state.raw<KeyHints | null>(null);
  let asked = 0;

  // anew after each save; what was found last stays until then
  $effect(() => {
    void open.view;
    if (busy) return;
    const isLarge = untrack(() => open.view.source.rows > SMALL);
    const timer = setTimeout(() => void load(), isLarge ? MOMENT : 0);
    return () => clearTimeout(timer);
  });

  async function load() {
    const mine = ++asked;
    try {
      const path = { id: open.view.id };
      const answer = await got(
        api.GET('/api/plans/{id}/match/keys', { params: { path, query: open.into } }),
      );
      if (mine === asked) hints = answer;
    } catch (error) {
      tell(error);
    }
  }

  type Hint = KeyHints['suggested'][number];
  function told(hint: Hint): string {
    if (isNear(hint.key))
      return hint.similar == null
        ? 'spelt alike: asks where a record is much like a row'
        : `spelt alike: would ask about ${many(hint.similar, 'row')}`;
    const parts = [hint.unique ? 'unique in the table' : ''];
    if (hint.values != null && hint.rows != null)
      parts.push(
        hint.values === hint.rows
          ? `no value twice in ${count(hint.rows)} rows`
          : `${count(hint.values)} values in ${count(hint.rows)} rows`,
      );
    if (hint.one != null) {
      parts.push(`alone finds a record for ${count(hint.one)}`);
      if (hint.several) parts.push(`several for ${count(hint.several)}`);
    }
    return parts.filter(Boolean).join(', ');
  }
</script>

{#each hints?.unindexed ?? [] as missing (missing.key)}
  <div class="part">
    <p>
      <span class="waiting"><Slip of="waiting" /></span> No index helps to find records by key {missing.key}:
      {count(missing.records)} are read each time. This would make one:
    </p>
    <code class="m">{missing.statement}</code>
  </div>
{/each}
{#if hints?.suggested.length}
  <div class="part">
    <p class="q2">
      {open.destination.keys.length ? 'Could be tried after it:' : 'Could be a key:'}
    </p>
    {#each hints.suggested as hint (JSON.stringify(hint.key))}
      <p>
        <button class="go m" onclick={() => add(hint.key)}>{hint.key.fields.join(' with ')}</button>
        <span class="q2">{told(hint)}</span>
      </p>
    {/each}
  </div>
{/if}

<style>
  .part {
    padding: 8px 14px 10px 16px;
    border-top: 1px solid var(--rule);
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 5px;
  }
  .part p {
    white-space: normal;
  }
  code {
    white-space: pre-wrap;
    overflow-wrap: anywhere;
    user-select: all;
  }
</style>
