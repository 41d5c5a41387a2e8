<script lang="ts">
  // One phrasebook: its phrases, where it is used, and its way in and out as CSV.
  import { onMount, untrack } from 'svelte';
  import { region } from '../ui/region';
  import { count, many, when } from '../ui/words';
  import { OpenBook } from './book.svelte';

  interface Props {
    id: number;
    changed: () => Promise<void>;
    gone: () => Promise<void>;
  }
  let { id, changed, gone }: Props = $props();

  // there is one of this for each book
  const book = untrack(() => new OpenBook(id, changed, gone));
  let from = $state('');
  let to = $state('');
  let sure = $state(false);
  let word = $state<HTMLInputElement>();

  onMount(() => void book.load());

  async function add(event: SubmitEvent) {
    event.preventDefault();
    await book.put({ from, to: to || undefined });
    from = to = '';
    word?.focus();
  }
</script>

{#if book.view}
  {@const about = book.view.book}
  <section class="right" aria-label={about.name}>
    <div class="bt">
      <h2>{about.name}</h2>
      <span class="q2"
        >{many(about.phrases, 'phrase')}{#if about.table}, translated to <span class="m"
            >{about.table}.{about.field}</span
          >{/if}</span
      >
      <span class="end">
        <input
          class="entry find"
          placeholder="find"
          aria-label="Find a phrase"
          bind:value={book.search}
        />
        <a class="button small" href="/api/phrasebooks/{id}/csv" download>Take out as CSV</a>
        <label class="button small file"
          >Take in CSV<input
            type="file"
            accept=".csv,.txt,.tsv,text/csv"
            onchange={(e) => void book.takeIn(e.currentTarget.files?.[0])}
          /></label
        >
      </span>
    </div>
    {#if book.said}<p class="message mild" role="status">{book.said}</p>{/if}
    <form class="add" onsubmit={add}>
      <input
        class="entry m"
        required
        maxlength="400"
        placeholder="Ketch rig"
        aria-label="Word in the file"
        bind:this={word}
        bind:value={from}
      />
      <span class="q">means</span>
      <input
        class="entry m"
        list="values"
        maxlength="1000"
        placeholder="nothing"
        aria-label="Value in the application"
        bind:value={to}
      />
      <button class="button small main">Remember</button>
      <span class="q"
        >capitals, accents and spaces don’t matter; left empty, the word means blank</span
      >
    </form>
    <datalist id="values">
      {#each book.values as value (value)}<option {value}></option>{/each}
    </datalist>
    <div class="scroll list" {@attach region('Phrases')}>
      <table class="g">
        <colgroup
          ><col style:width="27%" /><col style:width="27%" /><col style:width="9%" /><col
            style:width="14%"
          /><col /><col style:width="90px" /></colgroup
        >
        <thead
          ><tr
            ><th>The file says</th><th>The application says</th><th class="r">Rows</th><th
              >Last used</th
            ><th>Learnt</th><th></th></tr
          ></thead
        >
        <tbody>
          {#each book.phrases as phrase (phrase.from)}
            {@const odd = book.isOdd(phrase.to)}
            <tr>
              <td>{phrase.from}</td>
              <td
                ><input
                  class="ed m"
                  class:odd
                  list="values"
                  placeholder="blank"
                  title={odd ? `${about.table}.${about.field} has no such value` : undefined}
                  aria-label="{phrase.from} means"
                  value={phrase.to ?? ''}
                  onchange={(e) =>
                    void book.put({ from: phrase.from, to: e.currentTarget.value || undefined })}
                /></td
              >
              <td class="r">{phrase.used ? count(phrase.used) : ''}</td>
              <td class="t">{phrase.lastUsed ? when(phrase.lastUsed) : ''}</td>
              <td class="t q2">{phrase.learntBy}, {when(phrase.learntAt)}</td>
              <td class="t"
                ><button
                  class="go"
                  aria-label="Forget {phrase.from}"
                  onclick={() => void book.forget(phrase.from)}>Forget</button
                ></td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <div class="foot q2">
      {#if book.uses.length}
        <b>Used by</b>
        {#each book.uses as use (`${use.plan}|${use.field}`)}
          <a class="go" href="/plans/{use.plan}/fill">{use.name}</a>
          <span>for <span class="m">{use.table}.{use.field}</span></span>
        {/each}
      {:else}
        No Plan uses it.
        {#if sure}
          <button class="button small" onclick={() => void book.remove()}>Yes, remove it</button>
          <button class="go" onclick={() => (sure = false)}>No</button>
        {:else}
          <button class="go" onclick={() => (sure = true)}>Remove this phrasebook</button>
        {/if}
      {/if}
    </div>
  </section>
{/if}

<style>
  .right {
    flex: 1;
    min-width: 0;
    display: flex;
    flex-direction: column;
  }
  .list {
    flex: 1;
  }
  .find {
    width: 110px;
    height: 25px;
  }
  .add {
    display: flex;
    gap: 8px;
    align-items: center;
    padding: 0 12px 9px;
  }
  .add .entry {
    width: 170px;
    height: 26px;
  }
  .file {
    position: relative;
    overflow: hidden;
    cursor: pointer;
  }
  .file:focus-within {
    outline: 2px solid var(--ink);
  }
  .file input {
    position: absolute;
    inset: 0;
    opacity: 0;
  }
  .ed {
    width: 100%;
    background: transparent;
    color: var(--ink);
  }
  .odd {
    color: var(--ask);
    font-weight: 650;
  }
  .foot {
    border-top: 1px solid var(--rule);
    padding: 7px 16px;
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
  }
</style>
