<script lang="ts">
  import { session } from '../account/session.svelte';
  import { api } from '../api/client';
  import { route } from '../router';
  import { mode } from './mode.svelte';
  import { tell } from './toaster';

  const places = [
    { path: '/', name: 'Desk' },
    { path: '/plans', name: 'Plans' },
    { path: '/runs', name: 'Runs' },
    { path: '/files', name: 'Files' },
    { path: '/records', name: 'Records' },
    { path: '/phrasebooks', name: 'Phrasebooks' },
    { path: '/connections', name: 'Connections' },
  ];
  const here = $derived(
    places.findLast((place) =>
      place.path === '/' ? route.pathname === '/' : route.pathname.startsWith(place.path),
    )?.path,
  );

  async function signOut() {
    try {
      await api.DELETE('/api/session');
      session.nobody();
    } catch (error) {
      tell(error);
    }
  }
</script>

<nav class="rail" aria-label="Places">
  <a class="brand" href="/"
    ><img src="/porter.svg" width="26" height="26" alt="" /><span>Zesty<br />Porter</span></a
  >
  {#each places as place (place.path)}
    <a
      class="place"
      class:on={here === place.path}
      href={place.path}
      aria-current={here === place.path ? 'page' : undefined}>{place.name}</a
    >
  {/each}
  <div class="foot">
    <b>{session.person?.shownName}</b><br />
    <button class="go" onclick={() => mode.set(!mode.dark)}>{mode.dark ? 'Light' : 'Dark'}</button>
    <button class="go" onclick={signOut}>Sign out</button>
  </div>
</nav>

<style>
  .rail {
    grid-row: 1/3;
    background: var(--rail);
    border-right: 1px solid var(--rule);
    display: flex;
    flex-direction: column;
    padding: 14px 0 10px;
  }
  .brand {
    display: flex;
    gap: 8px;
    align-items: center;
    padding: 0 0 16px 13px;
    font-weight: 700;
    line-height: 1.08;
    font-size: 14px;
    letter-spacing: -0.01em;
  }
  .place {
    padding: 5px 11px 5px 13px;
    line-height: 19px;
    font-size: 14px;
    color: var(--ink-2);
  }
  .place.on {
    color: var(--ink);
    font-weight: 680;
    box-shadow: inset 4px 0 0 var(--zest-edge);
    background: var(--paper);
  }
  .foot {
    margin-top: auto;
    padding: 0 4px 0 13px;
    color: var(--ink-3);
    line-height: 22px;
  }
  .foot b {
    color: var(--ink-2);
  }
  .foot .go + .go {
    margin-left: 8px;
  }
  @media (max-width: 900px) {
    .rail {
      grid-row: auto;
      flex-direction: row;
      align-items: center;
      padding: 4px 8px;
      overflow-x: auto;
      border-right: 0;
      border-bottom: 1px solid var(--rule);
    }
    .brand span,
    .foot b,
    .foot br {
      display: none;
    }
    .brand {
      padding: 0 8px 0 4px;
    }
    .place {
      padding: 3px 8px;
    }
    .place.on {
      box-shadow: inset 0 -3px 0 var(--zest-edge);
    }
    .foot {
      margin-left: auto;
      margin-top: 0;
      white-space: nowrap;
    }
  }
</style>
