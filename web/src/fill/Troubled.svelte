<script lang="ts">
  // A failing cell: why it stops, and what mends it.
  import type { FieldInfo, Fill, StageRow } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import { api, got } from '../api/client';
  import Slip from '../ui/Slip.svelte';
  import { tell } from '../ui/toaster';
  import { repairs, type Repair } from './repairs';

  interface Props {
    open: OpenPlan;
    row: StageRow;
    field: FieldInfo;
    fill: Fill;
    span: number;
    put: (fill: Fill) => void;
  }
  let { open, row, field, fill, span, put }: Props = $props();

  let asking = $state.raw<Repair | null>(null);
  let answer = $state('');
  let options = $state.raw<string[]>([]);
  const problem = $derived(row.trace.problem!);
  const offered = $derived(
    row.trace.softened ? [] : repairs(problem, fill, field, row.trace.stoppedAt).slice(0, 2),
  );

  /** What the application knows: its choices, or the linked table's values. */
  async function offer() {
    options = field.choices ?? [];
    const by = fill.origin.link?.by;
    if (fill.origin.kind !== 'link' || !field.link || !by) return;
    try {
      const path = { connection: open.plan.connection!, table: field.link.table };
      const page = await got(
        api.GET('/api/connections/{connection}/tables/{table}/records', {
          params: { path, query: { limit: 500 } },
        }),
      );
      const at = page.fields.indexOf(by);
      options = page.records.flatMap((r) => r.values[at] ?? []);
    } catch (error) {
      tell(error);
    }
  }

  function use(repair: Repair, event: Event) {
    event.stopPropagation();
    if (repair.asks) {
      asking = repair;
      answer = '';
      void offer();
    } else {
      put(repair.apply(fill, ''));
    }
  }

  function settle(event: SubmitEvent) {
    event.preventDefault();
    if (asking && answer) put(asking.apply(open.fill(field.name) ?? fill, answer));
    asking = null;
  }
</script>

<td class="t" class:bad={!row.trace.softened} class:soft={row.trace.softened} colspan={span}>
  {#if asking}
    <form class="why" onsubmit={settle} onclick={(e) => e.stopPropagation()} role="presentation">
      {asking.asks} use
      <!-- svelte-ignore a11y_autofocus -->
      <input
        class="entry answer"
        list="answers"
        bind:value={answer}
        autofocus
        aria-label={asking.asks}
        onkeydown={(e) => e.key === 'Escape' && (asking = null)}
      />
      <datalist id="answers">
        {#each options as option (option)}<option value={option}></option>{/each}
      </datalist>
      <button class="button small main">Use it</button>
    </form>
  {:else}
    <div class="why">
      <Slip of={row.trace.softened ? 'skipped' : 'rejected'} />
      {#if row.trace.softened}<b
          >{fill.whenBad === 'default' ? `Default ${fill.defaultValue}` : 'Left blank'}:</b
        >
      {:else if problem.code === 'out-of-range' || problem.code === 'too-long'}<b class="m"
          >{problem.value}</b
        >
      {:else}<b>Stops here:</b>{/if}
      <span class="reason" title={problem.reason}>{problem.reason}</span>
      <span class="fixes">
        {#each offered as repair (repair.text)}
          <button class="button small fix" onclick={(e) => use(repair, e)}>{repair.text}</button>
        {/each}
      </span>
    </div>
  {/if}
</td>

<style>
  .why {
    display: flex;
    gap: 6px;
    align-items: center;
  }
  .reason {
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .fixes {
    margin-left: auto;
    display: flex;
    gap: 6px;
  }
  .fix {
    color: var(--ink);
    border-color: var(--rej);
  }
  .soft {
    color: var(--skip) !important;
  }
  .answer {
    height: 22px;
    width: 150px;
    color: var(--ink);
  }
</style>
