<script lang="ts">
  // What can be done with a file that was dropped.
  import type { Proposal, Source } from '../api/types';
  import { many } from '../ui/words';

  interface Props {
    source: Source;
    proposals: Proposal[];
    tables: string[];
    elsewhere: (connection: string | undefined) => string | null;
    begin: (
      proposal: { plan?: number; table: string; connection?: string },
      besides?: boolean,
    ) => void;
  }
  let { source, proposals, tables, elsewhere, begin }: Props = $props();

  /** Height of the part of the column that is filled, in pixels. */
  const filled = (p: Proposal) => (31.5 * p.columns) / Math.max(p.of, p.columns);
</script>

<div class="found">
  <div class="file">
    <b class="m">{source.name}</b><br />
    <span class="q2"
      >{many(source.rows, 'row')}, {many(source.columns.length, 'column')}, dropped just now</span
    >
  </div>
  {#each proposals as proposal, i (`${proposal.plan} ${proposal.connection} ${proposal.table}`)}
    {@const other = elsewhere(proposal.connection)}
    <div class="proposal">
      <svg width="9" height="32" viewBox="0 0 9 32" aria-hidden="true">
        <rect x=".5" y=".5" width="8" height="31" fill="none" stroke="currentColor" />
        <rect
          x=".5"
          y={32 - filled(proposal)}
          width="8"
          height={filled(proposal)}
          fill="var(--ink-2)"
        />
      </svg>
      <div>
        {#if proposal.plan}<b>{proposal.name}</b> <span class="q">into</span>{:else}New Plan into{/if}
        <b class="m">{proposal.table}</b>{#if other}&nbsp;<span class="q">in {other}</span>{/if}<br
        /><span class="q2">{proposal.because}</span>
      </div>
      <button class="button" class:main={i === 0} onclick={() => begin(proposal)}>
        {proposal.plan ? 'Open' : 'Begin'}
      </button>
      {#if proposal.besides}
        {@const { tables: names, columns } = proposal.besides}
        <div class="besides">
          {columns === 1 ? '1 more column goes' : `${many(columns, 'more column')} go`} to
          {#each names as name, n (name)}<b class="m">{name}</b>{n < names.length - 2
              ? ', '
              : n === names.length - 2
                ? ' and '
                : ''}{/each}
        </div>
        <button class="button" onclick={() => begin(proposal, true)}
          >With {names.length === 1 ? 'it' : 'these'} too <kbd aria-hidden="true">W</kbd></button
        >
      {/if}
    </div>
  {/each}
  <div class="proposal other">
    <label for="other">Another table</label>
    <select
      id="other"
      class="entry"
      onchange={(e) => e.currentTarget.value && begin({ table: e.currentTarget.value })}
    >
      <option value="">choose…</option>
      {#each tables as table (table)}<option>{table}</option>{/each}
    </select>
  </div>
</div>

<style>
  .found {
    border: 1px solid var(--ink);
    background: var(--sheet);
  }
  .file {
    padding: 8px 12px;
    background: var(--zest-lit);
    line-height: 21px;
  }
  .proposal {
    display: grid;
    grid-template-columns: 9px 1fr auto;
    gap: 14px;
    align-items: center;
    padding: 8px 12px;
    border-top: 1px solid var(--rule);
    line-height: 21px;
  }
  .besides {
    grid-column: 2;
    color: var(--ink-2);
  }
  .proposal > .button {
    justify-self: end;
  }
  .proposal.other {
    grid-template-columns: 1fr auto;
    color: var(--ink-2);
  }
</style>
