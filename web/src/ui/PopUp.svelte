<script lang="ts">
  // What a few words open: a small sheet over the page, put away by Escape or by going elsewhere.
  import type { Snippet } from 'svelte';

  const MARGIN = 8;

  interface Props {
    words: string;
    /** True if something in it still has to be said. */
    waiting?: boolean;
    /** The side of the words that it is flush with. */
    side?: 'left' | 'right';
    /** In pixels; as wide as what is in it if it is left out. */
    width?: number;
    children: Snippet;
  }
  let { words, waiting = false, side = 'left', width, children }: Props = $props();

  let box = $state<HTMLDetailsElement>();
  let open = $state(false);
  let sheet = $state<HTMLElement>();
  /** Pixels by which it would stand beyond the right edge of the window. */
  let beyond = $state(0);

  $effect(() => {
    if (open && sheet && side === 'left') {
      beyond = Math.max(
        0,
        sheet.getBoundingClientRect().right + beyond - window.innerWidth + MARGIN,
      );
    }
  });

  /** Something else was pointed at, or opened by a key. */
  function leave(event: Event) {
    if (open && !box?.contains(event.target as Node)) open = false;
  }

  function onkeydown(event: KeyboardEvent) {
    if (!open || event.key !== 'Escape') return;
    open = false;
    box?.querySelector('summary')?.focus();
  }
</script>

<svelte:window {onkeydown} onpointerdown={leave} onfocusin={leave} />
<details bind:this={box} bind:open>
  <summary class="go" class:waiting>{words}</summary>
  <div
    bind:this={sheet}
    class="pop {side}"
    style:width={width ? `${width}px` : undefined}
    style:left={side === 'left' ? `${-beyond}px` : undefined}
  >
    {@render children()}
  </div>
</details>

<style>
  details {
    position: relative;
  }
  summary {
    list-style: none;
    cursor: pointer;
  }
  .pop {
    position: absolute;
    top: 26px;
    z-index: 6;
    max-height: 330px;
    overflow: auto;
    background: var(--sheet);
    border: 1px solid var(--ink);
    padding: 8px 12px;
    display: grid;
    gap: 5px;
    color: var(--ink);
  }
  .left {
    width: max-content;
    max-width: min(480px, 90vw);
    justify-items: start;
  }
  .right {
    right: 0;
  }
</style>
