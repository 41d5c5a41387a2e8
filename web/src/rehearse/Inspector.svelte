<script lang="ts">
  // Any row can be asked why.
  import type { Snippet } from 'svelte';
  import { api, got } from '../api/client';
  import { OF_MATCH } from '../api/codes';
  import type { Destination, LedgerEntry } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import type { Stop } from '../plan/trip';
  import Outcome from '../ui/Outcome.svelte';
  import Slip from '../ui/Slip.svelte';
  import Value from '../ui/Value.svelte';
  import { tell } from '../ui/toaster';
  import { awaits } from './asked';
  import { why } from './why';
  import { region } from '../ui/region';

  interface Props {
    open: OpenPlan;
    entry: LedgerEntry;
    /** What the entry's table is filled by, and its place in the plan. */
    into: Destination | undefined;
    table: number;
    fields: string[];
    goTo: (to: Stop) => void;
    low: boolean;
    /** What the ledger is of: a rehearsal, a run or an undo. */
    kind: string;
    share: (line: number) => void;
    /** What the row makes besides. */
    children?: Snippet;
  }
  let { open, entry, into, table, fields, goTo, low, kind, share, children }: Props = $props();
  const undo = $derived(kind === 'undo');

  // of other tables no more than names and values is known here
  const info = (name: string) =>
    table ? undefined : open.view.table.fields.find((f) => f.name === name);
  const fills = $derived({ fill: (field: string) => into?.fills.find((f) => f.field === field) });
  const rowNotes = $derived(entry.notes.filter((n) => !n.field || !fields.includes(n.field)));

  /** True for what is said of the records that a row speaks of, not of its value. */
  const ofMatch = (note: LedgerEntry['notes'][number]) => OF_MATCH.includes(note.code);

  async function openInFill() {
    try {
      const path = { id: open.view.id };
      const found = await got(
        api.GET('/api/plans/{id}/row', { params: { path, query: { line: entry.line } } }),
      );
      open.cursor = found.row;
      const bad = entry.notes.find((n) => n.field && fields.includes(n.field));
      if (bad?.field && !table) open.field = bad.field;
      goTo('fill');
    } catch (error) {
      tell(error);
    }
  }
</script>

<div class="bt head">
  <span class="mark m">{entry.line}</span>
  <Outcome of={entry.outcome} {kind} waiting={awaits(kind, entry)} />
  {#if entry.recordKey}<span class="q"
      >record {entry.recordKey}{entry.matchedBy
        ? `, found by ${into?.keys[entry.matchedBy - 1]?.fields.join(' with ') ?? 'its key'}`
        : ''}</span
    >{/if}
  {#each rowNotes as note (note.reason)}<span class="q2">{note.reason}</span>{/each}
  <span class="end">
    <button class="go" title="its address, for a colleague" onclick={() => share(entry.line)}
      >link</button
    >
    {#if !undo}<button class="go" onclick={openInFill}>line {entry.line} in Fill</button>{/if}
  </span>
</div>
<div class="scroll why" {@attach region('Why')} class:low>
  <table class="g">
    <colgroup><col class="field" /><col class="before" /><col class="after" /><col /></colgroup>
    <thead><tr><th>Field</th><th>Before</th><th>After</th><th>Why</th></tr></thead>
    <tbody>
      {#each fields as field, i (field)}
        {@const differs = entry.changed.includes(i)}
        {@const note = entry.notes.find((n) => n.field === field)}
        <tr>
          <td class="name">{field}</td>
          <td dir="auto" class:was={differs} class:pale={!differs}
            ><Value
              value={entry.before?.[i]}
              field={info(field)}
              connection={open.plan.connection}
            /></td
          >
          <td dir="auto" class:was={differs} class:bad={note && !note.softened}>
            {#if differs}<span class="changed"><Slip of="changed" /></span>
              <b
                >{#if entry.after[i] == null}blank{:else}<Value
                    value={entry.after[i]}
                    field={info(field)}
                    connection={open.plan.connection}
                  />{/if}</b
              >
            {:else if note && !note.softened}<Slip of={note.question ? 'waiting' : 'rejected'} />
              {(ofMatch(note) ? entry.after[i] : note.value) || 'blank'}
            {:else}<span class:pale={entry.outcome !== 'new'}
                ><Value
                  value={entry.after[i] ?? (undo ? undefined : entry.before?.[i])}
                  field={info(field)}
                  connection={open.plan.connection}
                /></span
              >{/if}
          </td>
          <td class="t q2" class:rejected={note && !note.softened}
            >{note
              ? note.reason
              : undo
                ? differs
                  ? 'as it was before'
                  : ''
                : why(fills, field, entry, i)}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
  {@render children?.()}
</div>

<style>
  .head {
    border-top: 1px solid var(--ink);
  }
  .why {
    height: 246px;
    flex: none;
  }
  .why.low {
    height: 152px;
  }
  .name {
    background: var(--well);
  }
  .field {
    width: 122px;
  }
  .before {
    width: 150px;
  }
  .after {
    width: 190px;
  }
  @media (max-width: 1180px) {
    .field,
    .before {
      width: 106px;
    }
    .after {
      width: 156px;
    }
  }
</style>
