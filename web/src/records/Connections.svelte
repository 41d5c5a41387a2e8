<script lang="ts">
  import { onMount } from 'svelte';
  import { api, got } from '../api/client';
  import type { Connection } from '../api/types';
  import { tell } from '../ui/toaster';
  import { many } from '../ui/words';
  import { region } from '../ui/region';
  import RemovalDialog from '../ui/RemovalDialog.svelte';
  import { Removal } from '../ui/removal.svelte';
  import { KINDS, takeApart, told } from './address';
  import { ConnectionForm } from './connection.svelte';
  import ConnectionFields from './ConnectionFields.svelte';

  let connections = $state.raw<Connection[] | null>(null);
  let form = $state.raw(new ConnectionForm());

  async function load() {
    try {
      connections = await got(api.GET('/api/connections'));
    } catch (error) {
      tell(error);
    }
  }
  onMount(load);

  let removal = $state.raw<Removal | null>(null);

  function ask(connection: Connection) {
    removal = new Removal('connection', connection.name, connection.shownName, () => {
      removal = null;
      form = new ConnectionForm();
      void load();
    });
    void removal.ask();
  }

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    if (await form.keep()) {
      form = new ConnectionForm();
      await load();
    }
  }

  function kind(connection: Connection): string {
    const parts = takeApart(connection.url);
    return parts ? KINDS[parts.kind].label : '';
  }
</script>

<div class="pagehead">
  <h1>Connections</h1>
  <span class="q2"
    >databases of your applications{connections
      ? `, ${many(connections.length, 'connection')}`
      : ''}</span
  >
</div>
<div class="body">
  <div class="scroll list" {@attach region('Connections')}>
    <table class="g">
      <colgroup
        ><col style:width="24%" /><col style:width="13%" /><col style:width="84px" /><col /><col
          style:width="12%"
        /><col style:width="116px" /></colgroup
      >
      <thead
        ><tr
          ><th>Application</th><th>Name</th><th>Kind</th><th>Database</th><th>User</th><th></th></tr
        ></thead
      >
      <tbody>
        {#each connections ?? [] as c (c.name)}
          <tr class:at={form.changes?.name === c.name}
            ><td class="t"><a class="go" href="/records/{c.name}/"><b>{c.shownName}</b></a></td><td
              >{c.name}</td
            ><td class="t">{kind(c)}</td><td title={c.url}
              >{told(c.url)}{#if c.settings.readOnly}<span class="q">, only for reading</span
                >{/if}</td
            ><td>{c.user}</td><td class="t deeds"
              ><button class="go" onclick={() => (form = new ConnectionForm(c))}>Change</button>
              <button class="go" onclick={() => ask(c)}>Delete</button></td
            ></tr
          >
        {/each}
      </tbody>
    </table>
  </div>
  <form onsubmit={keep} aria-label={form.changes ? 'Change a connection' : 'Add a connection'}>
    <h2>{form.changes ? `Change ${form.changes.shownName}` : 'Add a connection'}</h2>
    <label
      ><span>Application</span><input
        class="entry"
        required
        maxlength="80"
        bind:value={form.shownName}
        placeholder="Quillhaven Marina"
      /></label
    >
    {#if !form.changes}
      <label
        ><span>Name</span><input
          class="entry"
          required
          pattern="[a-z0-9\-]{'{'}1,40}"
          bind:value={form.name}
          placeholder="marina"
          title="What plans call it: small letters, digits and hyphens"
        /></label
      >
    {/if}
    <ConnectionFields {form} />
    <div class="deeds">
      <button class="button" type="button" disabled={form.busy} onclick={() => form.try()}
        >Try</button
      >
      <button class="button main" disabled={form.busy}>Try and keep</button>
      {#if form.changes}
        <button class="go" type="button" onclick={() => (form = new ConnectionForm())}
          >Leave as it was</button
        >
      {/if}
    </div>
    {#if form.refusal}<p class="message" role="alert">{form.refusal}</p>{/if}
    {#if form.tried}<p class="message good" role="status">{form.tried}</p>{/if}
    <p class="q2">
      {form.changes ? 'Plans that name it go on with the changed one. ' : ''}Nothing is kept that
      does not answer. The password is kept encrypted and never shown.
    </p>
  </form>
</div>
<RemovalDialog bind:removal />

<style>
  .list {
    flex: 1;
  }
  .at td {
    background: var(--zest-w, var(--paper));
  }
  .deeds {
    display: flex;
    gap: 12px;
    align-items: center;
  }
  td.deeds {
    display: table-cell;
  }
  td.deeds button + button {
    margin-left: 10px;
  }
  .message.good {
    border-color: var(--new);
    background: none;
  }
  form {
    width: clamp(338px, 31vw, 400px);
    border-left: 1px solid var(--ink);
    padding: 12px 16px;
    display: grid;
    gap: 9px;
    align-content: start;
    justify-items: start;
    overflow-y: auto;
  }
  label {
    display: grid;
    grid-template-columns: 78px 1fr;
    width: 100%;
    align-items: center;
  }
</style>
