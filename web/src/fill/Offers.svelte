<script lang="ts">
  // The columns that could feed a field: Enter takes the first, a click or its letter any.
  import { untrack } from 'svelte';
  import type { FieldInfo } from '../api/types';
  import AddTable from '../plan/AddTable.svelte';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { above } from '../plan/tables';
  import { useKeys } from '../ui/keys.svelte';
  import { count, many } from '../ui/words';
  import { Offers } from './offers.svelte';

  interface Props {
    open: OpenPlan;
    field: FieldInfo;
    /** True if each can be taken by its letter. */
    letters: boolean;
    /** One was taken, or none is wanted. */
    done: () => void;
  }
  let { open, field, letters, done }: Props = $props();

  // there is one of this for each field
  const offers = untrack(() => new Offers(open, field.name));
  const all = $derived(offers.all);
  /** A table of the plan whose record the field may take, made of the same row. */
  const owner = $derived(
    above(open.plan.destinations, open.view.shown, open.view.table.fields).find(
      (to) => to.field === field.name,
    ),
  );
  let adding = $state(false);

  $effect(() => {
    void open.view.source.reading;
    untrack(() => void offers.load());
  });

  function take(index: number) {
    offers.take(index);
    done();
  }

  const letter = (i: number) => String.fromCharCode(97 + i);

  useKeys(() =>
    all?.length
      ? [
          { keys: ['Enter'], say: 'take the first column', act: () => take(0) },
          ...(letters
            ? [
                { keys: ['Escape'], say: '', act: done },
                ...all.map((_, i) => ({ keys: [letter(i)], say: '', act: () => take(i) })),
              ]
            : []),
        ]
      : [],
  );
</script>

{#if all?.length}
  <h3>Columns that could fill it</h3>
  <ol class="offers">
    {#each all as offer, i (offer.column)}
      <li>
        <button class="offer" class:on={i === 0} onclick={() => take(i)}>
          {#if letters}<kbd>{letter(i).toUpperCase()}</kbd>{:else}<span
              >{#if i === 0}<kbd>↵</kbd>{/if}</span
            >{/if}
          <span class="what" title={offer.because}
            ><span class="col">{offer.column}</span> <span class="q2">{offer.because}</span></span
          >
          <span class="m q samples">{offer.samples.join(' · ')}</span>
          <span class="pass" class:few={offer.passes * 2 < offer.rows}
            >{#if offer.passes === offer.rows}all {many(offer.rows, 'row')} pass{:else}{count(
                offer.passes,
              )} of {count(offer.rows)} rows pass{/if}</span
          >
        </button>
      </li>
    {/each}
  </ol>
{:else if all}
  <p class="nothing q2">No column of the file holds values that it can take.</p>
  {#if field.link}
    <p class="nothing q2">
      {#if owner}
        <button class="go" onclick={() => void open.putUnder(owner)}
          >It is the <span class="m">{owner.name}</span> of the same row</button
        >
      {:else}
        Where rows say all of <span class="m">{field.link.table}</span>, they can make its records
        too:
        <button class="go" onclick={() => (adding = true)}>another table…</button>
      {/if}
    </p>
  {/if}
{/if}
{#if adding}<AddTable {open} bind:shown={adding} />{/if}

<style>
  h3 {
    padding: 2px 16px 4px;
    font-weight: 600;
  }
  .offers {
    list-style: none;
    margin: 0 12px 12px;
    padding: 0;
    border: 1px solid var(--rule);
    background: var(--sheet);
  }
  li + li {
    border-top: 1px solid var(--rule);
  }
  .offer {
    display: grid;
    grid-template-columns: 22px minmax(0, 1.5fr) minmax(0, 1fr) auto;
    gap: 10px;
    align-items: center;
    width: 100%;
    padding: 3px 10px;
    text-align: left;
    line-height: 20px;
  }
  .offer.on,
  .offer:hover {
    background: var(--zest-lit);
  }
  .what,
  .samples {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .pass {
    white-space: nowrap;
  }
  .few {
    color: var(--ink-2);
  }
  .nothing {
    padding: 0 16px 12px;
  }
</style>
