<script lang="ts">
  import { untrack } from 'svelte';
  import { api, ApiError, got } from '../api/client';
  import type { MatchClasses } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import Bar from '../ui/Bar.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import { tell } from '../ui/toaster';
  import { count } from '../ui/words';
  import ClassLines from './ClassLines.svelte';
  import KeyEditor from './KeyEditor.svelte';
  import type { MatchClass } from './keys';
  import Pairs from './Pairs.svelte';

  let { open }: { open: OpenPlan } = $props();

  let classes = $state.raw<MatchClasses | null>(null);
  let refusal = $state('');
  let busy = $state(false);
  let at = $state(0);
  const of = $derived(open.matchClass);
  const told = $derived(open.told);

  // anew after each save, and for another class
  $effect(() => {
    void open.view;
    void of;
    untrack(() => void load());
  });

  let asked = 0;
  async function load() {
    const mine = ++asked;
    busy = true;
    try {
      const path = { id: open.view.id };
      const answer = await got(
        api.GET('/api/plans/{id}/match', {
          params: { path, query: { ...open.into, pairs: 60, of } },
        }),
      );
      if (mine === asked) {
        classes = answer;
        refusal = '';
        at = Math.min(at, Math.max(0, answer.pairs.length - 1));
      }
    } catch (error) {
      if (error instanceof ApiError && error.status === 422) refusal = error.message;
      else tell(error);
    } finally {
      if (mine === asked) busy = false;
    }
  }

  const parts = $derived(
    classes
      ? [
          { name: 'one', rows: classes.one },
          { name: 'none', rows: classes.none },
          { name: 'several', rows: classes.several + classes.similar },
          { name: 'repeats', rows: classes.repeats },
          { name: 'rejected', rows: classes.troubled + classes.decided },
        ]
      : [],
  );

  function choose(next: MatchClass) {
    if (next !== of) at = 0;
    open.matchClass = next;
  }
  const ALWAYS: MatchClass[] = ['one', 'none', 'several', 'repeats'];
  const ORDER: MatchClass[] = [
    'one',
    'none',
    'several',
    'similar',
    'repeats',
    'decided',
    'troubled',
  ];
  function walk(by: number) {
    const there = ORDER.filter((c) => ALWAYS.includes(c) || (classes?.[c] ?? 0) > 0);
    const to = there.indexOf(of) + by;
    if (there[to]) choose(there[to]);
  }
  function move(by: number) {
    at = Math.max(0, Math.min((classes?.pairs.length ?? 1) - 1, at + by));
  }

  useKeys(() => [
    { keys: ['j'], say: '', act: () => move(1) },
    { keys: ['k'], say: '', act: () => move(-1) },
    { keys: ['j', 'k'], say: 'pair' },
    { keys: [']'], say: '', act: () => walk(1) },
    { keys: ['['], say: '', act: () => walk(-1) },
    { keys: ['[', ']'], say: 'class' },
  ]);
</script>

<div class="body">
  <KeyEditor {open} {classes} {busy} />
  <section class="right">
    {#if refusal}
      <p class="message mild">{refusal}</p>
    {:else if classes}
      <div class="classes" class:busy>
        <div class="figures">
          <span><b>{count(classes.one)}</b> match one record</span>
          <span><b>{count(classes.none)}</b> match none</span>
          <span class="r"
            ><b>{count(classes.several)}</b> several, {#if classes.similar}<b
                >{count(classes.similar)}</b
              >
              much alike,&#32;{/if}<b>{count(classes.repeats)}</b> repeats,
            <b>{count(classes.troubled)}</b> troubled</span
          >
        </div>
        <Bar
          {parts}
          label="{classes.one} match one record, {classes.none} none, {classes.several} several"
        />
        <div class="q under">
          <span
            >{count(told.rows)}
            {told.rows === open.view.source.rows ? 'rows read' : 'go there'}</span
          >
          <span>figures are live: they follow the keys as you edit them</span>
        </div>
      </div>
      <ClassLines {open} {classes} {of} {choose} />
      {#if classes.of === of}<Pairs {open} {classes} {at} {move} />{/if}
    {:else}
      <p class="q" style:padding="14px 16px">Looking for the records…</p>
    {/if}
  </section>
</div>

<style>
  .right {
    flex: 1;
    min-width: 0;
    display: flex;
    flex-direction: column;
  }
  .classes {
    padding: 10px 16px 6px;
  }
  .classes.busy {
    opacity: 0.6;
  }
  .figures,
  .under {
    display: flex;
    justify-content: space-between;
    gap: 10px;
    padding-bottom: 4px;
  }
  .under {
    padding: 4px 0 0;
  }
</style>
