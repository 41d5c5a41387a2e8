<script lang="ts">
  // The classes of rows: how many, what becomes of them, and which of them the pairs show.
  import type { MatchClasses, Policies } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import Outcome from '../ui/Outcome.svelte';
  import Pick from '../ui/Pick.svelte';
  import { count } from '../ui/words';
  import { isNear, type MatchClass } from './keys';

  interface Props {
    open: OpenPlan;
    classes: MatchClasses;
    of: MatchClass;
    choose: (of: MatchClass) => void;
  }
  let { open, classes, of, choose }: Props = $props();

  const policies = $derived(open.destination.policies);
  const sized = $derived(
    open.view.table.fields.filter((f) => ['date', 'datetime', 'whole', 'decimal'].includes(f.type)),
  );

  function put(change: Partial<Policies>) {
    open.editDestination((d) => ({ ...d, policies: { ...d.policies, ...change } }));
  }
  function onSeveral(to: Policies['onSeveral']) {
    const date = sized.find((f) => f.type === 'date' || f.type === 'datetime') ?? sized[0];
    put({
      onSeveral: to,
      latestBy: to === 'latest' ? (policies.latestBy ?? date?.name) : policies.latestBy,
    });
  }
  function share(rows: number) {
    return `${((100 * rows) / Math.max(1, open.told.rows)).toFixed(1)}%`;
  }
</script>

{#snippet head(name: MatchClass, words: string)}
  <button class="class" aria-pressed={of === name} onclick={() => choose(name)}>
    <b class="r">{count(classes[name])}</b><span>{words}</span><span class="q r share"
      >{share(classes[name])}</span
    >
  </button>
{/snippet}

<div class="lines">
  <div class="line" class:on={of === 'one'}>
    {@render head('one', 'match one record')}
    <Pick
      label="Rows that match one record"
      value={policies.onMatch}
      pick={(onMatch) => put({ onMatch })}
      options={[
        { value: 'update', text: 'Update' },
        { value: 'fill-blanks', text: 'Fill blanks', hint: 'only fields that are blank so far' },
        { value: 'skip', text: 'Skip' },
        { value: 'reject', text: 'Reject' },
        { value: 'ask', text: 'Ask' },
      ]}
    />
    <span class="become">
      {#if policies.onMatch === 'update' || policies.onMatch === 'fill-blanks'}<Outcome
          of="changed"
        /> or <Outcome of="unchanged" />
      {:else if policies.onMatch === 'ask'}<Outcome of="rejected" waiting />
      {:else}<Outcome of={policies.onMatch === 'skip' ? 'skipped' : 'rejected'} />{/if}
    </span>
  </div>
  <div class="line" class:on={of === 'none'}>
    {@render head('none', 'match none')}
    <Pick
      label="Rows that match no record"
      value={policies.onNone}
      pick={(onNone) => put({ onNone })}
      options={[
        { value: 'add', text: 'Add' },
        { value: 'skip', text: 'Skip' },
        { value: 'reject', text: 'Reject' },
        { value: 'ask', text: 'Ask' },
      ]}
    />
    <span class="become"
      ><Outcome
        of={({ add: 'new', skip: 'skipped', reject: 'rejected', ask: 'rejected' } as const)[
          policies.onNone
        ]}
        waiting={policies.onNone === 'ask'}
      /></span
    >
  </div>
  <div class="line" class:on={of === 'several'}>
    {@render head('several', 'match several')}
    <Pick
      label="Rows that match several records"
      value={policies.onSeveral}
      pick={onSeveral}
      options={[
        { value: 'ask', text: 'Ask' },
        { value: 'latest', text: 'Take the latest' },
        { value: 'skip', text: 'Skip' },
        { value: 'reject', text: 'Reject' },
      ]}
    />
    <span class="become">
      {#if policies.onSeveral === 'latest'}by
        <select
          class="ed m"
          aria-label="Field that tells the latest"
          value={policies.latestBy ?? ''}
          onchange={(e) => put({ latestBy: e.currentTarget.value })}
        >
          {#each sized as field (field.name)}<option value={field.name}>{field.name}</option>{/each}
        </select>
      {:else}<Outcome
          of={policies.onSeveral === 'skip' ? 'skipped' : 'rejected'}
          waiting={policies.onSeveral === 'ask'}
        />{/if}
    </span>
  </div>
  {#if classes.similar || open.destination.keys.some(isNear)}
    <div class="line" class:on={of === 'similar'}>
      {@render head('similar', 'much like another')}
      <span class="q2">asked, never taken by itself</span>
      <span class="become"><Outcome of="rejected" waiting /></span>
    </div>
  {/if}
  <div class="line" class:on={of === 'repeats'}>
    {@render head('repeats', 'repeat in the file')}
    <Pick
      label="Rows that repeat inside the file"
      value={policies.onRepeat}
      pick={(onRepeat) => put({ onRepeat })}
      options={[
        { value: 'keep-last', text: 'Keep last' },
        { value: 'keep-first', text: 'Keep first' },
        {
          value: 'merge',
          text: 'Merge',
          hint: 'one record of them all: each field takes the first value that is not blank',
        },
        { value: 'reject', text: 'Reject all' },
        {
          value: 'ask',
          text: 'Ask',
          hint: 'where they say different things; where they say the same they are one',
        },
      ]}
    />
    <span class="become"
      >{{ 'keep-last': 'earlier', 'keep-first': 'later', merge: 'earlier', reject: 'all', ask: '' }[
        policies.onRepeat
      ]}
      <Outcome
        of={policies.onRepeat === 'reject' ? 'rejected' : 'skipped'}
      />{#if policies.onRepeat === 'ask'}&ensp;or <Outcome of="rejected" waiting />{/if}</span
    >
  </div>
  {#if classes.decided}
    <div class="line" class:on={of === 'decided'}>
      {@render head('decided', 'left out by hand')}
      <span class="q2">as decided, one by one</span>
    </div>
  {/if}
  {#if classes.troubled}
    <div class="line" class:on={of === 'troubled'}>
      {@render head('troubled', 'troubled')}
      <span class="q2">a value can’t be taken, so they are not looked for</span>
    </div>
  {/if}
</div>

<style>
  .lines {
    border-top: 1px solid var(--ink);
    border-bottom: 1px solid var(--ink);
    flex: none;
    container-type: inline-size;
  }
  .line {
    display: grid;
    grid-template-columns: 250px minmax(0, auto) 1fr;
    gap: 12px;
    align-items: center;
    padding: 3px 16px;
    border-top: 1px solid var(--rule);
  }
  .line:first-child {
    border-top: 0;
  }
  .line.on {
    background: var(--sheet);
    box-shadow: inset 4px 0 0 var(--zest-edge);
  }
  .class {
    display: grid;
    grid-template-columns: 48px 1fr 50px;
    gap: 10px;
    text-align: left;
    cursor: pointer;
    line-height: 26px;
  }
  .line :global(.pick) {
    justify-self: start;
  }
  .become {
    display: inline-flex;
    gap: 6px;
    align-items: center;
    justify-self: end;
    color: var(--ink-2);
  }
  @container (width < 740px) {
    .line {
      grid-template-columns: 190px minmax(0, auto) 1fr;
    }
    .class {
      grid-template-columns: 40px 1fr;
    }
    .share,
    .become:not(:has(select)) {
      display: none;
    }
  }
</style>
