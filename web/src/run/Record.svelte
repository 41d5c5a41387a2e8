<script lang="ts">
  // The record of a rehearsal or run, to be printed and filed.
  import { onMount } from 'svelte';
  import { api, got } from '../api/client';
  import type { FieldChange, LedgerEntry, Outcome, RunView } from '../api/types';
  import { route } from '../router';
  import { tell } from '../ui/toaster';
  import { amount, count, many, noteWords, outcomesOf, outcomeWord } from '../ui/words';
  import { leftOver } from './books';

  const SAMPLE = 8;
  const id = Number(route.params.id);

  let run = $state.raw<RunView | null>(null);
  let fields = $state.raw<FieldChange[]>([]);
  let samples = $state.raw<{ outcome: Outcome; names: string[]; entries: LedgerEntry[] }[]>([]);

  onMount(async () => {
    try {
      const path = { id };
      const found = await got(api.GET('/api/runs/{id}', { params: { path } }));
      const into = found.report?.destinations[0];
      if (into) {
        fields = await got(api.GET('/api/runs/{id}/fields', { params: { path } }));
        samples = await Promise.all(
          outcomesOf(found.kind, into)
            .filter((outcome) => into[outcome as 'new'])
            .map((outcome) => sample(outcome)),
        );
      }
      run = found;
    } catch (error) {
      tell(error);
    }
  });

  async function sample(outcome: Outcome) {
    const query = { outcome, limit: SAMPLE };
    const page = await got(api.GET('/api/runs/{id}/ledger', { params: { path: { id }, query } }));
    return { outcome, names: page.fields, entries: page.entries };
  }

  function told(entry: LedgerEntry, names: string[]): string {
    if (entry.outcome === 'rejected' || entry.outcome === 'skipped')
      return entry.notes.map(noteWords).join('; ');
    if (entry.outcome === 'changed')
      return entry.changed
        .map((f) => `${names[f]}: ${entry.before?.[f] ?? 'blank'} → ${entry.after[f] ?? 'blank'}`)
        .join('; ');
    return names
      .map((name, f) => (entry.after[f] == null ? '' : `${name} ${entry.after[f]}`))
      .filter(Boolean)
      .slice(0, 5)
      .join(', ');
  }

  const moment = (iso: string | undefined) => iso?.slice(0, 19).replace('T', ' ') ?? '';
  const kind = $derived(
    run?.kind === 'rehearsal' ? 'Rehearsal' : run?.kind === 'undo' ? 'Undo' : 'Run',
  );
  const report = $derived(run?.report);
  const outcomes = $derived(outcomesOf(run?.kind ?? '', report?.destinations[0]));
</script>

<svelte:head><title>{kind} {run?.number ?? id}</title></svelte:head>

<div class="scroll sheet">
  {#if run && report}
    <article>
      <p class="tools">
        <button class="button main" onclick={() => print()}>Print</button>
        <a class="button" href="/api/runs/{id}/record?format=xlsx" download
          >Workbook with all rows</a
        >
        <a class="button" href="/api/runs/{id}/record?format=csv" download>All rows as text</a>
        <a class="go" href="/plans/{run.plan}/{run.kind === 'rehearsal' ? 'rehearse' : 'run'}"
          >back to the Plan</a
        >
      </p>
      <h1>{kind} {run.number ?? ''} of “{run.planName}”</h1>
      <dl>
        <dt>File</dt>
        <dd class="m">{run.source}</dd>
        <dt>Its SHA-256</dt>
        <dd class="m sum">{run.checksum ?? 'unknown'}</dd>
        <dt>Plan</dt>
        <dd>
          revision {run.revision}, into <span class="m">{report.destinations[0]?.table}</span>
        </dd>
        <dt>Begun</dt>
        <dd>{moment(run.startedAt)} by {run.startedBy}</dd>
        <dt>Ended</dt>
        <dd>{moment(run.finishedAt)}, {run.state}</dd>
      </dl>

      <h2>Does it add up?</h2>
      <table>
        <thead>
          <tr>
            <th>Table</th><th class="r">Rows</th>
            {#each outcomes as outcome (outcome)}<th class="r">{outcomeWord(outcome, run.kind)}</th
              >{/each}
            <th class="r">Left over</th>
          </tr>
        </thead>
        <tbody>
          {#each report.destinations as into (into.table)}
            <tr>
              <td class="m">{into.table}</td><td class="r">{count(into.rows)}</td>
              {#each outcomes as outcome (outcome)}<td class="r"
                  >{count(into[outcome as 'new'] ?? 0)}</td
                >{/each}
              <td class="r">{leftOver(into)}</td>
            </tr>
          {/each}
        </tbody>
      </table>
      {#if report.controlTotals.length}
        <table>
          <thead>
            <tr
              ><th>Sum of</th><th class="r">From the file</th><th class="r">By the application</th
              ><th class="r">{run.kind === 'rehearsal' ? 'To be written' : 'Written'}</th></tr
            >
          </thead>
          <tbody>
            {#each report.controlTotals as total (`${total.destination}.${total.field}`)}
              <tr>
                <td class="m">{total.destination}.{total.field}</td>
                <td class="r">{amount(total.source)}</td>
                <td class="r">{total.altered ? amount(total.altered) : ''}</td>
                <td class="r">{amount(total.written)}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/if}
      <p>
        {report.balanced ? 'It adds up, to the row and to the last digit.' : 'It does not add up.'}
      </p>

      <h2>Problems</h2>
      {#if report.problems.length}
        <table>
          <thead>
            <tr
              ><th class="r">Rows</th><th>Field</th><th>Reason</th><th>Such as</th><th class="r"
                >Line</th
              ></tr
            >
          </thead>
          <tbody>
            {#each report.problems as problem (`${problem.destination} ${problem.field} ${problem.code} ${problem.softened}`)}
              <tr>
                <td class="r">{count(problem.rows)}</td>
                <td class="m">{problem.field ?? ''}</td>
                <td
                  >{problem.code.replaceAll('-', ' ')}{problem.softened ? ', let go' : ''}: {problem
                    .sample.reason}</td
                >
                <td class="m">{problem.sample.value}</td>
                <td class="r">{problem.sample.row}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {:else}<p>None.</p>{/if}
      {#if report.questions.length}
        <p>
          Not answered: {report.questions
            .slice(0, 20)
            .map((q) => `${q.field} “${q.value}” (${many(q.rows, 'row')})`)
            .join(', ')}
        </p>
      {/if}

      {#if fields.length}
        <h2>Fields that change</h2>
        <table>
          <thead>
            <tr
              ><th>Field</th><th class="r">Records</th><th class="r">Filled</th><th class="r"
                >Cleared</th
              ></tr
            >
          </thead>
          <tbody>
            {#each fields as field (field.field)}
              <tr>
                <td class="m">{field.field}</td><td class="r">{count(field.records)}</td>
                <td class="r">{count(field.filled)}</td><td class="r">{count(field.cleared)}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/if}

      {#each samples as part (part.outcome)}
        <h2>{outcomeWord(part.outcome, run.kind)}, the first {part.entries.length}</h2>
        <table class="rows">
          <tbody>
            {#each part.entries as entry (`${entry.row} ${entry.part}`)}
              <tr>
                <td class="r">line {entry.line}</td>
                <td>{entry.recordKey ? `record ${entry.recordKey}` : ''}</td>
                <td>{told(entry, part.names)}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      {/each}
      <p class="signed"><span>Checked on</span><span>by</span></p>
    </article>
  {:else if run}
    <article>
      <p>There are no books of it: it is {run.state}.</p>
      <p><a class="go" href="/plans/{run.plan}/run">back to the Plan</a></p>
    </article>
  {/if}
</div>

<style>
  .sheet {
    flex: 1;
    padding: 18px 16px;
  }
  article {
    max-width: 190mm;
    margin: 0 auto;
    display: grid;
    gap: 10px;
  }
  h1 {
    font-size: 20px;
    font-weight: 700;
  }
  h2 {
    margin-top: 10px;
    border-bottom: 1px solid var(--ink);
  }
  .tools {
    display: flex;
    gap: 10px;
    align-items: center;
  }
  dl {
    display: grid;
    grid-template-columns: 110px 1fr;
    gap: 3px 12px;
  }
  dt {
    color: var(--ink-2);
  }
  .sum {
    overflow-wrap: anywhere;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th,
  td {
    text-align: left;
    padding: 3px 12px 3px 0;
    border-bottom: 1px solid var(--rule);
    vertical-align: top;
    overflow-wrap: anywhere;
  }
  th {
    font-weight: 700;
    overflow-wrap: normal;
  }
  .r {
    text-align: right;
    white-space: nowrap;
  }
  .rows td:first-child {
    width: 76px;
  }
  .rows td:nth-child(2) {
    width: 100px;
    white-space: nowrap;
  }
  .signed {
    display: flex;
    gap: 20px;
    padding-top: 34px;
  }
  .signed span {
    flex: 1;
    border-top: 1px solid var(--ink);
  }
  @media print {
    @page {
      size: A4;
      margin: 16mm 14mm;
    }
    .tools {
      display: none;
    }
    .sheet {
      padding: 0;
    }
    h2 {
      break-after: avoid;
    }
    tr {
      break-inside: avoid;
    }
  }
</style>
