import { render, screen } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import { anOpenPlan, aReport, aRun } from '../plan/fixtures';
import Run from './Run.svelte';
import { work } from './work.svelte';

const total = {
  destination: 'vessel',
  field: 'length_m',
  source: 14022.7,
  altered: 0,
  written: 14022.7,
};

describe('the Run stop', () => {
  let differences = { total: 0, first: [] as object[] };
  beforeEach(() => {
    vi.restoreAllMocks();
    differences = { total: 0, first: [] };
    vi.spyOn(api, 'GET').mockImplementation((async (path: string) => ({
      data: path.endsWith('differences') ? differences : { fields: [], total: 0, entries: [] },
    })) as never);
  });

  function show(run = aRun({ id: 4, kind: 'run', number: '2026-0001' })) {
    const open = anOpenPlan();
    open.run = run;
    render(Run, { open, goTo: vi.fn() });
    return open;
  }

  it('ends in books that balance', async () => {
    show(
      aRun({
        id: 4,
        kind: 'run',
        number: '2026-0001',
        report: aReport({ run: '2026-0001', controlTotals: [total] }),
      }),
    );
    expect(screen.getByText(/Yes, to the row/)).toBeInTheDocument();
    const sum = screen.getByText('length_m').closest('tr')!;
    expect(sum).toHaveTextContent('file 14,022.70');
    expect(sum).toHaveTextContent('read back from the table 14,022.70');
    expect(sum).toHaveTextContent('0.00');
    expect(screen.getByRole('link', { name: '511 new records' })).toHaveAttribute(
      'href',
      '/records/marina/vessel?run=4&outcome=new',
    );
  });

  it('has a place for what the application itself changed', () => {
    const changed = { ...total, altered: 2, written: total.source + 2 };
    show(
      aRun({
        id: 4,
        kind: 'run',
        report: aReport({ run: '2026-0001', controlTotals: [changed] }),
      }),
    );
    const sum = screen.getByText('length_m').closest('tr')!;
    expect(sum).toHaveTextContent('file 14,022.70 + changed there 2.00 = table 14,024.70');
    expect(sum.lastElementChild).toHaveTextContent('0.00');
  });

  it('says so where they do not', () => {
    show(
      aRun({
        id: 4,
        kind: 'run',
        report: aReport({
          balanced: false,
          destinations: [{ ...aReport().destinations[0]!, rows: 1205 }],
        }),
      }),
    );
    expect(screen.getByText('No: this run is faulty')).toBeInTheDocument();
    expect(
      screen.getByText('Rows', { selector: 'b' }).closest('tr')!.lastElementChild,
    ).toHaveTextContent('1');
  });

  it('tells which rows came out otherwise than rehearsed', async () => {
    differences = {
      total: 9,
      first: [
        { line: 12, rehearsed: 'new', came: 'unchanged', why: 'the record was added in between' },
      ],
    };
    show();
    const said = await screen.findByText(/9 rows came out otherwise/);
    expect(said.parentElement).toHaveTextContent('line 12 unchanged, not new');
    expect(said.parentElement).toHaveTextContent('and 3 more');
  });

  it('runs nothing that is unrehearsed', () => {
    const open = anOpenPlan();
    render(Run, { open, goTo: vi.fn() });
    expect(screen.getByText(/Nothing runs unrehearsed/)).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /^Run/ })).toBeNull();
  });

  it('says before it begins what will be written', () => {
    const open = anOpenPlan();
    open.rehearsal = aRun();
    render(Run, { open, goTo: vi.fn() });
    const row = screen.getByRole('cell', { name: 'vessel' }).closest('tr')!;
    const cells = [...row.cells].map((cell) => cell.textContent.trim());
    expect(cells).toEqual(['vessel', '1,204', '511', '388', '223', '12', '70']);
    expect(screen.getByRole('button', { name: 'Add 511 and change 388 records' })).toBeEnabled();
    expect(screen.getByText(/70 rejected rows stay in the file/)).toBeInTheDocument();
  });

  it('counts what is rejected by table, as a row may be rejected in each', () => {
    const open = anOpenPlan();
    const [vessel] = aReport().destinations;
    const berth = { ...vessel!, table: 'berth', rejected: 1_063 };
    open.rehearsal = aRun({ report: aReport({ destinations: [vessel!, berth] }) });
    render(Run, { open, goTo: vi.fn() });
    expect(
      screen.getByText(/The rejected rows \(70 of vessel, 1,063 of berth\) stay in the file/),
    ).toBeInTheDocument();
  });

  it('offers no run that the database was seen to refuse', () => {
    const open = anOpenPlan();
    const sample = { row: 6, value: '', reason: 'the database refused it: odd', rows: 4 };
    const problem = {
      code: 'refused' as const,
      destination: 'vessel',
      reason: sample.reason,
      softened: false,
      rows: 4,
      sample,
      values: [sample],
    };
    open.rehearsal = aRun({ report: aReport({ problems: [problem] }) });
    render(Run, { open, goTo: vi.fn() });
    expect(screen.getByText(/refuses 4 rows: nothing would be written/)).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /^Add/ })).toBeNull();
  });

  it('offers no run that would write nothing', () => {
    const open = anOpenPlan();
    const report = aReport();
    Object.assign(report.destinations[0]!, { new: 0, changed: 0, unchanged: 1122 });
    open.rehearsal = aRun({ report });
    render(Run, { open, goTo: vi.fn() });
    expect(screen.getByText(/Nothing to write/)).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: /^(Add|Change)/ })).toBeNull();
  });

  it('tells why a run failed', () => {
    show(
      aRun({
        id: 4,
        kind: 'run',
        number: '2026-0002',
        state: 'failed',
        report: undefined,
        message: 'The database refused line 8. Nothing was written.',
      }),
    );
    expect(screen.getByRole('alert')).toHaveTextContent('The database refused line 8');
  });

  it('goes on with a run that was cut off, or takes back what stands', () => {
    const open = show(
      aRun({
        id: 4,
        kind: 'run',
        number: '2026-0002',
        state: 'interrupted',
        rowsStanding: 8191,
        message: 'The server stopped while it went on.',
        keptUntil: '2027-11-23T09:00:00',
      }),
    );
    const resume = vi.spyOn(open, 'resume').mockResolvedValue(null);
    expect(screen.getByText(/Run 2026-0002 was cut off/)).toBeInTheDocument();
    expect(screen.getByText(/interrupted after 8,191 rows/)).toBeInTheDocument();
    expect(screen.getByRole('button', { name: /Take back what stands/ })).toBeEnabled();
    screen.getByRole('button', { name: 'Go on with it' }).click();
    expect(resume).toHaveBeenCalledOnce();
  });

  it('can be paused where it goes in batches', async () => {
    const open = anOpenPlan();
    open.plan = { ...open.plan, run: { ...open.plan.run, mode: 'batches' } };
    const post = vi.spyOn(api, 'POST').mockResolvedValue({ data: undefined } as never);
    work.hear([
      {
        id: 9,
        kind: 'run',
        number: '2026-0003',
        plan: open.view.id,
        planName: 'Arrivals',
        startedBy: 'pem',
        phase: 'writing',
        rows: 4096,
        total: 13_000,
        rejected: 2,
      },
    ]);
    render(Run, { open, goTo: vi.fn() });
    expect(screen.getByRole('status')).toHaveTextContent(
      'writing, 4,096 of 13,000 rows, 2 rejected',
    );
    screen.getByRole('button', { name: /^Pause/ }).click();
    await vi.waitFor(() => expect(post).toHaveBeenCalledOnce());
    expect(post.mock.calls[0]).toEqual(['/api/runs/{id}/stop', { params: { path: { id: 9 } } }]);
    work.hear([]);
  });

  it('sets aside what the database refused when it tried, and rehearses anew', async () => {
    const open = anOpenPlan();
    const refused = { code: 'refused', destination: 'vessel', rows: 1, values: [] };
    const report = aReport();
    open.rehearsal = aRun({
      kind: 'rehearsal',
      report: { ...report, problems: [...report.problems, refused as never] },
    });
    vi.spyOn(open, 'rehearsed', 'get').mockReturnValue(true);
    const rehearse = vi.spyOn(open, 'rehearse').mockResolvedValue(null);
    render(Run, { open, goTo: vi.fn() });
    expect(screen.getByText(/refuses 1 row: nothing would be written/)).toBeInTheDocument();
    screen.getByRole('button', { name: 'Set it aside' }).click();
    await vi.waitFor(() => expect(rehearse).toHaveBeenCalledOnce());
    expect(open.plan.run.mode).toBe('set-aside');
    expect(screen.queryByText(/nothing would be written/)).toBeNull();
  });

  it('shows what is about to happen and not the run before it, which a link leads to', async () => {
    const open = anOpenPlan();
    open.rehearsal = aRun({ kind: 'rehearsal', report: aReport() });
    open.run = aRun({ id: 12, number: '2026-0001', report: aReport() });
    vi.spyOn(open, 'rehearsed', 'get').mockReturnValue(true);
    render(Run, { open, goTo: vi.fn() });
    expect(screen.getByText('What is about to happen')).toBeInTheDocument();
    expect(screen.queryByText('Does it add up?')).toBeNull();
    expect(screen.getByRole('link', { name: '2026-0001' })).toHaveAttribute(
      'href',
      '/plans/7/run?run=12',
    );
  });
});
