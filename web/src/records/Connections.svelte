<script lang="ts">
  import { onMount } from 'svelte';
  import { api, got } from '../api/client';
  import type { Connection } from '../api/types';
  import { tell } from '../ui/toaster';
  import { many } from '../ui/words';
  import { region } from '../ui/region';
  import RemovalDialog from '../ui/RemovalDialog.svelte';
  import { Removal } from '../ui/removal.svelte';

  let connections = $state.raw<Connection[] | null>(null);
  let name = $state('');
  let shownName = $state('');
  let url = $state('jdbc:postgresql://localhost:5432/');
  let user = $state('');
  let password = $state('');
  let refusal = $state('');
  let busy = $state(false);

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
      void load();
    });
    void removal.ask();
  }

  async function add(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    refusal = '';
    try {
      await api.POST('/api/connections', { body: { name, shownName, url, user, password } });
      name = shownName = user = password = '';
      await load();
    } catch (error) {
      refusal = error instanceof Error ? error.message : String(error);
    } finally {
      busy = false;
    }
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
        ><col style:width="24%" /><col style:width="14%" /><col /><col style:width="12%" /><col
          style:width="70px"
        /></colgroup
      >
      <thead><tr><th>Application</th><th>Name</th><th>Address</th><th>User</th><th></th></tr></thead
      >
      <tbody>
        {#each connections ?? [] as c (c.name)}
          <tr
            ><td class="t"><a class="go" href="/records/{c.name}/"><b>{c.shownName}</b></a></td><td
              >{c.name}</td
            ><td title={c.url}>{c.url}</td><td>{c.user}</td><td class="t"
              ><button class="go" onclick={() => ask(c)}>Delete</button></td
            ></tr
          >
        {/each}
      </tbody>
    </table>
  </div>
  <form onsubmit={add}>
    <h2>Add a connection</h2>
    <label
      ><span>Application</span><input
        class="entry"
        required
        bind:value={shownName}
        placeholder="Quillhaven Marina"
      /></label
    >
    <label
      ><span>Name</span><input
        class="entry"
        required
        pattern="[a-z0-9\-]{'{'}1,40}"
        bind:value={name}
        placeholder="marina"
        title="small letters, digits and hyphens"
      /></label
    >
    <label><span>Address</span><input class="entry m" required bind:value={url} /></label>
    <label><span>User</span><input class="entry" autocomplete="off" bind:value={user} /></label>
    <label
      ><span>Password</span><input
        class="entry"
        type="password"
        autocomplete="new-password"
        bind:value={password}
      /></label
    >
    <p class="q2">
      PostgreSQL (jdbc:postgresql://host:5432/database) and H2 (jdbc:h2:file: with the whole path).
      The connection is tried before it is kept; the password is kept encrypted and never shown.
    </p>
    <button class="button main" disabled={busy}>Try and keep</button>
    {#if refusal}<p class="message" role="alert">{refusal}</p>{/if}
  </form>
</div>
<RemovalDialog bind:removal />

<style>
  .list {
    flex: 1;
  }
  form {
    width: 380px;
    border-left: 1px solid var(--ink);
    padding: 12px 16px;
    display: grid;
    gap: 10px;
    align-content: start;
    justify-items: start;
  }
  label {
    display: grid;
    grid-template-columns: 90px 1fr;
    width: 100%;
    align-items: center;
  }
</style>
