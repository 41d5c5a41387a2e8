import { beforeEach, describe, expect, it, vi } from 'vitest';
import { session } from '../account/session.svelte';
import { api, ApiError } from '../api/client';
import type { Plan, PlanView } from '../api/types';
import { anOpenPlan, aReport, aRun, tablesOf } from './fixtures';
import { work } from '../run/work.svelte';
import { OpenPlan } from './plan.svelte';
import { standing } from './trip';

const plan: Plan = {
  name: 'Arrivals',
  connection: 'marina',
  reading: {},
  destinations: [
    {
      table: 'vessel',
      distinct: false,
      fills: [],
      keys: [{ fields: ['registration'], ignoring: [] }],
      decisions: [],
      policies: { onMatch: 'update', onNone: 'add', onSeveral: 'reject', onRepeat: 'keep-last' },
      checksOff: [],
    },
  ],
  run: {
    mode: 'all-or-nothing',
    whenAltered: 'accept',
    rows: 'whole',
    batchRows: 10_000,
    whenDifferent: 'go-on',
    tryInDatabase: false,
  },
  phrasebooks: [],
  corrections: [],
  links: [],
};

function view(revision: number, change: Partial<PlanView> = {}): PlanView {
  const all: Omit<PlanView, 'tables'> = {
    id: 7,
    revision,
    savedBy: 'odile',
    savedAt: '2026-11-23T09:00:00',
    plan,
    source: {
      id: 1,
      name: 'a.csv',
      rows: 10,
      blankRows: 0,
      lines: 11,
      width: 2,
      reading: { titleRows: [1] },
      sheets: [],
      entries: [],
      titles: [],
      columns: [],
      evidence: [],
      warnings: [],
      proposals: { picks: [], fillDown: [], others: [] },
      changes: [],
    },
    shown: 0,
    drafted: 0,
    table: { name: 'vessel', fields: [], primaryKey: ['id'], uniques: [], ownRules: [] },
    tableRecords: 5,
    matters: [],
    evidence: [],
    troubles: [],
    checks: [],
    lapsed: [],
    followed: [],
    ...change,
  };
  return { tables: tablesOf(all), ...all };
}

const named = (name: string) => (p: Plan) => ({ ...p, name });

describe('an open plan', () => {
  beforeEach(() => {
    vi.restoreAllMocks();
    session.enter({ name: 'odile', shownName: 'Odile' });
  });

  it('shows an edit at once, saves it after a moment, and can unmake it', async () => {
    const put = vi.spyOn(api, 'PUT').mockImplementation((async (
      _: string,
      sent: { body: { plan: Plan; revision: number } },
    ) => ({
      data: { ...view(sent.body.revision + 1), plan: sent.body.plan },
    })) as never);
    const open = new OpenPlan(view(1));
    open.edit(named('One'));
    open.edit(named('Two'));
    expect(open.plan.name).toBe('Two');
    expect(open.saving).toBe('unsaved');
    await open.save();
    expect(put).toHaveBeenCalledOnce();
    expect(open.saving).toBe('saved');
    expect(open.view.revision).toBe(2);
    open.unmake();
    expect(open.plan.name).toBe('One');
    await open.save();
    expect(open.view.revision).toBe(3);
    open.unmake();
    open.unmake();
    expect(open.plan.name).toBe('Arrivals');
    await open.save();
  });

  it('counts answers anew in a large file, until something else is edited', async () => {
    const large = { ...view(1).source, rows: 1_000_000 };
    vi.spyOn(api, 'PUT').mockImplementation((async (
      _: string,
      sent: { body: { plan: Plan; revision: number } },
    ) => ({
      data: { ...view(sent.body.revision + 1), source: large, plan: sent.body.plan },
    })) as never);
    const counts = { new: 560, changed: 388, unchanged: 223, skipped: 12, rejected: 21 };
    const others = { new: 7, changed: 0, unchanged: 0, skipped: 0, rejected: 1 };
    const post = vi.spyOn(api, 'POST').mockImplementation((async () => ({
      data: { rehearsal: 3, revision: open.view.revision, rows: 49, counts: [counts, others] },
    })) as never);
    const open = new OpenPlan({ ...view(1), source: large });
    const [vessel] = aReport().destinations;
    const destinations = [vessel!, { ...vessel!, table: 'berth' }];
    open.rehearsal = aRun({ source: 'a.csv', report: aReport({ destinations }) });
    expect(open.recounted).toBeNull();
    open.edit(named('Answered'));
    open.rehearseSoon();
    await vi.waitFor(() => expect(open.recounted?.rows).toBe(49));
    expect(post).toHaveBeenCalledOnce();
    expect(open.report?.destinations[0]).toMatchObject({ new: 560, rejected: 21, rows: 1204 });
    expect(open.report?.destinations[1]).toMatchObject({ new: 7, rejected: 1, table: 'berth' });
    expect(open.rehearsal.report?.destinations[0]?.new).toBe(511);
    expect(open.rehearsed).toBe(false);
    // a shared phrasebook has learnt a word, and the plan is as it was
    open.rehearseSoon();
    await vi.waitFor(() => expect(open.recounted?.rows).toBe(98));
    open.edit(named('Otherwise'));
    await open.save();
    expect(open.recounted).toBeNull();
    expect(open.report?.destinations[0]?.new).toBe(511);
  });

  it('takes no rehearsal for today’s once a question is answered, even while it went', async () => {
    const open = new OpenPlan(view(1));
    open.rehearsal = aRun({ source: 'a.csv' });
    expect(open.rehearsed).toBe(true);
    const post = vi.spyOn(api, 'POST').mockResolvedValue({ data: aRun({ id: 4 }) } as never);
    const ends: (() => void)[] = [];
    const follow = vi
      .spyOn(work, 'follow')
      .mockImplementation(
        ({ id }) =>
          new Promise((end) => ends.push(() => end(aRun({ id, source: 'a.csv', state: 'done' })))),
      );
    open.rehearseSoon();
    expect(open.rehearsed).toBe(false);
    await vi.waitFor(() => expect(follow).toHaveBeenCalledOnce());
    open.rehearseSoon();
    ends[0]!();
    await vi.waitFor(() => expect(open.rehearsal?.id).toBe(4));
    // it knows nothing of the second answer, so there is one more
    expect(open.rehearsed).toBe(false);
    post.mockResolvedValue({ data: aRun({ id: 5 }) } as never);
    await vi.waitFor(() => expect(follow).toHaveBeenCalledTimes(2), 3000);
    ends[1]!();
    await vi.waitFor(() => expect(open.rehearsed).toBe(true));
    expect(open.rehearsal?.id).toBe(5);
    follow.mockRestore();
  });

  it('leaves figures as they are where answers can’t be counted', async () => {
    const large = { ...view(1).source, rows: 1_000_000 };
    vi.spyOn(api, 'POST').mockResolvedValue({ data: { revision: 1, rows: 0 } } as never);
    const open = new OpenPlan({ ...view(1), source: large });
    open.rehearsal = aRun({ source: 'a.csv', revision: 0 });
    open.rehearseSoon();
    await vi.waitFor(() => expect(api.POST).toHaveBeenCalled());
    expect(open.recounted).toBeNull();
    expect(standing(open, 'rehearse').words).toBe('changed since');
  });

  it('counts a row once that is rejected in all tables', () => {
    const open = anOpenPlan();
    const [one] = aReport().destinations;
    const destinations = [one!, { ...one!, table: 'owner' }, { ...one!, table: 'berth' }];
    open.rehearsal = aRun({ report: aReport({ destinations }) });
    expect(standing(open, 'rehearse').words).toBe('70 rows rejected');
    open.edit((p) => ({ ...p, run: { ...p.run, rows: 'each' } }));
    open.saving = 'saved';
    expect(standing(open, 'rehearse').words).toBe('210 rows rejected');
  });

  it('keeps an edit that could not be saved, and saves it after signing in again', async () => {
    const put = vi
      .spyOn(api, 'PUT')
      .mockRejectedValueOnce(new ApiError(401, 'signed-out', 'signed out'))
      .mockResolvedValue({ data: view(2) } as never);
    const open = new OpenPlan(view(1));
    open.edit(named('Mine'));
    await open.save();
    expect(open.saving).toBe('unsaved');
    expect(open.plan.name).toBe('Mine');
    session.enter({ name: 'odile', shownName: 'Odile' });
    await open.save();
    expect(put).toHaveBeenCalledTimes(2);
    expect(open.saving).toBe('saved');
  });

  it('stops saving once somebody else has saved', async () => {
    const put = vi
      .spyOn(api, 'PUT')
      .mockRejectedValue(new ApiError(409, 'changed-meanwhile', 'odile saved this plan meanwhile'));
    const open = new OpenPlan(view(1));
    open.edit(named('Mine'));
    await open.save();
    expect(open.conflict).toContain('odile saved');
    await open.save();
    expect(put).toHaveBeenCalledOnce();
    expect(open.plan.name).toBe('Mine');
  });

  it('says why the server refused a change', async () => {
    vi.spyOn(api, 'PUT').mockRejectedValue(
      new ApiError(422, 'encoding', 'There is no encoding “x”.'),
    );
    const open = new OpenPlan(view(1));
    open.putReading({ encoding: 'x' });
    await open.save();
    expect(open.refusal).toContain('no encoding');
  });

  it('follows what was drafted anew, and keeps what was changed meanwhile', async () => {
    const fill = (field: string, column: string, guess?: boolean) =>
      ({
        ...view(1).plan.destinations[0]!.fills[0],
        field,
        origin: { kind: 'column', column },
        guess,
      }) as never;
    const start = view(1);
    const into = start.plan.destinations[0]!;
    const before = {
      ...start.plan,
      destinations: [{ ...into, fills: [fill('a', 'Column A'), fill('b', 'Column B')] }],
    };
    const after = {
      ...before,
      destinations: [{ ...into, fills: [fill('a', 'Reg'), fill('b', 'Name', true)] }],
    };
    vi.spyOn(api, 'PUT').mockImplementation((async (
      _: string,
      sent: { body: { plan: Plan; revision: number } },
    ) => {
      if (sent.body.revision > 1) return { data: { ...view(3), plan: sent.body.plan } };
      open.edit(named('Mine'));
      return { data: { ...view(2, { plan: after, followed: ['a', 'b'] }) } };
    }) as never);
    const open: OpenPlan = new OpenPlan(view(1, { plan: before }));
    open.putReading({ titleRows: [2] });
    await open.save();
    expect(open.plan.name).toBe('Mine');
    expect(open.fill('a')?.origin.column).toBe('Reg');
    expect(open.guesses).toEqual([{ at: 0, field: 'b' }]);
    expect(open.followed).toEqual(['a', 'b']);
    expect(standing(open, 'fill').words).toBe('1 guess to confirm');
    open.field = 'b';
    open.confirm('b');
    expect(open.field).toBe('b');
    expect(open.guesses).toEqual([]);
    expect(open.fill('b')?.origin.column).toBe('Name');
    await open.save();
  });

  it('takes the columns of another reading, and keeps what was edited meanwhile', async () => {
    const columns = [{ name: 'Sheet', letter: '', type: 'text' as const }];
    vi.spyOn(api, 'PUT').mockImplementation((async (
      _: string,
      sent: { body: { plan: Plan; revision: number } },
    ) => {
      const saved = sent.body.plan;
      open.edit(named('Meanwhile'));
      const reading = { ...saved.reading, columns };
      return { data: { ...view(sent.body.revision + 1), plan: { ...saved, reading } } };
    }) as never);
    const open = new OpenPlan(view(1));
    open.putReading({ titleRows: [2] });
    await open.save();
    expect(open.plan.reading).toEqual({ titleRows: [2], columns });
    expect(open.plan.name).toBe('Meanwhile');
  });

  it('runs nothing that is a guess', async () => {
    const post = vi.spyOn(api, 'POST');
    const start = view(1).plan;
    const into = start.destinations[0]!;
    const fills = [{ field: 'a', origin: { kind: 'column', column: 'A' }, guess: true } as never];
    const plan = { ...start, destinations: [{ ...into, fills }] };
    expect(await new OpenPlan(view(1, { plan })).start()).toBeNull();
    expect(post).not.toHaveBeenCalled();
  });

  it('does not run or rehearse what could not be saved', async () => {
    vi.spyOn(api, 'PUT').mockRejectedValue(new ApiError(422, 'encoding', 'no'));
    const post = vi.spyOn(api, 'POST');
    const open = new OpenPlan(view(1));
    open.edit(named('Mine'));
    expect(await open.start()).toBeNull();
    expect(post).not.toHaveBeenCalled();
    expect(open.busy).toBe('');
  });
});

describe('the trip line', () => {
  it('tells what is open at each stop', () => {
    const open = new OpenPlan(
      view(1, {
        troubles: [
          { field: 'length_m', distinct: 9, troubled: 2, rows: 70, questions: 0, noted: 0 },
        ],
        source: {
          ...view(1).source,
          warnings: [
            { row: 0, code: 'ambiguous-dates' as const, message: '', rows: 3, confirm: true },
            { row: 4, code: 'cell-count' as const, message: '', rows: 1, confirm: false },
          ],
        },
      }),
    );
    expect(standing(open, 'read')).toEqual({ words: '1 to confirm', tone: 'waiting', open: true });
    expect(standing(open, 'fill').words).toBe('70 values troubled');
    expect(standing(open, 'match').words).toBe('by registration');
    expect(standing(open, 'rehearse').words).toBe('not yet rehearsed');
    expect(standing(open, 'run').open).toBe(true);
  });

  it('counts required fields that nothing fills before anything else', () => {
    const open = new OpenPlan(
      view(1, { matters: [{ code: 'required-field', field: 'name', message: '' }] }),
    );
    expect(standing(open, 'fill')).toEqual({
      words: '1 field to fill',
      tone: 'waiting',
      open: true,
    });
  });

  it('warns where no key tells records apart', () => {
    const open = new OpenPlan(view(1));
    open.plan = { ...plan, destinations: [{ ...plan.destinations[0]!, keys: [] }] };
    expect(standing(open, 'match').tone).toBe('waiting');
  });

  it('says when a rehearsal is older than the plan', () => {
    const open = new OpenPlan(view(2));
    const rehearsal = {
      id: 1,
      kind: 'rehearsal',
      plan: 7,
      planName: 'Arrivals',
      revision: 1,
      source: 'a.csv',
      state: 'done',
      startedBy: 'odile',
      startedAt: '2026-11-23T09:00:00',
      rowsStanding: 0,
    };
    open.rehearsal = rehearsal;
    expect(standing(open, 'rehearse').words).toBe('changed since');
    open.rehearsal = { ...rehearsal, revision: 2 };
    expect(open.rehearsed).toBe(true);
    expect(standing(open, 'rehearse').words).toBe('clear');
  });
});

describe('runs of old', () => {
  it('are shown in the place of the last one, but only those of this plan', async () => {
    vi.restoreAllMocks();
    const run = {
      id: 3,
      kind: 'run',
      number: '2026-0003',
      plan: 7,
      planName: 'Arrivals',
      revision: 1,
      source: 'a.csv',
      state: 'done',
      startedBy: 'odile',
      startedAt: '2026-11-20T09:00:00',
    };
    const get = vi.spyOn(api, 'GET').mockResolvedValue({ data: run } as never);
    const open = new OpenPlan(view(4));
    await open.showRun(3);
    expect(open.run?.number).toBe('2026-0003');
    expect(open.ran).toBe(false);
    await open.showRun(3);
    expect(get).toHaveBeenCalledOnce();
    get.mockResolvedValue({ data: { ...run, id: 9, plan: 8 } } as never);
    await open.showRun(9);
    expect(open.run?.id).toBe(3);
  });

  it('takes no rehearsal for today’s once a run before it is taken back', () => {
    const open = anOpenPlan();
    open.rehearsal = aRun({ id: 5, kind: 'rehearsal', report: aReport() });
    open.run = aRun({ id: 4, kind: 'run' });
    expect(open.rehearsed).toBe(true);
    open.run = { ...open.run, undoneBy: { id: 6, state: 'done' } };
    expect(open.rehearsed).toBe(false);
  });

  it('knows that a rehearsal was run also where an older run is shown', async () => {
    const open = anOpenPlan();
    open.rehearsal = aRun({ id: 5, kind: 'rehearsal', report: aReport() });
    open.run = aRun({ id: 6, kind: 'run' });
    expect(open.rehearsed).toBe(false);
    vi.spyOn(api, 'GET').mockResolvedValue({ data: aRun({ id: 2, kind: 'run' }) } as never);
    await open.showRun(2);
    expect(open.run?.id).toBe(2);
    expect(open.rehearsed).toBe(false);
  });
});
