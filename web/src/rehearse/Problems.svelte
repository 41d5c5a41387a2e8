<script lang="ts">
  import type { Snippet } from 'svelte';
  import { api, got } from '../api/client';
  import { OF_ANOTHER } from '../api/codes';
  import type { ProblemGroup, RunReport, StepHelp } from '../api/types';
  import type { OpenPlan } from '../plan/plan.svelte';
  import Slip from '../ui/Slip.svelte';
  import { count, many } from '../ui/words';
  import { region } from '../ui/region';
  import { tell } from '../ui/toaster';
  import { grouped } from './asked';
  import type { Only } from './entries.svelte';
  import Mend from './Mend.svelte';

  interface Props {
    open: OpenPlan;
    report: RunReport;
    show: (field: string, value: string, only?: Only) => void;
    fix?: (field: string, at: number) => void;
    /** The rehearsal or run whose rejected rows can be taken away. */
    run: number;
    /** Stands above, in the place of the questions. */
    lead?: Snippet;
    children?: Snippet;
  }
  let { open, report, run, show, fix, lead, children }: Props = $props();

  /** The problem that is being mended here. */
  let mending = $state('');
  let kinds = $state.raw<StepHelp[]>([]);

  async function mend(id: string) {
    mending = id;
    try {
      if (id && !kinds.length) kinds = await got(api.GET('/api/steps'));
    } catch (error) {
      tell(error);
    }
  }

  /** The tables that rows were rejected in; a row may have been in several. */
  const left = $derived(report.destinations.filter((d) => d.rejected > 0));
  const follows = (p: ProblemGroup) => OF_ANOTHER.includes(p.code);
  const rejecting = $derived([
    ...report.problems.filter((p) => !p.softened && !follows(p)),
    ...report.problems.filter((p) => !p.softened && follows(p)),
  ]);
  const altered = $derived(report.problems.filter((p) => p.code === 'altered'));
  const softened = $derived(report.problems.filter((p) => p.softened && p.code !== 'altered'));
  const tables = $derived(report.destinations.map((d) => d.table));
  /** Number of the destination of a problem. */
  const place = (of: { destination: string }) => Math.max(0, tables.indexOf(of.destination));
  /** What concerns another table than the first is named with it. */
  const named = (of: { destination: string; field?: string | null }) =>
    place(of) ? [of.destination, of.field].filter(Boolean).join('.') : (of.field ?? '');
  const asked = $derived(grouped(report.questions, tables));
  const made = $derived(
    report.createdIn.map(({ table, records }) => ({
      table,
      records,
      first: report.created.filter((c) => c.table === table).slice(0, 6),
    })),
  );
  const waiting = $derived(asked.reduce((sum, q) => sum + q.rows, 0));

  const only = (group: ProblemGroup): Only => ({
    table: place(group) || undefined,
    problem: group.code,
    field: group.field || undefined,
    said: cause(group),
  });

  function cause(group: ProblemGroup): string {
    switch (group.code) {
      case 'unknown-link': {
        const isShown = place(group) === open.view.shown;
        const fields = isShown ? open.view.table.fields : [];
        const link = fields.find((f) => f.name === group.field)?.link;
        return `not found in ${link?.table ?? 'the other table'}`;
      }
      case 'defaulted':
        return 'blank, the default is used';
      case 'cut':
        return 'longer than it may be';
      case 'check':
        return group.reason;
      case 'said-otherwise':
        return 'says another thing of the record than the row that it is made of';
      case 'not-a-number':
        return 'not a number';
      case 'not-a-date':
        return 'not a date';
      case 'required':
        return 'blank, and required';
      default:
        return group.reason;
    }
  }
</script>

<section class="problems">
  <div class="scroll middle" {@attach region('Questions and problems')}>
    {#if lead}{@render lead()}
    {:else if asked.length}
      <div class="bt">
        <h2>Questions</h2>
        <span class="o waiting"
          ><Slip of="waiting" />{many(report.questions.length, 'word')} in {many(
            waiting,
            'row',
          )}</span
        >
      </div>
      <div class="questions">
        {#each asked as question (question.name + question.kind)}
          <div class="group" data-code="question">
            <b class="waiting r n">{count(question.rows)}</b>
            <div>
              <b class="m">{question.name}</b>
              {question.kind === 'words' ? 'knows no such word' : 'is of no record, or of several'}
              <div class="values">
                {#each question.words.filter((w) => w.value).slice(0, 6) as word (word.value)}
                  <button
                    class="value"
                    title="show its rows"
                    onclick={() => show(question.field, word.value)}
                  >
                    <span class="m">{word.value}</span> <span class="q">{count(word.rows)}</span>
                  </button>
                {/each}
                {#if question.words.length > 6}<span class="q"
                    >and {question.words.length - 6} more</span
                  >{/if}
              </div>
            </div>
          </div>
        {/each}
      </div>
    {/if}
    <div class="bt">
      <h2>Problems by cause</h2>
      {#if rejecting.length}<span class="o rejected"
          ><Slip of="rejected" />{many(rejecting.length, 'cause')}</span
        >
      {:else}<span class="o new"><Slip of="check" />none</span>{/if}
    </div>
    {#if left.length}
      <p class="away q2">
        Take {report.destinations.length > 1
          ? 'the rows that are left out'
          : left[0]!.rejected === 1
            ? 'this row'
            : `these ${count(left[0]!.rejected)} rows`} away to be corrected:
        <a class="go" href="/api/runs/{run}/returns?format=xlsx" download>workbook</a>
        <a class="go" href="/api/runs/{run}/returns?format=csv" download>text</a>
      </p>
    {/if}
    <div class="list">
      {#each rejecting as group (`${named(group)} ${group.code}`)}
        <div class="group" data-code={group.code}>
          <button
            class="rejected r n rows"
            title="show its rows"
            onclick={() => show(group.field ?? '', '', only(group))}>{count(group.rows)}</button
          >
          <div>
            <b class="m">{named(group)}</b>
            {cause(group)}
            <div class="values">
              {#each mending === `${named(group)} ${group.code}` ? [] : group.values.slice(0, 5) as value (value.value)}
                <button
                  class="value"
                  title="{value.reason}, first on line {value.row}"
                  onclick={() => show(group.field ?? '', value.value, only(group))}
                >
                  <span class="m"
                    >{value.value || (group.field ? 'blank' : `line ${count(value.row)}`)}</span
                  >
                  <span class="q">{count(value.rows)}</span>
                </button>
              {/each}
            </div>
          </div>
          {#if group.field && fix && !follows(group)}
            {@const id = `${named(group)} ${group.code}`}
            <button
              class="button small"
              aria-expanded={mending === id}
              onclick={() => void mend(mending === id ? '' : id)}>Mend</button
            >
            {#if mending === id}<Mend
                {open}
                {group}
                at={place(group)}
                {kinds}
                fill={() => fix(group.field!, place(group))}
              />{/if}
          {/if}
        </div>
      {/each}
      {#if made.length}
        <div class="bt soft">
          <h2>Linked records {report.run ? 'made' : 'to be made'}</h2>
        </div>
        {#each made as group (group.table)}
          <div class="group">
            <b class="new r n">{count(group.records)}</b>
            <div>
              <b class="m">{group.table}</b>
              <div class="values">
                {#each group.first as record (record.value)}
                  <span class="value m" title="first needed on line {record.row}"
                    >{record.value}</span
                  >
                {/each}
              </div>
            </div>
          </div>
        {/each}
      {/if}
      {#if altered.length}
        <div class="bt soft"><h2>Changed by the application</h2></div>
        {#each altered as group (named(group))}
          <div class="group">
            <b class="changed r n">{count(group.rows)}</b>
            <div>
              <b class="m">{named(group)}</b> keeps other values than it was given:
              <span class="m">{group.sample.value}</span> on line {group.sample.row}, and {group
                .sample.reason}
            </div>
          </div>
        {/each}
      {/if}
      {#if softened.length}
        <div class="bt soft"><h2>Let go, as the Plan says</h2></div>
        {#each softened as group (`${named(group)} ${group.code}`)}
          <div class="group">
            <b class="skipped r n">{count(group.rows)}</b>
            <div>
              <b class="m">{named(group)}</b>
              {cause(group)}{group.code === 'cut'
                ? ', cut'
                : group.code === 'defaulted' || group.code === 'said-otherwise'
                  ? ''
                  : ', written without it'}
            </div>
          </div>
        {/each}
      {/if}
    </div>
  </div>
  {@render children?.()}
</section>

<style>
  .problems {
    width: min(440px, 36vw);
    border-right: 1px solid var(--ink);
    display: flex;
    flex-direction: column;
    min-height: 0;
  }
  .middle {
    flex: 1;
    min-height: 110px;
  }
  @media (max-width: 900px) {
    .problems {
      width: auto;
    }
  }
  .away {
    padding: 5px 12px 7px 16px;
    border-top: 1px solid var(--rule);
    flex: none;
  }
  .group {
    display: grid;
    grid-template-columns: minmax(34px, max-content) minmax(0, 1fr) auto;
    overflow-wrap: anywhere;
    gap: 10px;
    padding: 7px 12px 8px 12px;
    border-top: 1px solid var(--rule);
    align-items: start;
  }
  .n {
    font-size: 14px;
    white-space: nowrap;
  }
  .rows {
    font-weight: 700;
    cursor: pointer;
    align-self: start;
  }
  .rows:hover {
    text-decoration: underline;
  }
  .values {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 6px;
    padding-top: 4px;
  }
  .value {
    border: 1px solid var(--rule);
    background: var(--sheet);
    padding: 0 6px;
    line-height: 20px;
    cursor: pointer;
    max-width: 100%;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .soft {
    border-top: 1px solid var(--ink);
  }
</style>
