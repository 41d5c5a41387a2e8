<script lang="ts">
  // How the columns of this file differ from those that the plan was made with, and what follows.
  import type { OpenPlan } from '../plan/plan.svelte';
  import { useKeys } from '../ui/keys.svelte';
  import Slip from '../ui/Slip.svelte';
  import { count, many } from '../ui/words';
  import { changeWords, toggled, withChanges } from './reading';

  interface Props {
    open: OpenPlan;
    /** False where it stands below a heading that has said it. */
    headed?: boolean;
    /** Is called once they are taken. */
    then?: () => void;
    /** The letter that takes them; none if keys mean something else here. */
    letter?: string;
  }
  let { open, headed = true, then, letter }: Props = $props();

  const source = $derived(open.view.source);
  /** Renamings that the person does not believe. */
  let refused = $state<string[]>([]);
  const taken = $derived(
    source.changes.filter((c) => c.kind !== 'renamed' || !refused.includes(c.now!.name)),
  );

  /** Fields that a column fills. */
  function uses(name: string): string {
    const column = name.toLowerCase();
    const fields = open.destination.fills
      .filter(({ origin }) => {
        const text = (origin.template ?? origin.formula ?? '').toLowerCase();
        return origin.column?.toLowerCase() === column || text.includes(`[${column}]`);
      })
      .map((f) => f.field);
    return fields.length ? `fills ${fields.join(', ')}` : 'fills nothing';
  }

  function take() {
    open.putReading(withChanges(open.plan.reading, taken, source.columns, source.titles));
    then?.();
  }

  useKeys(() =>
    letter
      ? [
          { keys: [letter.toLowerCase()], say: '', act: take },
          { keys: [letter], say: 'answer' },
        ]
      : [],
  );
</script>

{#if headed}
  <span class="o waiting"
    ><Slip of="waiting" /><b>{many(source.changes.length, 'column')} unlike last time</b></span
  >
{/if}
<ul>
  {#each source.changes.slice(0, 12) as change, i (i)}
    {@const words = changeWords(change)}
    <li>
      {#if change.kind === 'renamed'}
        <label
          ><input
            type="checkbox"
            checked={!refused.includes(change.now!.name)}
            onchange={() => (refused = toggled(refused, change.now!.name))}
          /> <b>{words.what}</b></label
        >
      {:else}<b>{words.what}</b>{/if}
      <span class="q2"
        >{words.detail}; {change.before ? uses(change.before.name) : 'offered for fills'}</span
      >
    </li>
  {/each}
</ul>
{#if source.changes.length > 12}<p class="q2">and {count(source.changes.length - 12)} more</p>{/if}
<button class="button small" aria-keyshortcuts={letter} onclick={take}>
  {#if letter}<kbd aria-hidden="true">{letter}</kbd>{/if}
  {taken.some((c) => c.kind === 'renamed')
    ? 'Take the new names, keep the fills'
    : 'Go on with these columns'}
</button>

<style>
  li {
    display: grid;
    margin-bottom: 4px;
  }
</style>
