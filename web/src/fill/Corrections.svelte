<script lang="ts">
  // Cells that the plan reads as another text, and those of them that fit the file no more.
  import type { OpenPlan } from '../plan/plan.svelte';

  let { open, shown = $bindable() }: { open: OpenPlan; shown: boolean } = $props();
  let box = $state<HTMLDialogElement>();

  $effect(() => {
    if (shown) box?.showModal();
    else box?.close();
  });

  function lapsed(line: number, column: string): boolean {
    return open.view.lapsed.some((c) => c.line === line && c.column === column);
  }
</script>

<dialog
  class="leaf"
  bind:this={box}
  aria-labelledby="corrections-title"
  onclose={() => (shown = false)}
>
  <div class="bt">
    <h2 id="corrections-title">Corrected cells</h2>
    <span class="q2">kept with the Plan; the file stays as it is</span>
    <span class="end"><button class="go" onclick={() => (shown = false)}>Close</button></span>
  </div>
  {#each open.plan.corrections as c (`${c.line}|${c.column}`)}
    <div class="correction">
      <span>line <b>{c.line}</b></span><span class="col">{c.column}</span>
      <span class="m q2">{c.was}</span><span class="m"><b>{c.now || 'blank'}</b></span>
      <span class="waiting"
        >{lapsed(c.line, c.column) ? 'lapsed: the cell holds something else now' : ''}</span
      >
      <button class="go" aria-label="Take back line {c.line}" onclick={() => open.uncorrect(c)}
        >Take back</button
      >
    </div>
  {/each}
</dialog>

<style>
  dialog {
    width: 680px;
    padding: 0 0 10px;
  }
  .correction {
    display: grid;
    grid-template-columns: 90px 110px 110px 110px minmax(0, 1fr) auto;
    gap: 10px;
    padding: 6px 14px;
    border-top: 1px solid var(--rule);
    align-items: baseline;
  }
</style>
