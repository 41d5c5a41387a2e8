<script lang="ts">
  // What can be said of the line, the cell and the columns under the cursor.
  import type { Key } from '../ui/keys.svelte';
  import { keyName } from '../ui/keys.svelte';

  export interface Mark extends Key {
    on?: boolean;
    off?: boolean;
  }
  interface Props {
    line: string;
    cell: string;
    columns: string;
    lineMarks: Mark[];
    cellMarks: Mark[];
    columnMarks: Mark[];
  }
  let { line, cell, columns, lineMarks, cellMarks, columnMarks }: Props = $props();
  const groups = $derived([
    { name: line, marks: lineMarks },
    { name: cell, marks: cellMarks },
    { name: columns, marks: columnMarks },
  ]);
</script>

<div class="bt marks" role="toolbar" aria-label="Marks">
  {#each groups as group (group)}
    <span class="group">
      <b>{group.name}</b>
      {#each group.marks as mark (mark.say)}
        <button
          class="mk"
          class:on={mark.on}
          aria-pressed={mark.on ?? false}
          disabled={mark.off}
          onclick={(e) => mark.act?.(e as unknown as KeyboardEvent)}
          >{mark.say} <kbd>{keyName(mark.keys[0]!)}</kbd></button
        >
      {/each}
    </span>
  {/each}
</div>

<style>
  .marks {
    gap: 9px;
    padding: 0 12px;
    border-bottom: 1px solid var(--rule);
    overflow-x: auto;
    scrollbar-width: none;
    background: var(--paper);
  }
  .group {
    display: inline-flex;
    gap: 2px;
    align-items: center;
  }
  .group + .group {
    border-left: 1px solid var(--rule);
    padding-left: 9px;
  }
  .group b {
    margin-right: 3px;
  }
  .mk {
    padding: 1px 4px;
    border-radius: 2px;
    color: var(--ink-2);
    cursor: pointer;
    white-space: nowrap;
  }
  .mk:hover:not(:disabled) {
    background: var(--well);
    color: var(--ink);
  }
  .mk.on {
    background: var(--zest-lit);
    color: var(--ink);
    box-shadow: inset 0 0 0 1px var(--zest-edge);
  }
  .mk:disabled {
    color: var(--ink-3);
    cursor: default;
  }
</style>
