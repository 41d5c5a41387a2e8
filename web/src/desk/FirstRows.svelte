<script lang="ts">
  // The first rows of a large file, while the rest is being read.
  import type { Peek, Reached } from '../api/types';
  import CellText from '../ui/CellText.svelte';
  import { region } from '../ui/region';
  import { reachedWords } from './reached';

  let { peek, reached }: { peek: Peek; reached: Reached | null } = $props();
</script>

{#if reached}
  <p class="q2" role="status">Reading it through: {reachedWords(reached)}</p>
  <progress
    max="1"
    value={reached.bytes ? reached.bytes / Math.max(1, reached.totalBytes) : undefined}
    aria-label="Part of the file that is read"
  ></progress>
{/if}
<div class="scroll rows" {@attach region('First rows of the file')}>
  <table class="g">
    <thead>
      <tr
        >{#each peek.columns as column, i (i)}<th>{column}</th>{/each}</tr
      >
    </thead>
    <tbody>
      {#each peek.rows.slice(0, 10) as row, r (r)}
        <tr>
          {#each row as cell, c (c)}<td class:r={cell.kind === 'number'}
              ><CellText text={cell.text} /></td
            >{/each}
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .rows {
    max-height: 300px;
    border: 1px solid var(--rule);
  }
  .g {
    table-layout: auto;
    width: max-content;
    min-width: 100%;
  }
</style>
