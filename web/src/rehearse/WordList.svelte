<script lang="ts">
  // All words of a question, each with what it means.
  import { region } from '../ui/region';
  import { count, many } from '../ui/words';
  import type { Asking } from './asking.svelte';

  interface Props {
    asking: Asking;
  }
  let { asking }: Props = $props();

  const means = $derived(asking.means ?? {});
  const filled = $derived(Object.values(means).filter((m) => m.trim()).length);
</script>

<div class="words scroll" {@attach region('Words and what they mean')}>
  {#each asking.listed as one (one.value)}
    <label class="one">
      <span class="m">{one.value}</span>
      <span class="q r">{count(one.rows)}</span>
      <input
        class="entry m"
        list="means"
        bind:value={means[one.value]}
        placeholder="not now"
        aria-label="“{one.value}” means"
        title={means[one.value]}
      />
    </label>
  {/each}
  <datalist id="means">
    {#each asking.known as known (known.value)}<option value={known.value}></option>{/each}
  </datalist>
</div>
<div class="foot">
  <span class="q">remembered in a phrasebook</span>
  <button class="go q2" onclick={() => (asking.means = null)}>one by one</button>
  <button
    class="button small main"
    disabled={asking.busy || !filled}
    onclick={() => void asking.answerAll()}>Answer {many(filled, 'word')}</button
  >
</div>

<style>
  .words {
    max-height: 300px;
    border: 1px solid var(--rule);
  }
  .one {
    display: grid;
    grid-template-columns: minmax(0, 5fr) 36px minmax(0, 6fr);
    gap: 8px;
    align-items: center;
    padding: 3px 8px;
    border-top: 1px solid var(--rule);
    overflow-wrap: anywhere;
  }
  .one input {
    height: 24px;
    min-width: 0;
  }
  .foot {
    display: flex;
    gap: 12px;
    align-items: center;
    padding-top: 7px;
  }
  .main {
    margin-left: auto;
  }
</style>
