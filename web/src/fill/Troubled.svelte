<script lang="ts">
  // A failing cell: why it stops, and what mends it.
  import type { FieldInfo, Fill, StageRow, StepHelp, Suggestion, Trial } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import Slip from '../ui/Slip.svelte';
  import { tell } from '../ui/toaster';
  import { learn, suggestions } from './answers';
  import { mending, repairs, type Repair } from './repairs';

  interface Props {
    open: OpenPlan;
    row: StageRow;
    field: FieldInfo;
    fill: Fill;
    span: number;
    put: (fill: Fill) => void;
    trials: Trial[];
    kinds: StepHelp[];
    /** A phrasebook has learnt a word. */
    learnt: (book: string) => void;
  }
  let { open, row, field, fill, span, put, trials, kinds, learnt }: Props = $props();

  let asking = $state.raw<Repair | null>(null);
  let answer = $state('');
  let options = $state.raw<Suggestion[]>([]);
  const problem = $derived(row.trace.problem!);
  const soft = $derived(row.trace.softened);
  const offered = $derived.by(() => {
    if (soft) return [];
    const tried = mending(trials, row, kinds, fill);
    const known = repairs(problem, fill, field, row.trace.stoppedAt, row);
    return [...tried, ...known.filter((k) => !tried.some((t) => t.text === k.text))].slice(
      0,
      span > 1 || fill.steps.length < 3 ? 2 : 1,
    );
  });
  const likely = $derived(options.filter((o) => o.near).slice(0, 2));

  /** What the application knows: its choices, or the linked table's values. */
  async function offer() {
    options = [];
    try {
      options = await suggestions(open, field, fill, problem.value);
      if (!answer && options[0]?.near) answer = options[0].value;
    } catch (error) {
      tell(error);
    }
  }

  function use(repair: Repair, event: Event) {
    event.stopPropagation();
    if (repair.asks) {
      asking = repair;
      answer = repair.begins ?? '';
      void offer();
    } else {
      put(repair.apply(fill, ''));
    }
  }

  async function settle(event: SubmitEvent) {
    event.preventDefault();
    const repair = asking;
    asking = null;
    if (!repair) return;
    const now = open.fill(field.name) ?? fill;
    if (repair.corrects) {
      const column = fill.origin.column ?? '';
      open.correct({ line: row.line, column, was: row.trace.origin ?? '', now: answer });
    } else if (repair.learns) {
      await remember(now);
    } else if (answer) {
      put(repair.apply(now, answer));
    }
  }

  /** Teaches the field's phrasebook the word, and lets the fill use the book. */
  async function remember(now: Fill) {
    try {
      const means = answer || undefined;
      const learned = await learn(open, field, now, problem.value, means, row.trace.stoppedAt);
      if (learned.fill !== now) put(learned.fill);
      learnt(learned.book);
    } catch (error) {
      tell(error);
    }
  }
</script>

<td
  class="t"
  class:bad={!soft && !row.trace.question}
  class:ask={row.trace.question}
  class:soft
  colspan={span}
>
  {#if asking}
    <form class="why" onsubmit={settle} onclick={(e) => e.stopPropagation()} role="presentation">
      {asking.asks}
      <!-- svelte-ignore a11y_autofocus -->
      <input
        class="entry answer"
        list="answers"
        bind:value={answer}
        autofocus
        aria-label={asking.asks}
        onkeydown={(e) => e.key === 'Escape' && (asking = null)}
      />
      <datalist id="answers">
        {#each options as option (option.value)}<option value={option.value}></option>{/each}
      </datalist>
      <button class="button small main">{asking.does ?? 'Use it'}</button>
      {#each likely.filter((o) => o.value !== answer) as option (option.value)}
        <button class="button small" type="button" onclick={() => (answer = option.value)}
          >{option.value}?</button
        >
      {/each}
    </form>
  {:else}
    <div class="why">
      <Slip of={soft ? 'skipped' : row.trace.question ? 'waiting' : 'rejected'} />
      {#if soft && problem.code === 'cut'}<b>Cut:</b>
      {:else if soft && problem.code === 'said-otherwise'}<b>“{problem.value}”:</b>
      {:else if soft}<b
          >{fill.whenBad === 'default' || problem.code === 'defaulted'
            ? `Default ${fill.defaultValue}`
            : 'Left blank'}:</b
        >
      {:else if row.trace.question}<b>What is it?</b>
      {:else if problem.code === 'out-of-range'}<b class="m">{problem.value}</b>
      {:else}<b>Stops here:</b>{/if}
      <span class="reason" title={problem.reason}>{problem.reason}</span>
      {#if soft && row.trace.result}<b class="m">{row.trace.result}</b>{/if}
      <span class="fixes">
        {#each offered as repair (repair.text)}
          <button class="button small fix" title={repair.hint} onclick={(e) => use(repair, e)}
            >{repair.text}</button
          >
        {/each}
      </span>
    </div>
  {/if}
</td>

<style>
  .why {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .reason {
    min-width: 52px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .fixes {
    margin-left: auto;
    display: flex;
    gap: 6px;
  }
  .fix {
    color: var(--ink);
    border-color: var(--rej);
  }
  .ask {
    background: var(--ask-w);
    color: var(--ask) !important;
  }
  .ask .fix {
    border-color: var(--ask);
  }
  .soft {
    color: var(--skip) !important;
  }
  .answer {
    height: 22px;
    width: 150px;
    color: var(--ink);
  }
</style>
