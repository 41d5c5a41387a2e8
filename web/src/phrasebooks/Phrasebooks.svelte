<script lang="ts">
  // Phrasebooks: the source's words on the left, the application's values on the right.
  import { onMount } from 'svelte';
  import { api, got } from '../api/client';
  import type { BookSummary } from '../api/types';
  import { navigate, route } from '../router';
  import { useKeys } from '../ui/keys.svelte';
  import { region } from '../ui/region';
  import { tell } from '../ui/toaster';
  import { count, many, when } from '../ui/words';
  import Book from './Book.svelte';

  let books = $state.raw<BookSummary[] | null>(null);
  let name = $state('');
  let making = $state(false);
  let field = $state<HTMLInputElement>();
  const wanted = $derived(Number(route.pathname.split('/')[2] ?? 0));
  const chosen = $derived(books?.find((b) => b.id === wanted) ?? books?.[0]);

  async function load() {
    try {
      books = await got(api.GET('/api/phrasebooks'));
    } catch (error) {
      tell(error);
    }
  }
  onMount(load);

  async function make(event: SubmitEvent) {
    event.preventDefault();
    try {
      const { id } = await got(api.POST('/api/phrasebooks', { body: { name } }));
      name = '';
      making = false;
      await load();
      void navigate('/phrasebooks/:id', { params: { id: String(id) } });
    } catch (error) {
      tell(error);
    }
  }

  async function gone() {
    await load();
    void navigate('/phrasebooks');
  }

  $effect(() => {
    if (making) field?.focus();
  });

  useKeys(() => [{ keys: ['n'], say: 'new phrasebook', act: () => (making = true) }]);
</script>

<div class="pagehead">
  <h1>Phrasebooks</h1>
  <span class="q2">the words of your files, and what your application calls it</span>
  <span class="end">
    {#if making}
      <form onsubmit={make}>
        <input
          class="entry"
          required
          maxlength="80"
          placeholder="Kinds of vessels"
          aria-label="Name of the phrasebook"
          bind:this={field}
          bind:value={name}
          onkeydown={(e) => e.key === 'Escape' && (making = false)}
        />
        <button class="button main">Make it</button>
      </form>
    {:else}
      <button class="button" onclick={() => (making = true)}>New phrasebook <kbd>N</kbd></button>
    {/if}
  </span>
</div>
<div class="body">
  <section class="books" aria-label="Phrasebooks" {@attach region('Phrasebooks')}>
    {#each books ?? [] as book (book.id)}
      <a
        class="book"
        class:on={book.id === chosen?.id}
        aria-current={book.id === chosen?.id ? 'page' : undefined}
        href="/phrasebooks/{book.id}"
      >
        <b>{book.name}</b>
        <span class="q2"
          >{many(book.phrases, 'phrase')}
          {#if book.table}for <span class="m">{book.table}.{book.field}</span>{/if}</span
        >
        <span class="q"
          >{book.used
            ? `translated ${many(book.used, 'row')}, last ${when(book.lastUsed)}`
            : 'not used in a Run yet'}</span
        >
      </a>
    {:else}
      {#if books}
        <p class="none q2">
          There is none yet. One is made when you answer a question in <b>Fill</b> or at
          <b>Rehearse</b>; or make one here and take in a list of words.
        </p>
      {/if}
    {/each}
  </section>
  {#if chosen}
    {#key chosen.id}
      <Book id={chosen.id} changed={load} {gone} />
    {/key}
  {:else if books}
    <p class="empty q2">
      A phrasebook remembers that “Ketch rig” means <b class="m">ketch</b>, so that nobody is asked
      twice. Plans share it.<br />{count(0)} phrases are remembered.
    </p>
  {/if}
</div>

<style>
  form {
    display: flex;
    gap: 8px;
  }
  .books {
    width: 356px;
    border-right: 1px solid var(--ink);
    overflow: auto;
    flex: none;
  }
  .book {
    display: grid;
    padding: 7px 16px 8px;
    border-bottom: 1px solid var(--rule);
    line-height: 20px;
  }
  .book b {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .book.on {
    background: var(--sheet);
    box-shadow: inset 5px 0 0 var(--zest);
  }
  .none,
  .empty {
    padding: 16px;
    max-width: 520px;
  }
</style>
