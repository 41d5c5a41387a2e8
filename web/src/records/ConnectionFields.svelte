<script lang="ts">
  // What says where a database is and how it is reached: its address in parts.
  import Pick from '../ui/Pick.svelte';
  import { KINDS, putTogether, TLS, type Kind } from './address';
  import type { ConnectionForm } from './connection.svelte';

  let { form }: { form: ConnectionForm } = $props();

  let how = $derived(KINDS[form.kind]);
  const kinds = Object.entries(KINDS).map(([value, { label }]) => ({
    value: value as Kind,
    text: label,
  }));
</script>

{#snippet number(
  name: string,
  title: string,
  setting: 'statementSeconds' | 'lockSeconds' | 'atATime',
  unit: string,
  min: number,
  max: number,
)}
  <label
    ><span {title}>{name}</span><span class="unit"
      ><input
        class="entry"
        type="number"
        {min}
        {max}
        placeholder="as usual"
        bind:value={() => form[setting], (v) => (form[setting] = String(v ?? ''))}
      />
      {unit}</span
    ></label
  >
{/snippet}
<Pick label="Kind of database" options={kinds} value={form.kind} pick={(k) => (form.kind = k)} />
{#if form.isFile}
  <label
    ><span>File</span><input
      class="entry m"
      required
      bind:value={form.parts.file}
      placeholder="/srv/databases/marina{form.kind === 'sqlite' ? '.db' : ''}"
      title="The whole path, as the server sees it"
    /></label
  >
{:else}
  <div class="host">
    <label
      ><span>Host</span><input
        class="entry m"
        bind:value={form.parts.host}
        placeholder="localhost"
      /></label
    ><label class="port"
      ><span>Port</span><input
        class="entry m"
        inputmode="numeric"
        pattern="[0-9]{'{'}1,5}"
        bind:value={form.parts.port}
        placeholder={how.port}
      /></label
    >
  </div>
  <label
    ><span>Database</span><input
      class="entry m"
      required
      bind:value={form.parts.database}
      placeholder="marina"
    /></label
  >
  <label
    ><span>TLS</span><select
      class="entry"
      value={form.parts.settings[how.tls!] ?? ''}
      onchange={(e) => form.set(how.tls!, e.currentTarget.value)}
    >
      {#each ['', ...how.tlsWords!] as word (word)}<option value={word}>{TLS[word]}</option>{/each}
    </select></label
  >
  {#if form.verifies}
    <label class="tall"
      ><span title="Certificate of the authority that vouches for the database">Authority</span
      ><textarea
        class="entry m"
        rows="3"
        spellcheck="false"
        placeholder="-----BEGIN CERTIFICATE-----  (empty: those that the server knows)"
        bind:value={form.certificate}></textarea></label
    >
  {/if}
{/if}
{#if how.schema}
  <label
    ><span>Schema</span><input
      class="entry m"
      value={form.parts.settings[how.schema] ?? ''}
      oninput={(e) => form.set(how.schema!, e.currentTarget.value)}
      placeholder="its own"
      title="Tables of this schema are named without it"
    /></label
  >
{/if}
{#each form.others as name (name)}
  <label
    ><span title={name}>{name}</span><input
      class="entry m"
      value={form.parts.settings[name]}
      oninput={(e) => form.set(name, e.currentTarget.value)}
    /></label
  >
{/each}
<label><span>User</span><input class="entry" autocomplete="off" bind:value={form.user} /></label>
<label
  ><span>Password</span><input
    class="entry"
    type="password"
    autocomplete="new-password"
    placeholder={form.changes ? 'as it was' : ''}
    bind:value={form.password}
  /></label
>
<label class="check"
  ><input type="checkbox" bind:checked={form.readOnly} /> Only for reading: nothing is ever written</label
>
<details open={form.saysMore}>
  <summary>Which tables, and how long</summary>
  <label
    ><span>Tables</span><input
      class="entry m"
      bind:value={form.tables}
      placeholder="all; or vessel, harbour.*"
      title="The tables that are offered, parted by commas; * stands for any letters"
    /></label
  >
  {@render number(
    'Statement',
    'How long one statement may take',
    'statementSeconds',
    'seconds',
    1,
    86400,
  )}
  {@render number(
    'Locks',
    'How long is waited for what somebody else has locked',
    'lockSeconds',
    'seconds',
    1,
    3600,
  )}
  {@render number(
    'At a time',
    'Connections to the database at a time',
    'atATime',
    'connections',
    2,
    50,
  )}
</details>
<p class="q2 address" title="The address that the server is given">{putTogether(form.parts)}</p>

<style>
  .host {
    display: grid;
    grid-template-columns: 1fr 116px;
    gap: 10px;
    width: 100%;
  }
  .host .port {
    grid-template-columns: 36px 1fr;
  }
  .address {
    overflow-wrap: anywhere;
    font-family: 'Atkinson Hyperlegible Mono Variable', monospace;
    font-size: 11.5px;
  }
  label {
    display: grid;
    grid-template-columns: 78px 1fr;
    width: 100%;
    align-items: center;
  }
  label.tall {
    align-items: start;
  }
  label.check {
    display: flex;
    gap: 8px;
    cursor: pointer;
  }
  textarea {
    height: auto;
    min-height: 62px;
    font-size: 11.5px;
    resize: vertical;
  }
  details {
    width: 100%;
  }
  details label {
    margin-top: 9px;
  }
  summary {
    cursor: pointer;
  }
  .unit {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  .unit .entry {
    width: 96px;
  }
  label > span:first-child {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  label > :global(.entry) {
    min-width: 0;
  }
</style>
