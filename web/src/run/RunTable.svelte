<script lang="ts">
  import type { RunView } from '../api/types';
  import { navigate } from '../router';
  import Bar from '../ui/Bar.svelte';
  import Slip from '../ui/Slip.svelte';
  import { isCutOff } from './endings';
  import { count, outcomesOf, outcomeWord, when } from '../ui/words';

  let {
    runs,
    at = -1,
    remove,
  }: { runs: RunView[]; at?: number; remove?: (run: RunView) => void } = $props();

  function enter(run: RunView) {
    void navigate('/plans/:id/:stop', {
      params: { id: String(run.plan), stop: 'run' },
      search: { run: run.id },
    });
  }
</script>

<div class="room">
  <table class="g">
    <colgroup>
      {#each ['when', 'run', 'plan', 'into', 'rows', 'outcomes', 'rejects', 'by', ...(remove ? ['act'] : [])] as column, i (i)}<col
          class={column}
        />{/each}
    </colgroup>
    <thead>
      <tr>
        <th>When</th><th>Run</th><th>Plan</th><th>Into</th><th class="r">Rows</th><th>Outcomes</th
        ><th>Rejected</th><th>By</th>
        {#if remove}<th></th>{/if}
      </tr>
    </thead>
    <tbody>
      {#each runs as run, i (run.id)}
        {@const into = run.report?.destinations[0]}
        <tr class="pickable" class:cur={i === at} onclick={() => enter(run)}>
          <td class="t q2">{when(run.startedAt)}</td>
          <td>{run.number}</td>
          <td class="t"
            >{#if run.kind === 'undo'}<span class="q">undo of {run.undoes?.number ?? 'a run'},</span
              >
            {/if}<a href="/plans/{run.plan}/run?run={run.id}" onclick={(e) => e.stopPropagation()}
              ><b>{run.planName}</b></a
            >{#if run.undoneBy?.state === 'done'}<span class="q"
                >, taken back by {run.undoneBy.number}</span
              >{:else if isCutOff(run)}<span class="o waiting" title={run.message}
                >, {run.state}</span
              >{/if}</td
          >
          {#if into && run.state !== 'going' && run.state !== 'committing'}
            {@const more = (run.report?.destinations.length ?? 1) - 1}
            <td title={run.report?.destinations.map((d) => d.table).join(', ')}
              >{into.table}{#if more}<span class="q"> +{more}</span>{/if}</td
            >
            <td class="r">{count(isCutOff(run) ? run.rowsStanding : (run.report?.read ?? 0))}</td>
            <td
              ><Bar
                tiny
                label={outcomesOf(run.kind, into)
                  .map((o) => `${into[o] ?? 0} ${outcomeWord(o, run.kind).toLowerCase()}`)
                  .join(', ')}
                parts={outcomesOf(run.kind, into).map((o) => ({ name: o, rows: into[o] ?? 0 }))}
              /></td
            >
            <td class="t"
              >{#if into.rejected}<span class="o rejected"
                  ><Slip of="rejected" />{count(into.rejected)}</span
                >{:else}<span class="q">none</span>{/if}</td
            >
          {:else}
            <td class="t" colspan="4"
              >{#if run.state === 'going'}going{:else if run.state === 'committing'}<span
                  class="q"
                  title={run.message}>{run.message ?? 'being made lasting'}</span
                >{:else}<span class="o rejected" title={run.message}
                  ><Slip of="rejected" />{run.message ?? run.state}</span
                >{/if}</td
            >
          {/if}
          <td class="t">{run.startedBy}</td>
          {#if remove}
            <td class="t"
              ><button
                class="go"
                onclick={(e) => {
                  e.stopPropagation();
                  remove(run);
                }}>Delete</button
              ></td
            >
          {/if}
        </tr>
      {/each}
    </tbody>
  </table>
</div>

<style>
  .room {
    container-type: inline-size;
  }
  .when {
    width: 92px;
  }
  .run {
    width: 94px;
  }
  .into {
    width: 96px;
  }
  .rows {
    width: 84px;
  }
  .outcomes {
    width: 122px;
  }
  .rejects {
    width: 76px;
  }
  .by,
  .act {
    width: 64px;
  }
  /* what the page of a run says too gives way to what the plan is called */
  @container (max-width: 700px) {
    .when {
      width: 76px;
    }
    .by,
    .rejects {
      visibility: collapse;
      width: 0;
    }
  }
  @container (max-width: 600px) {
    .into {
      visibility: collapse;
      width: 0;
    }
  }
</style>
