<script lang="ts">
  import { onMount } from 'svelte';
  import { api, got } from '../api/client';
  import type { Source, Space } from '../api/types';
  import RemovalDialog from '../ui/RemovalDialog.svelte';
  import { Removal } from '../ui/removal.svelte';
  import { region } from '../ui/region';
  import { tell } from '../ui/toaster';
  import { count, many, megabytes, when } from '../ui/words';

  let files = $state.raw<Source[] | null>(null);
  let space = $state.raw<Space | null>(null);
  let removal = $state.raw<Removal | null>(null);

  async function load() {
    try {
      [files, space] = await Promise.all([
        got(api.GET('/api/sources')),
        got(api.GET('/api/space')),
      ]);
    } catch (error) {
      tell(error);
    }
  }
  onMount(load);

  function ask(file: Source) {
    removal = new Removal('file', String(file.id), file.name, () => {
      removal = null;
      void load();
    });
    void removal.ask();
  }
</script>

<div class="pagehead">
  <h1>Files</h1>
  <span class="q2"
    >{files ? `${many(files.length, 'file')} brought so far` : ''}{space
      ? `; the data folder holds ${megabytes(space.used)} and may hold ${megabytes(space.limit)}`
      : ''}</span
  >
</div>
<div class="scroll" {@attach region('Files')}>
  {#if files && files.length === 0}
    <p class="none">
      No file yet. <a class="go" href="/">Drop one on the Desk</a> and it is read and kept here.
    </p>
  {:else if files}
    <table class="g">
      <colgroup
        ><col /><col style:width="110px" /><col style:width="110px" /><col
          style:width="130px"
        /><col style:width="120px" /><col style:width="80px" /></colgroup
      >
      <thead
        ><tr
          ><th>File</th><th class="r">Rows</th><th class="r">Size</th><th>Brought</th><th>By</th><th
          ></th></tr
        ></thead
      >
      <tbody>
        {#each files as file (file.id)}
          <tr>
            <td class="t"><b>{file.name}</b></td>
            <td class="r">{file.rows < 0 ? 'being read' : count(file.rows)}</td>
            <td class="r">{megabytes(file.bytes)}</td>
            <td class="t q2">{when(file.uploadedAt)}</td>
            <td class="t">{file.uploadedBy}</td>
            <td class="t"><button class="go" onclick={() => ask(file)}>Delete</button></td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</div>
<RemovalDialog bind:removal />

<style>
  .none {
    padding: 24px 16px;
  }
</style>
