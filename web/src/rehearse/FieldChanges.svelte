<script lang="ts">
  // What becomes of each field of the records that are there.
  import { api, got } from '../api/client';
  import type { FieldChange } from '../api/types';
  import { region } from '../ui/region';
  import { tell } from '../ui/toaster';
  import { amount, count, many } from '../ui/words';

  interface Props {
    run: number;
    /** The table's place in the plan, from 0. */
    table: number;
    /** Changed records in all. */
    changed: number;
    /** Fields that hold keys of other tables, whose sums and distances mean nothing. */
    linksOf: () => Promise<string[]>;
    pick: (field: string) => void;
  }
  let { run, table, changed, linksOf, pick }: Props = $props();

  let fields = $state.raw<FieldChange[] | null>(null);
  let links = $state.raw<string[]>([]);

  $effect(() => {
    const params = { path: { id: run }, query: { destination: table } };
    Promise.all([got(api.GET('/api/runs/{id}/fields', { params })), linksOf()])
      .then((answers) => ([fields, links] = answers))
      .catch(tell);
  });

  function words(values: FieldChange['appear']): string {
    return (values ?? []).map((v) => `${v.value} (${count(v.records)})`).join(', ');
  }
</script>

<div class="scroll all" {@attach region('Fields that change')}>
  {#if !fields}<p class="q none">Going through the ledger…</p>
  {:else if !fields.length}<p class="q none">No record that is there changes in any field.</p>
  {:else}
    <table class="g">
      <colgroup>
        <col style:width="22%" /><col style:width="84px" /><col style:width="70px" /><col
          style:width="74px"
        /><col />
      </colgroup>
      <thead>
        <tr>
          <th>Field</th><th class="r">Records</th><th class="r">Filled</th><th class="r">Cleared</th
          ><th>What it comes to</th>
        </tr>
      </thead>
      <tbody>
        {#each fields as field (field.field)}
          <tr>
            <td
              ><button class="go m" title="show its rows" onclick={() => pick(field.field)}
                >{field.field}</button
              ></td
            >
            <td class="r"
              ><b>{count(field.records)}</b><span class="bar tiny"
                ><i class="x-changed" style="width: {(100 * field.records) / Math.max(1, changed)}%"
                ></i></span
              ></td
            >
            <td class="r">{field.filled ? count(field.filled) : ''}</td>
            <td class="r">{field.cleared ? count(field.cleared) : ''}</td>
            <td class="t say">
              {#if field.before != null && field.after != null && !links.includes(field.field)}
                <p>
                  <span class="q2">in all</span>
                  <span class="m">{amount(field.before)} → {amount(field.after)}</span>
                </p>
              {/if}
              {#if field.largest && !links.includes(field.field)}
                <p>
                  <span class="q2">farthest, line {field.largest.line}</span>
                  <span class="m">{field.largest.from} → {field.largest.to}</span>
                </p>
              {/if}
              {#if field.appear?.length}
                <p>
                  <span class="q2">new among them</span>
                  <span class="m">{words(field.appear)}</span>
                </p>
              {/if}
              {#if field.vanish?.length}
                <p>
                  <span class="q2">gone from them</span>
                  <span class="m">{words(field.vanish)}</span>
                </p>
              {/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="q none">
      Of the {many(changed, 'record')} that change; sums and values are of all that are matched.
    </p>
  {/if}
</div>

<style>
  .all {
    flex: 1;
    min-height: 130px;
  }
  .all td {
    vertical-align: top;
    white-space: normal;
    height: auto;
    line-height: 20px;
    padding-top: 6px;
    padding-bottom: 6px;
  }
  td .bar {
    display: block;
    margin: 2px 0 3px;
  }
  .say p {
    overflow-wrap: anywhere;
  }
  .none {
    padding: 12px 16px;
  }
</style>
