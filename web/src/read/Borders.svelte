<script lang="ts">
  // Where the cells of fixed width begin: borders over the text, to be set and moved.
  import { untrack } from 'svelte';
  import { api, got } from '../api/client';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { region } from '../ui/region';
  import { tell } from '../ui/toaster';
  import { movedBorder, toggledBorder } from './borders';

  let { open }: { open: OpenPlan } = $props();

  const SHOWN = 4;
  let text = $state.raw<string[]>([]);
  let width = $state(8);
  const borders = $derived(open.view.source.reading.borders ?? []);
  const longest = $derived(Math.max(20, ...text.map((l) => l.length)));

  $effect(() => {
    const path = { id: open.view.id };
    void open.view.source.id;
    untrack(() =>
      got(api.GET('/api/plans/{id}/text', { params: { path } })).then(
        (lines) => (text = lines.filter((l) => l.trim()).slice(0, SHOWN)),
        tell,
      ),
    );
  });

  function put(next: number[]) {
    open.putReading({ ...open.plan.reading, format: 'fixed', borders: next });
  }

  function onKey(event: KeyboardEvent, border: number) {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (by) put(movedBorder(borders, border, border + by));
    else if (event.key === 'Delete' || event.key === 'Backspace')
      put(borders.filter((b) => b !== border));
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  let held = $state<number | null>(null);
  function onDrop(event: PointerEvent) {
    if (held === null) return;
    const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
    const to = Math.round((event.clientX - box.left) / width);
    if (to !== held) put(movedBorder(borders, held, to));
    held = null;
  }
</script>

<div class="scroll borders" {@attach region('Borders of the cells')}>
  <!-- svelte-ignore a11y_no_static_element_interactions -->
  <div class="text m" style="width: {longest * width}px" onpointerup={onDrop}>
    <span class="probe" bind:clientWidth={() => 80, (w) => (width = w / 10)}>0000000000</span>
    <div class="ruler">
      {#each { length: Math.ceil(longest / 10) }, i (i)}
        <button
          class="tick"
          style="left: {i * 10 * width}px; width: {10 * width}px"
          aria-label={`Set or take a border between ${i * 10 + 1} and ${i * 10 + 10}`}
          onclick={(e) => {
            const within = Math.round(e.offsetX / width);
            put(toggledBorder(borders, i * 10 + Math.max(1, within)));
          }}>{i * 10 + 1}</button
        >
      {/each}
    </div>
    {#each text as line, i (i)}<pre>{line}</pre>{/each}
    {#each borders as border (border)}
      <button
        class="edge"
        class:held={held === border}
        style="left: {border * width - 4}px"
        aria-label={`Border before character ${border + 1}`}
        onpointerdown={() => (held = border)}
        onkeydown={(e) => onKey(e, border)}
        ondblclick={() => put(borders.filter((b) => b !== border))}
      ></button>
    {/each}
  </div>
</div>

<style>
  .borders {
    flex: none;
    max-height: 122px;
    padding: 0 12px;
    border-bottom: 1px solid var(--rule);
    background: var(--sheet);
  }
  .text {
    position: relative;
    letter-spacing: 0;
    padding-bottom: 4px;
  }
  .probe {
    position: absolute;
    visibility: hidden;
  }
  .ruler {
    height: 24px;
    position: relative;
    color: var(--ink-3);
  }
  .tick {
    position: absolute;
    text-align: left;
    border-left: 1px solid var(--rule);
    padding-left: 3px;
    cursor: copy;
    color: inherit;
    height: 24px;
  }
  pre {
    font: inherit;
    line-height: 20px;
    margin: 0;
    white-space: pre;
  }
  .edge {
    position: absolute;
    top: 24px;
    bottom: 0;
    width: 9px;
    cursor: ew-resize;
    background: linear-gradient(
      to right,
      transparent 3px,
      var(--ink) 3px,
      var(--ink) 5px,
      transparent 5px
    );
  }
  .edge.held,
  .edge:hover {
    background: linear-gradient(
      to right,
      transparent 2px,
      var(--zest-edge) 2px,
      var(--zest-edge) 7px,
      transparent 7px
    );
  }
</style>
