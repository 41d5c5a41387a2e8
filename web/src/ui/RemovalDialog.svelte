<script lang="ts">
  // Says what deleting something means, then does it.
  import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
  import type { Removal } from './removal.svelte';

  let { removal = $bindable() }: { removal: Removal | null } = $props();

  const close = () => (removal = null);
</script>

<Dialog open={removal !== null} onOpenChange={(e) => !e.open && close()}>
  <Portal>
    <Dialog.Backdrop class="veil" />
    <Dialog.Positioner class="over">
      <Dialog.Content class="panel">
        {#if removal}
          <Dialog.Title class="paneltitle">Delete the {removal.kind} “{removal.name}”?</Dialog.Title
          >
          {#if removal.refusal || removal.meaning?.refused}
            <p class="message" role="alert">{removal.refusal || removal.meaning?.refused}</p>
          {:else if removal.meaning}
            {#if removal.meaning.goes.length}
              <p>With it go:</p>
              <ul>
                {#each removal.meaning.goes as line (line)}<li>{line}</li>{/each}
              </ul>
            {/if}
            {#if removal.meaning.affected.length}
              <p>What stays:</p>
              <ul>
                {#each removal.meaning.affected as line (line)}<li>{line}</li>{/each}
              </ul>
            {/if}
            {#if removal.kind === 'connection'}
              <p class="q2">
                The application’s own records are not touched. Plans that name the connection wait
                until there is one of this name again.
              </p>
            {:else}
              <p class="q2">It can’t be brought back.</p>
            {/if}
          {:else}
            <p class="q">Looking at what depends on it…</p>
          {/if}
          <p class="buttons">
            {#if removal.meaning && !removal.meaning.refused && !removal.refusal}
              <button class="button grave" disabled={removal.busy} onclick={() => removal?.go()}
                >Delete</button
              >
            {/if}
            <button class="button" onclick={close}>Keep it</button>
          </p>
        {/if}
      </Dialog.Content>
    </Dialog.Positioner>
  </Portal>
</Dialog>

<style>
  ul {
    margin: 2px 0 10px 18px;
    list-style: square;
  }
  .buttons {
    display: flex;
    gap: 8px;
    margin-top: 14px;
  }
</style>
