<script lang="ts">
  import { Toast } from '@skeletonlabs/skeleton-svelte';
  import { onMount } from 'svelte';
  import { Router } from 'sv-router';
  import SignIn from './account/SignIn.svelte';
  import { session } from './account/session.svelte';
  import { api, got } from './api/client';
  import { navigate } from './router';
  import Foot from './ui/Foot.svelte';
  import KeysDialog from './ui/KeysDialog.svelte';
  import { keyboard, useKeys } from './ui/keys.svelte';
  import { mode } from './ui/mode.svelte';
  import Rail from './ui/Rail.svelte';
  import { toaster } from './ui/toaster';
  import { ending } from './run/endings';
  import { work } from './run/work.svelte';

  let allKeys = $state(false);
  let going = $state(false);

  onMount(async () => {
    mode.start();
    try {
      session.enter(await got(api.GET('/api/session')));
    } catch {
      session.nobody();
    }
  });

  // what is going on is heard of while the page is seen and somebody is signed in
  $effect(() => {
    if (session.person && !session.expired) work.listen();
    else work.deafen();
  });

  // a run that somebody has begun and left is told of where they are now
  onMount(() =>
    work.whenEnded((gone) => {
      const own = gone.startedBy === session.person?.name && work.current?.id !== gone.id;
      // its own page shows it anyway
      const seen = location.pathname === `/plans/${gone.plan}/run`;
      if (own && !seen && gone.kind !== 'rehearsal') void told(gone.id);
    }),
  );

  async function told(id: number) {
    try {
      const run = await got(api.GET('/api/runs/{id}', { params: { path: { id } } }));
      const words = ending(run);
      if (run.state === 'done' || run.state === 'paused')
        toaster.success({ title: words, duration: 12_000 });
      else toaster.error({ title: words, duration: 20_000 });
    } catch {
      // the Desk tells it too
    }
  }

  function leap(path: '/' | '/plans' | '/runs' | '/records' | '/phrasebooks') {
    going = false;
    void navigate(path);
  }

  useKeys(() =>
    going
      ? [
          { keys: ['d'], say: '', act: () => leap('/') },
          { keys: ['p'], say: '', act: () => leap('/plans') },
          { keys: ['r'], say: '', act: () => leap('/runs') },
          { keys: ['e'], say: '', act: () => leap('/records') },
          { keys: ['b'], say: '', act: () => leap('/phrasebooks') },
          { keys: ['Escape'], say: '', act: () => (going = false) },
        ]
      : [
          {
            keys: ['g'],
            say: 'go to',
            act: () => {
              going = true;
              setTimeout(() => (going = false), 1500);
            },
          },
          { keys: ['?'], say: 'all keys', act: () => (allKeys = true) },
        ],
  );
</script>

<svelte:document
  onvisibilitychange={() => {
    if (document.hidden) work.deafen();
    else if (session.person && !session.expired) work.listen();
  }}
/>
<svelte:window onkeydown={(e) => session.person && !session.expired && keyboard.handle(e)} />

{#if session.person}
  <div class="frame">
    <Rail />
    <main class="page"><Router /></main>
    <Foot />
  </div>
  {#if session.expired}<SignIn again />{/if}
  <KeysDialog bind:open={allKeys} />
{:else if session.known}
  <SignIn />
{/if}

<Toast.Group {toaster}>
  {#snippet children(toast)}
    <Toast {toast} class="toast-{toast.type}">
      <Toast.Message><Toast.Title>{toast.title}</Toast.Title></Toast.Message>
      <Toast.CloseTrigger aria-label="Dismiss" />
    </Toast>
  {/snippet}
</Toast.Group>
