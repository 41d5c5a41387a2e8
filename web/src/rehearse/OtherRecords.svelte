<script lang="ts">
  // What the row in hand makes in the other tables, record by record.
  import type { LedgerEntry } from '../api/types';
  import Outcome from '../ui/Outcome.svelte';
  import { awaits } from './asked';

  interface Other {
    table: string;
    /** True if its records belong to those of another table. */
    isUnder: boolean;
    fields: string[];
    entries: LedgerEntry[];
  }
  interface Props {
    others: Other[];
    kind: string;
  }
  let { others, kind }: Props = $props();

  /** The fields that hold something, or held. */
  const told = (fields: string[], entry: LedgerEntry) =>
    fields
      .map((field, at) => ({
        field,
        at,
        now: entry.after[at] ?? entry.before?.[at],
        before: entry.before?.[at],
        differs: entry.changed.includes(at),
      }))
      .filter((f) => f.now != null || f.differs);
  const against = (entry: LedgerEntry) => entry.notes.map((n) => n.reason).join('; ');
</script>

{#each others as other (other.table)}
  {#each other.entries as entry (entry.part)}
    <section class:under={other.isUnder} aria-label="Record of {other.table}">
      <h3>
        <span class="m">{other.table}</span>
        {#if entry.recordKey}<span class="q">record {entry.recordKey}</span>{/if}
        <Outcome of={entry.outcome} {kind} waiting={awaits(kind, entry)} />
      </h3>
      {#if entry.notes.length}<p class="q2">{against(entry)}</p>{/if}
      <dl>
        {#each told(other.fields, entry) as f (f.field)}
          <dt class="m">{f.field}</dt>
          <dd class="m" class:differs={f.differs}>{f.now ?? 'blank'}</dd>
          <dd class="m q">{f.differs && f.before != null ? `was ${f.before}` : ''}</dd>
        {/each}
      </dl>
    </section>
  {/each}
{/each}

<style>
  section {
    border-top: 1px solid var(--ink);
    padding: 7px 12px 9px;
  }
  .under {
    border-left: 1px solid var(--ink);
    margin-left: 12px;
  }
  h3 {
    display: flex;
    gap: 10px;
    align-items: baseline;
  }
  h3 .m {
    font-weight: 640;
  }
  dl {
    display: grid;
    grid-template-columns: minmax(100px, max-content) max-content minmax(0, 1fr);
    gap: 0 14px;
    line-height: 22px;
    overflow-wrap: anywhere;
  }
  dt {
    color: var(--ink-3);
  }
  .differs {
    background: var(--chg-w);
    font-weight: 640;
    padding: 0 4px;
    margin-left: -4px;
  }
</style>
