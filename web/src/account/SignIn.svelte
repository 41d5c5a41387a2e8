<script lang="ts">
  import { api, got } from '../api/client';
  import { session } from './session.svelte';

  let { again = false }: { again?: boolean } = $props();
  let name = $state('');
  let password = $state('');
  let refusal = $state('');
  let busy = $state(false);

  $effect(() => {
    if (again && session.person) name = session.person.name;
  });

  async function signIn(event: SubmitEvent) {
    event.preventDefault();
    busy = true;
    refusal = '';
    try {
      session.enter(await got(api.POST('/api/session', { body: { name, password } })));
    } catch (error) {
      refusal = error instanceof Error ? error.message : 'Signing in failed.';
      password = '';
    } finally {
      busy = false;
    }
  }
</script>

<div class="sign" class:again>
  <form class="card" onsubmit={signIn}>
    <div class="brand">
      <img src="/porter.svg" width="44" height="44" alt="" />
      <div>
        <h1>Zesty Porter</h1>
        <p class="q2">
          brings records from files into your application, and can say what became of each
        </p>
      </div>
    </div>
    {#if again}
      <p class="message mild">
        You were signed out. Sign in again to go on: nothing you edited is lost.
      </p>
    {/if}
    <label>
      <span>Name</span>
      <!-- svelte-ignore a11y_autofocus -->
      <input
        class="entry"
        name="name"
        bind:value={name}
        autocomplete="username"
        autofocus
        required
      />
    </label>
    <label>
      <span>Password</span>
      <input
        class="entry"
        name="password"
        type="password"
        bind:value={password}
        autocomplete="current-password"
        required
      />
    </label>
    <div class="act">
      <button class="button main" disabled={busy}>Sign in</button>
      {#if refusal}<p class="rejected" role="alert">{refusal}</p>{/if}
    </div>
  </form>
</div>

<style>
  .sign {
    height: 100%;
    display: grid;
    place-items: center;
    background: var(--paper);
  }
  .sign.again {
    position: fixed;
    inset: 0;
    z-index: 60;
    background: color-mix(in srgb, var(--paper) 75%, transparent);
  }
  .card {
    width: 420px;
    background: var(--sheet);
    border: 1px solid var(--ink);
    padding: 26px 28px 28px;
    display: grid;
    gap: 16px;
  }
  .brand {
    display: flex;
    gap: 14px;
    align-items: center;
    padding-bottom: 6px;
  }
  label {
    display: grid;
    grid-template-columns: 84px 1fr;
    align-items: center;
  }
  .entry {
    height: 32px;
  }
  .act {
    display: flex;
    gap: 14px;
    align-items: center;
    padding-left: 84px;
  }
  .act .button {
    height: 32px;
    padding: 0 16px;
  }
</style>
