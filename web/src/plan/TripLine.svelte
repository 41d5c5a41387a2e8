<script lang="ts">
  import Slip from '../ui/Slip.svelte';
  import { capital } from '../ui/words';
  import type { OpenPlan } from './plan.svelte';
  import { standing, STOPS, type Stop } from './trip';

  let { open, stop, goTo }: { open: OpenPlan; stop: Stop; goTo: (to: Stop) => void } = $props();
</script>

<nav class="trip" aria-label="Stops of the plan">
  {#each STOPS as name (name)}
    {@const state = standing(open, name)}
    <a
      class="stop"
      class:open={state.open}
      class:on={name === stop}
      href="/plans/{open.view.id}/{name}"
      aria-current={name === stop ? 'step' : undefined}
      onclick={(e) => {
        e.preventDefault();
        goTo(name);
      }}
    >
      <b>{capital(name)}</b>
      <small class="o {state.tone}" aria-live="polite">
        {#if state.tone}<Slip of={state.tone} />{/if}<span>{state.words}</span>
      </small>
    </a>
  {/each}
</nav>

<style>
  .trip {
    display: flex;
    margin-top: 10px;
    height: 43px;
  }
  .stop {
    flex: 1;
    position: relative;
    padding: 17px 12px 0 0;
    white-space: nowrap;
    display: flex;
    gap: 9px;
    align-items: baseline;
    min-width: 0;
  }
  .stop::before {
    content: '';
    position: absolute;
    top: 8px;
    left: 0;
    right: 0;
    height: 1px;
    background: var(--rule-firm);
  }
  .stop:last-child::before {
    right: auto;
    width: 0;
  }
  .stop:last-child {
    flex: 0 0 206px;
  }
  .stop::after {
    content: '';
    position: absolute;
    top: 4px;
    left: 0;
    width: 9px;
    height: 9px;
    background: var(--ink);
  }
  .stop.open::after {
    background: var(--paper);
    border: 1.5px solid var(--ink);
  }
  .stop b {
    font-size: 15px;
    letter-spacing: -0.01em;
    font-weight: 620;
  }
  .stop small {
    font-size: 13px;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .stop small span {
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .stop small:not(.rejected, .waiting) {
    color: var(--ink-2);
  }
  .stop.on::after {
    background: var(--zest);
    border: 1.5px solid var(--ink);
    width: 13px;
    height: 13px;
    top: 2px;
  }
  .stop.on b {
    background: linear-gradient(transparent 12%, var(--zest) 12% 92%, transparent 92%);
    padding: 0 6px;
    margin-left: -2px;
    font-weight: 720;
    color: var(--on-zest);
  }
  /* the words of the stop in hand only; the others have their signs */
  @media (max-width: 900px) {
    .stop:not(.on) small:not(.rejected, .waiting),
    .stop:not(.on) small span {
      display: none;
    }
  }
  /* each as wide as its words need */
  @media (max-width: 1100px) {
    .stop,
    .stop:last-child {
      flex: 1 1 auto;
      padding-right: 10px;
    }
  }
</style>
