<script lang="ts">
  // The equation a run ends in.
  import type { FieldInfo, RunReport } from '../api/types';
  import Slip from '../ui/Slip.svelte';
  import { count, OUTCOMES } from '../ui/words';
  import { leftOver, sumsOf } from './books';
  import OutcomeTitles from './OutcomeTitles.svelte';

  interface Props {
    report: RunReport;
    /** The table that is shown, by what the plan calls it. */
    shown: { name: string; fields: FieldInfo[] };
  }
  let { report, shown }: Props = $props();
  const several = $derived(report.destinations.length > 1);
  /** What is left of a sum once all is accounted for, without the noise of binary fractions. */
  const rest = (t: { source: number; altered: number; written: number }) =>
    Math.round((t.source + t.altered - t.written) * 1e6) / 1e6;
</script>

<div class="bt">
  <h2>Does it add up?</h2>
  {#if report.balanced}<b class="o new"><Slip of="check" />Yes, to the row and to the last digit</b>
  {:else}<b class="o rejected"><Slip of="rejected" />No: this run is faulty</b>{/if}
</div>
<table class="g books">
  <colgroup>
    <col style:width={several ? '178px' : '132px'} /><col style:width="76px" />
    {#each OUTCOMES as outcome (outcome)}<col class={outcome} />{/each}
    <col style:width="76px" />
  </colgroup>
  <thead>
    <tr>
      <th></th><th class="r">Read</th>
      <OutcomeTitles />
      <th class="r">Left over</th>
    </tr>
  </thead>
  <tbody>
    {#each report.destinations as into (into.table)}
      <tr>
        <td class="t" title={several ? `rows that came to ${into.table}` : undefined}
          >{#if several}<b class="m">{into.table}</b>{:else}<b>Rows</b>{/if}</td
        >
        <td class="r"><b>{count(into.rows)}</b></td>
        {#each OUTCOMES as outcome, i (outcome)}<td class="r"
            ><span class="q sign">{i ? '+' : '='}</span>{count(into[outcome])}</td
          >{/each}
        <td class="r new"><b>{leftOver(into)}</b></td>
      </tr>
    {/each}
    {#each report.controlTotals as total (`${total.destination}.${total.field}`)}
      {@const sum = sumsOf(shown, total)}
      <tr>
        <td class="t" colspan="2"
          ><b>Sum of</b>
          <span class="m">{several ? `${total.destination}.` : ''}{total.field}</span></td
        >
        {#if total.altered}
          <td
            class="r sum"
            colspan="5"
            title="the application itself changed values, as by a trigger"
            ><span class="q sans">file</span>
            {sum.format(total.source)}
            <span class="q sans">{total.altered > 0 ? '+' : '−'} changed there</span>
            {sum.format(Math.abs(total.altered))}
            <span class="q sans">= table</span>
            {sum.format(total.written)}</td
          >
        {:else}
          <td class="r sum" colspan="2"
            ><span class="q sans">file</span> {sum.format(total.source)}</td
          >
          <td class="r sum" colspan="3"
            ><span class="q sans"
              >{#if report.run}read back<i class="wide">&#32;from the table</i>{:else}as it would
                stand{/if}</span
            >
            {sum.format(total.written)}</td
          >
        {/if}
        <td class="r new"><b>{sum.format(rest(total))}</b></td>
      </tr>
    {/each}
  </tbody>
</table>

<style>
  .books {
    border-bottom: 1px solid var(--ink);
    flex: none;
  }
  .sign {
    float: left;
  }
  /* the longest of the words, where they are written out */
  @media (min-width: 1151px) {
    .unchanged {
      width: 104px;
    }
  }
  /* a sum is never cut: what has no room beside goes below */
  .sum {
    white-space: normal;
    overflow: visible;
  }
  .wide {
    font-style: normal;
  }
  @media (max-width: 1180px) {
    .wide {
      display: none;
    }
  }
</style>
