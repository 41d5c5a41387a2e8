<script lang="ts">
  // Steps to add; moving through them tries each at once on the real values.
  import { onMount } from 'svelte';
  import type { StageTable, StepHelp, StepKind } from '../api/types';
  import { count } from '../ui/words';

  interface Props {
    kinds: StepHelp[];
    table: StageTable | null;
    tryKind: (kind: StepKind | null) => void;
    keep: () => void;
    leave: () => void;
  }
  let { kinds, table, tryKind, keep, leave }: Props = $props();

  let at = $state(-1);
  let box = $state<HTMLElement>();

  onMount(() => box?.focus());

  function move(to: number) {
    at = (to + kinds.length) % kinds.length;
    tryKind(kinds[at]!.kind as StepKind);
    box?.children[at + 1]?.scrollIntoView({ block: 'nearest' });
  }

  function onkeydown(event: KeyboardEvent) {
    switch (event.key) {
      case 'ArrowDown':
      case 'j':
        move(at + 1);
        break;
      case 'ArrowUp':
      case 'k':
        move(at - 1);
        break;
      case 'Enter':
        if (at >= 0) keep();
        break;
      case 'Escape':
        leave();
        break;
      default:
        return;
    }
    event.preventDefault();
    event.stopPropagation();
  }
</script>

<div class="menu" role="listbox" tabindex="0" aria-label="Steps to add" bind:this={box} {onkeydown}>
  <div class="say q">
    <kbd>↑</kbd> <kbd>↓</kbd> try · <kbd>↵</kbd> keep · <kbd>Esc</kbd> leave
    {#if at >= 0 && table}<b class:rejected={table.troubledRows > 0}
        >{count(table.troubledRows)} rows troubled so</b
      >{/if}
  </div>
  {#each kinds as kind, i (kind.kind)}
    <div
      class="kind"
      class:on={i === at}
      role="option"
      tabindex="-1"
      aria-selected={i === at}
      onmouseenter={() => move(i)}
      onclick={keep}
      onkeydown={() => {}}
    >
      <b>{kind.title}</b> <span class="q2">{kind.help}</span>
    </div>
  {/each}
</div>

<style>
  .menu {
    position: absolute;
    right: 12px;
    top: 6px;
    width: 330px;
    max-height: calc(100% - 12px);
    overflow: auto;
    background: var(--sheet);
    border: 1px solid var(--ink);
    box-shadow: 3px 3px 0 var(--rule);
    z-index: 5;
  }
  .say {
    padding: 6px 10px;
    border-bottom: 1px solid var(--rule);
    display: flex;
    gap: 5px;
    align-items: center;
  }
  .say b {
    margin-left: auto;
  }
  .kind {
    padding: 4px 10px;
    cursor: pointer;
  }
  .kind.on {
    background: var(--zest-lit);
    box-shadow: inset 4px 0 0 var(--zest-edge);
  }
</style>
