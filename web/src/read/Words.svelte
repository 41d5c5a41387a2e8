<script lang="ts">
  // A list of words that can be taken out, and added to.
  interface Props {
    words: string[];
    name: string;
    add?: (word: string) => void;
    remove: (word: string) => void;
    suggestions?: string[];
  }
  let { words, name, add, remove, suggestions = [] }: Props = $props();

  let adding = $state(false);
  let word = $state('');
  const id = $props.id();

  function done() {
    if (word.trim()) add?.(word.trim());
    word = '';
    adding = false;
  }
</script>

<span class="words">
  {#each words as w (w)}
    <span class="word m"
      >{w}<button aria-label={`Take ${w} out of ${name}`} onclick={() => remove(w)}>×</button></span
    >
  {:else}<span class="q">none</span>{/each}
  {#if adding}
    <!-- svelte-ignore a11y_autofocus -->
    <input
      class="entry"
      list={id}
      autofocus
      aria-label={`Add to ${name}`}
      bind:value={word}
      onblur={done}
      onkeydown={(e) => {
        if (e.key === 'Enter') done();
        if (e.key === 'Escape') {
          adding = false;
          word = '';
        }
      }}
    />
    <datalist {id}
      >{#each suggestions as s (s)}<option value={s}></option>{/each}</datalist
    >
  {:else if add}
    <button class="plus" aria-label={`Add to ${name}`} onclick={() => (adding = true)}>+</button>
  {/if}
</span>

<style>
  .words {
    display: inline-flex;
    flex-wrap: wrap;
    gap: 4px;
    align-items: center;
  }
  .word {
    border: 1px solid var(--rule-firm);
    background: var(--sheet);
    padding: 0 2px 0 5px;
    line-height: 18px;
  }
  .word button {
    padding: 0 4px;
    color: var(--ink-3);
    cursor: pointer;
  }
  .plus {
    border: 1px solid var(--rule-firm);
    width: 20px;
    line-height: 18px;
    cursor: pointer;
  }
  .entry {
    height: 22px;
    width: 110px;
  }
</style>
