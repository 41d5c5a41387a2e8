import { vi } from 'vitest';
import { api } from '../api/client';
import type { FieldInfo, Fill, LedgerEntry, PlanView, RunReport, RunView } from '../api/types';
import { OpenPlan } from './plan.svelte';

// Small pieces of a plan for tests.

export function aField(name: string, change: Partial<FieldInfo> = {}): FieldInfo {
  return {
    name,
    type: 'text',
    nullable: true,
    hasDefault: false,
    generated: false,
    unique: false,
    jdbcType: 12,
    typeName: 'text',
    ...change,
  };
}

export function aFill(field: string, column: string, change: Partial<Fill> = {}): Fill {
  return {
    field,
    origin: { kind: 'column', column },
    steps: [],
    whenBlank: 'leave',
    blankOnMatch: 'keep',
    whenBad: 'reject',
    onlyNew: false,
    ...change,
  };
}

export function aView(change: Partial<PlanView> = {}): PlanView {
  const column = (name: string, letter: string) => ({
    name,
    letter,
    type: 'text' as const,
    locale: { decimal: ',', dateOrder: 'day-month-year' as const },
    blank: 0,
    distinct: 3,
    distinctCapped: false,
    longest: 8,
    ambiguous: false,
    samples: [],
    misfits: [],
    findings: [],
  });
  const view: Omit<PlanView, 'tables'> = {
    id: 7,
    revision: 1,
    savedBy: 'odile',
    savedAt: '2026-11-23T09:00:00',
    plan: {
      name: 'Arrivals',
      connection: 'marina',
      reading: {},
      destinations: [
        {
          table: 'vessel',
          distinct: false,
          fills: [aFill('registration', 'Reg No'), aFill('name', 'Boat name')],
          keys: [{ fields: ['registration'], ignoring: ['case'] }],
          decisions: [],
          policies: {
            onMatch: 'update',
            onNone: 'add',
            onSeveral: 'reject',
            onRepeat: 'keep-last',
          },
          checksOff: [],
        },
      ],
      run: {
        mode: 'all-or-nothing',
        batchRows: 10_000,
        whenAltered: 'accept',
        rows: 'whole',
        whenDifferent: 'go-on',
        tryInDatabase: false,
      },
      phrasebooks: [],
      corrections: [],
      links: [],
    },
    source: {
      id: 1,
      name: 'arrivals.csv',
      rows: 1204,
      blankRows: 0,
      lines: 1205,
      width: 3,
      reading: {
        format: 'delimited',
        encoding: 'UTF-8',
        delimiter: ';',
        titleRows: [1],
        firstRow: 2,
        lastRow: 1205,
        locale: { decimal: ',', dateOrder: 'day-month-year' },
      },
      sheets: [],
      entries: [],
      titles: ['Reg No', 'Boat name', 'Colour'].map((title, i) => ({
        name: title,
        title,
        letter: 'ABC'[i]!,
      })),
      columns: [column('Reg No', 'A'), column('Boat name', 'B'), column('Colour', 'C')],
      evidence: [{ setting: 'delimiter', value: ';', because: '9 of 9 lines part into 3 cells' }],
      warnings: [],
      proposals: { picks: [], fillDown: [], others: [] },
      changes: [],
    },
    shown: 0,
    drafted: 0,
    table: {
      name: 'vessel',
      fields: [
        aField('id', { type: 'whole', generated: true, nullable: false }),
        aField('registration', { nullable: false, unique: true, length: 10 }),
        aField('name', { nullable: false }),
        aField('notes'),
      ],
      primaryKey: ['id'],
      uniques: [['registration']],
      ownRules: [],
    },
    tableRecords: 1873,
    checks: [],
    lapsed: [],
    followed: [],
    matters: [],
    evidence: [],
    troubles: [],
    ...change,
  };
  return { tables: tablesOf(view), ...view };
}

/** What a view says of its tables, if all that is known is about the one that is shown. */
export function tablesOf(view: Omit<PlanView, 'tables'>): PlanView['tables'] {
  const sum = (of: 'rows' | 'questions') => view.troubles.reduce((all, t) => all + t[of], 0);
  return view.plan.destinations.map((d, at) => ({
    name: d.name ?? d.table,
    table: d.table,
    rows: view.source.rows,
    matters: at === view.shown ? view.matters : [],
    troubled: at === view.shown ? sum('rows') : 0,
    questions: at === view.shown ? sum('questions') : 0,
  }));
}

let opened: OpenPlan;

export function anOpenPlan(change: Partial<PlanView> = {}): OpenPlan {
  return (opened = new OpenPlan(aView(change)));
}

/** Lets a save, whenever it comes, leave the view of the plan that was opened last as it is. */
export function savesInto() {
  return vi
    .spyOn(api, 'PUT')
    .mockImplementation((() => Promise.resolve({ data: opened.view })) as never);
}

export function aReport(change: Partial<RunReport> = {}): RunReport {
  return {
    plan: 'Arrivals',
    source: 'arrivals.csv',
    state: 'done',
    read: 1204,
    destinations: [
      {
        table: 'vessel',
        new: 511,
        changed: 388,
        unchanged: 223,
        skipped: 12,
        rejected: 70,
        fieldsChanged: [{ field: 'name', records: 388 }],
        rows: 1204,
      },
    ],
    questions: [],
    problems: [],
    created: [],
    createdIn: [],
    controlTotals: [],
    balanced: true,
    seconds: 0.4,
    rowsPerSecond: 3010,
    ...change,
  };
}

export function aRun(change: Partial<RunView> = {}): RunView {
  return {
    id: 3,
    kind: 'rehearsal',
    plan: 7,
    planName: 'Arrivals',
    revision: 1,
    source: 'arrivals.csv',
    state: 'done',
    startedBy: 'odile',
    startedAt: '2026-11-23T09:00:00',
    report: aReport(),
    rowsStanding: 0,
    ...change,
  };
}

export function anEntry(line: number, change: Partial<LedgerEntry> = {}): LedgerEntry {
  return {
    line,
    row: line - 2,
    part: 0,
    outcome: 'new',
    matchedBy: 0,
    after: [`QH-${line}`, `Boat ${line}`],
    changed: [],
    notes: [],
    ...change,
  };
}
