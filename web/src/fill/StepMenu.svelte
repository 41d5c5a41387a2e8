<script lang="ts">
  // Steps to add, those that free most troubled rows first; moving through them tries each at once.
  import { onMount } from 'svelte';
  import { SvelteMap } from 'svelte/reactivity';
  import type { Step, StepHelp, Trial } from '../api/types';
  import { many } from '../ui/words';

  interface Props {
    kinds: StepHelp[];
    /** Null while they are being tried. */
    trials: Trial[] | null;
    tryStep: (step: Step, at: number) => void;
    keep: () => void;
    leave: () => void;
  }
  let { kinds, trials, tryStep, keep, leave }: Props = $props();

  let at = $state(-1);
  let search = $state('');
  let box = $state<HTMLElement>();
  let finder = $state<HTMLInputElement>();

  const help = $derived(new SvelteMap(kinds.map((k) => [k.kind, k])));
  const found = $derived.by(() => {
    const words = search.toLowerCase().split(/\s+/).filter(Boolean);
    return (trials ?? []).filter((t) => {
      const kind = help.get(t.step.kind);
      const text = `${kind?.title} ${kind?.help} ${kind?.group}`.toLowerCase();
      return words.every((w) => text.includes(w));
    });
  });

  onMount(() => finder?.focus());

  function move(to: number) {
    if (!found.length) return;
    at = (to + found.length) % found.length;
    const trial = found[at]!;
    tryStep(trial.step, trial.at);
    box?.querySelectorAll('.kind')[at]?.scrollIntoView({ block: 'nearest' });
  }

  function onkeydown(event: KeyboardEvent) {
    if (event.key === 'ArrowDown') move(at + 1);
    else if (event.key === 'ArrowUp') move(at - 1);
    else if (event.key === 'Enter' && at >= 0) keep();
    else if (event.key === 'Escape') leave();
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** What a step does to a value, or what it is for. */
  function shows(trial: Trial): string {
    return trial.before === undefined
      ? (help.get(trial.step.kind)?.help ?? '')
      : `${trial.before.trim()} gives ${trial.after ?? 'nothing'}`;
  }
</script>

<div class="menu" role="presentation" {onkeydown}>
  <div class="say">
    <input
      class="entry"
      placeholder="find a step"
      aria-label="Find a step"
      role="combobox"
      aria-expanded="true"
      aria-controls="steps"
      aria-activedescendant={at >= 0 ? `step-${at}` : undefined}
      bind:this={finder}
      bind:value={search}
      oninput={() => (at = -1)}
    />
    <span class="q">{trials ? `${many(found.length, 'step')}, best first` : 'trying…'}</span>
  </div>
  <div class="list" id="steps" role="listbox" aria-label="Steps to add" bind:this={box}>
    {#each found as trial, i (trial.step.kind)}
      <div
        class="kind"
        class:on={i === at}
        id="step-{i}"
        role="option"
        tabindex="-1"
        aria-selected={i === at}
        data-kind={trial.step.kind}
        onclick={() => (i === at ? keep() : move(i))}
        onkeydown={() => {}}
      >
        <b>{help.get(trial.step.kind)?.title}</b>
        <span class="what q2" class:m={trial.before !== undefined}>{shows(trial)}</span>
        {#if trial.frees > 0}
          <span class="frees"
            >frees {many(trial.frees, 'row')}{trial.doubtful ? ', doubtful' : ''}{trial.breaks
              ? `, breaks ${many(trial.breaks, 'row')}`
              : ''}</span
          >
        {:else if trial.breaks > 0}<span class="frees q">breaks {many(trial.breaks, 'row')}</span>
        {/if}
      </div>
    {:else}
      {#if trials}<p class="none q">No step is called so.</p>{/if}
    {/each}
  </div>
</div>

<style>
  .menu {
    position: absolute;
    right: 12px;
    top: 44px;
    width: 350px;
    max-height: 350px;
    display: flex;
    flex-direction: column;
    background: var(--sheet);
    border: 1px solid var(--ink);
    box-shadow: 3px 3px 0 var(--rule);
    z-index: 5;
  }
  .say {
    padding: 5px 8px;
    border-bottom: 1px solid var(--rule);
    display: flex;
    gap: 8px;
    align-items: center;
    justify-content: space-between;
  }
  .say input {
    width: 150px;
    height: 25px;
  }
  .list {
    overflow: auto;
  }
  .kind {
    padding: 4px 10px 5px;
    cursor: pointer;
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    column-gap: 10px;
    border-top: 1px solid var(--rule-soft);
    line-height: 19px;
  }
  .kind:first-child {
    border-top: 0;
  }
  .what {
    grid-column: 1;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .what.m {
    font-size: 13px;
  }
  .frees {
    grid-column: 2;
    grid-row: 1 / 3;
    align-self: center;
    max-width: 130px;
    text-align: right;
    color: var(--ink-2);
  }
  .kind.on {
    background: var(--zest-lit);
    box-shadow: inset 4px 0 0 var(--zest-edge);
  }
  .none {
    padding: 8px 10px;
  }
</style>
