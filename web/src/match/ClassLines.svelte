<script lang="ts">
  import type { MatchClasses, Policies } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import Outcome from '../ui/Outcome.svelte';
  import Pick from '../ui/Pick.svelte';
  import { count } from '../ui/words';

  let { open, classes }: { open: OpenPlan; classes: MatchClasses } = $props();

  const policies = $derived(open.destination.policies);

  function put(change: Partial<Policies>) {
    open.editDestination((d) => ({ ...d, policies: { ...d.policies, ...change } }));
  }
  function share(rows: number) {
    return `${((100 * rows) / Math.max(1, open.view.source.rows)).toFixed(1)}%`;
  }
</script>

<div class="lines">
  <div class="line">
    <b class="r">{count(classes.one)}</b><span>match one record</span><span class="q r"
      >{share(classes.one)}</span
    >
    <Pick
      label="Rows that match one record"
      value={policies.onMatch}
      pick={(onMatch) => put({ onMatch })}
      options={[
        { value: 'update', text: 'Update' },
        { value: 'skip', text: 'Skip' },
        { value: 'reject', text: 'Reject' },
      ]}
    />
    <span class="become">
      {#if policies.onMatch === 'update'}become <Outcome of="changed" /> or <Outcome
          of="unchanged"
        />
      {:else}become <Outcome of={policies.onMatch === 'skip' ? 'skipped' : 'rejected'} />{/if}
    </span>
  </div>
  <div class="line">
    <b class="r">{count(classes.none)}</b><span>match none</span><span class="q r"
      >{share(classes.none)}</span
    >
    <Pick
      label="Rows that match no record"
      value={policies.onNone}
      pick={(onNone) => put({ onNone })}
      options={[
        { value: 'add', text: 'Add' },
        { value: 'skip', text: 'Skip' },
        { value: 'reject', text: 'Reject' },
      ]}
    />
    <span class="become"
      >become <Outcome
        of={policies.onNone === 'add' ? 'new' : policies.onNone === 'skip' ? 'skipped' : 'rejected'}
      /></span
    >
  </div>
  <div class="line">
    <b class="r">{count(classes.several)}</b><span>match several</span><span class="q r"
      >{share(classes.several)}</span
    >
    <Pick
      label="Rows that match several records"
      value={policies.onSeveral}
      pick={(onSeveral) => put({ onSeveral })}
      options={[
        { value: 'reject', text: 'Reject' },
        { value: 'skip', text: 'Skip' },
      ]}
    />
    <span class="become"
      >become <Outcome of={policies.onSeveral === 'skip' ? 'skipped' : 'rejected'} /></span
    >
  </div>
  <div class="line">
    <b class="r">{count(classes.repeats)}</b><span>repeat inside the file</span><span class="q r"
      >{share(classes.repeats)}</span
    >
    <Pick
      label="Rows that repeat inside the file"
      value={policies.onRepeat}
      pick={(onRepeat) => put({ onRepeat })}
      options={[
        { value: 'keep-last', text: 'Keep last' },
        { value: 'keep-first', text: 'Keep first' },
        { value: 'reject', text: 'Reject all' },
      ]}
    />
    <span class="become"
      >{policies.onRepeat === 'keep-last'
        ? 'earlier rows'
        : policies.onRepeat === 'keep-first'
          ? 'later rows'
          : 'all of them'}
      <Outcome of={policies.onRepeat === 'reject' ? 'rejected' : 'skipped'} /></span
    >
  </div>
</div>

<style>
  .lines {
    border-top: 1px solid var(--ink);
    border-bottom: 1px solid var(--ink);
    flex: none;
  }
  .line {
    display: grid;
    grid-template-columns: 52px 150px 56px 262px 1fr;
    gap: 12px;
    align-items: center;
    padding: 4px 16px;
    border-top: 1px solid var(--rule);
  }
  .line:first-child {
    border-top: 0;
  }
  .line :global(.pick) {
    justify-self: start;
  }
  .become {
    display: inline-flex;
    gap: 6px;
    align-items: center;
    color: var(--ink-2);
  }
</style>
