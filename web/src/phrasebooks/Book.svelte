<script lang="ts">
  // One phrasebook: its phrases, where it is used, and its way in and out as CSV.
  import { untrack } from 'svelte';
  import { api, got } from '../api/client';
  import type { BookUse, BookView } from '../api/types';
  import { region } from '../ui/region';
  import { tell } from '../ui/toaster';
  import { count, many, when } from '../ui/words';

  interface Props {
    id: number;
    changed: () => Promise<void>;
    gone: () => Promise<void>;
  }
  let { id, changed, gone }: Props = $props();

  let view = $state.raw<BookView | null>(null);
  let uses = $state.raw<BookUse[]>([]);
  let values = $state.raw<string[]>([]);
  let search = $state('');
  let from = $state('');
  let to = $state('');
  let sure = $state(false);
  let said = $state('');
  let word = $state<HTMLInputElement>();
  const path = $derived({ id });
  const phrases = $derived(
    (view?.phrases ?? []).filter((p) =>
      `${p.from} ${p.to ?? ''}`.toLowerCase().includes(search.toLowerCase()),
    ),
  );

  $effect(() => {
    void id;
    untrack(() => void load());
  });

  async function load() {
    try {
      view = await got(api.GET('/api/phrasebooks/{id}', { params: { path } }));
      const query = { book: view.book.name };
      uses = await got(api.GET('/api/phrasebook-uses', { params: { query } }));
      await offer();
    } catch (error) {
      tell(error);
    }
  }

  /** The application's values that translations may be. */
  async function offer() {
    const about = view?.book;
    if (!about?.connection || !about.table || !about.field) return;
    const table = await got(
      api.GET('/api/connections/{name}/tables/{table}', {
        params: { path: { name: about.connection, table: about.table } },
      }),
    );
    const field = table.fields.find((f) => f.name === about.field);
    if (field?.choices) {
      values = field.choices;
      return;
    }
    const page = await got(
      api.GET('/api/connections/{connection}/tables/{table}/records', {
        params: {
          path: { connection: about.connection, table: about.table },
          query: { limit: 500 },
        },
      }),
    );
    const at = page.fields.indexOf(about.field);
    values = page.records.flatMap((r) => r.values[at] ?? []);
  }

  async function put(phrase: { from: string; to?: string }) {
    try {
      view = await got(
        api.PUT('/api/phrasebooks/{id}/phrases', { params: { path }, body: phrase }),
      );
      await changed();
    } catch (error) {
      tell(error);
    }
  }

  async function add(event: SubmitEvent) {
    event.preventDefault();
    await put({ from, to: to || undefined });
    from = to = '';
    word?.focus();
  }

  async function forget(old: string) {
    try {
      view = await got(
        api.DELETE('/api/phrasebooks/{id}/phrases', {
          params: { path, query: { word: old } },
        }),
      );
      await changed();
    } catch (error) {
      tell(error);
    }
  }

  async function takeIn(file: File | undefined) {
    if (!file) return;
    try {
      const taken = await got(
        api.POST('/api/phrasebooks/{id}/csv', {
          params: { path },
          body: { text: await file.text() },
        }),
      );
      said = `${many(taken.phrases, 'phrase')} taken in from ${file.name}`;
      await load();
      await changed();
    } catch (error) {
      tell(error);
    }
  }

  async function drop() {
    try {
      await api.DELETE('/api/phrasebooks/{id}', { params: { path } });
      await gone();
    } catch (error) {
      tell(error);
    }
  }
</script>

{#if view}
  {@const about = view.book}
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
          bind:value={search}
        />
        <a class="button small" href="/api/phrasebooks/{id}/csv" download>Take out as CSV</a>
        <label class="button small file"
          >Take in CSV<input
            type="file"
            accept=".csv,.txt,.tsv,text/csv"
            onchange={(e) => void takeIn(e.currentTarget.files?.[0])}
          /></label
        >
      </span>
    </div>
    {#if said}<p class="message mild" role="status">{said}</p>{/if}
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
      {#each values as value (value)}<option {value}></option>{/each}
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
          {#each phrases as phrase (phrase.from)}
            {@const odd =
              phrase.to && values.length && values.length < 500 && !values.includes(phrase.to)}
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
                    void put({ from: phrase.from, to: e.currentTarget.value || undefined })}
                /></td
              >
              <td class="r">{phrase.used ? count(phrase.used) : ''}</td>
              <td class="t">{phrase.lastUsed ? when(phrase.lastUsed) : ''}</td>
              <td class="t q2">{phrase.learntBy}, {when(phrase.learntAt)}</td>
              <td class="t"
                ><button
                  class="go"
                  aria-label="Forget {phrase.from}"
                  onclick={() => void forget(phrase.from)}>Forget</button
                ></td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <div class="foot q2">
      {#if uses.length}
        <b>Used by</b>
        {#each uses as use (`${use.plan}|${use.field}`)}
          <a class="go" href="/plans/{use.plan}/fill">{use.name}</a>
          <span>for <span class="m">{use.table}.{use.field}</span></span>
        {/each}
      {:else}
        No Plan uses it.
        {#if sure}
          <button class="button small" onclick={() => void drop()}>Yes, remove it</button>
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
