<script lang="ts">
  import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
  import { keyboard, keyName } from './keys.svelte';

  let { open = $bindable() }: { open: boolean } = $props();
</script>

<Dialog {open} onOpenChange={(e) => (open = e.open)}>
  <Portal>
    <Dialog.Backdrop class="veil" />
    <Dialog.Positioner class="over">
      <Dialog.Content class="panel">
        <Dialog.Title class="paneltitle">Keys of this screen</Dialog.Title>
        <ul>
          {#each keyboard.shown as key (key.say)}
            <li>
              {#each key.keys as name (name)}<kbd>{keyName(name)}</kbd>{/each}
              {key.say}
            </li>
          {/each}
          <li>
            <kbd>G</kbd> then <kbd>D</kbd> Desk, <kbd>P</kbd> Plans, <kbd>R</kbd> Runs, <kbd>E</kbd> Records
          </li>
          <li><kbd>CTRL</kbd> <kbd>Z</kbd> unmake the last edit of the Plan</li>
        </ul>
        <Dialog.CloseTrigger class="button">Close</Dialog.CloseTrigger>
      </Dialog.Content>
    </Dialog.Positioner>
  </Portal>
</Dialog>

<style>
  kbd {
    margin-right: 5px;
  }
  ul {
    list-style: none;
    padding: 0;
    margin: 10px 0 16px;
    line-height: 26px;
  }
</style>
