import { render, screen, within } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { tick } from 'svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import type { FieldChange, LedgerPage, Since } from '../api/types';
import { anEntry, anOpenPlan, aReport, aRun } from '../plan/fixtures';
import { keyboard } from '../ui/keys.svelte';
import Rehearse from './Rehearse.svelte';

const page: LedgerPage = {
  fields: ['registration', 'name'],
  total: 2,
  entries: [
    anEntry(10, {
      outcome: 'changed',
      matchedBy: 1,
      recordKey: '931',
      before: ['QH-10', 'Old name'],
      changed: [1],
    }),
    anEntry(13, {
      outcome: 'rejected',
      after: ['QH-13', null as unknown as string],
      notes: [
        {
          code: 'too-long',
          field: 'name',
          value: 'A long name',
          reason: 'room for 5',
          softened: false,
          question: false,
        },
      ],
    }),
  ],
};

const problems = [
  {
    code: 'too-long' as const,
    destination: 'vessel',
    field: 'name',
    reason: 'room for 5',
    softened: false,
    rows: 70,
    sample: { row: 13, value: 'A long name', reason: 'room for 5', rows: 60 },
    values: [{ row: 13, value: 'A long name', reason: 'room for 5', rows: 60 }],
  },
];

const since: Since = {
  at: '2026-11-26T09:14:00',
  comparable: true,
  moves: [
    { table: 'vessel', from: 'waiting', to: 'new', rows: 12, lines: [5, 6, 7, 8, 9] },
    { table: 'vessel', from: 'rejected', to: 'changed', rows: 1, lines: [70] },
  ],
};

const fields: FieldChange[] = [
  {
    field: 'length_m',
    records: 300,
    filled: 12,
    cleared: 0,
    largest: { line: 44, from: '9.5', to: '12.25' },
    before: 4210.5,
    after: 4318.75,
  },
  {
    field: 'name',
    records: 88,
    filled: 0,
    cleared: 3,
    appear: [{ value: 'Wren', records: 2 }],
    vanish: [],
  },
];

describe('the Rehearse stop', () => {
  const get = vi.fn();
  beforeEach(() => {
    vi.restoreAllMocks();
    get.mockReset().mockImplementation((path: string) => {
      if (path.endsWith('/since')) return Promise.resolve({ data: { since } });
      if (path.endsWith('/tables/{table}'))
        return Promise.resolve({ data: { fields: [{ name: 'length_m', link: {} }] } });
      return Promise.resolve({ data: path.endsWith('/fields') ? fields : page });
    });
    vi.spyOn(api, 'GET').mockImplementation(get as never);
  });

  function show(change = {}) {
    const open = anOpenPlan(change);
    open.rehearsal = aRun({ report: aReport({ problems }) });
    const goTo = vi.fn();
    render(Rehearse, { open, goTo });
    return { open, goTo };
  }

  it('tells the outcomes of all rows and the problems by cause', async () => {
    show();
    expect(screen.getByText('1,204')).toBeInTheDocument();
    expect(screen.getByText('388', { selector: '[data-outcome=changed] *' })).toBeInTheDocument();
    const problem = document.querySelector<HTMLElement>('[data-code=too-long]')!;
    expect(problem).toHaveTextContent('70');
    expect(problem).toHaveTextContent('room for 5');
    expect(await screen.findByText('name: “A long name” room for 5')).toBeInTheDocument();
  });

  it('tells what the application changed as its own doing, not as something let go', () => {
    const open = anOpenPlan();
    const sample = { row: 3, value: 'Wren', reason: 'the application made it “WREN”', rows: 40 };
    open.rehearsal = aRun({
      report: aReport({
        problems: [
          {
            ...problems[0]!,
            code: 'altered',
            softened: true,
            rows: 40,
            reason: sample.reason,
            sample,
            values: [sample],
          },
        ],
      }),
    });
    render(Rehearse, { open, goTo: vi.fn() });
    expect(screen.getByText('Changed by the application')).toBeInTheDocument();
    expect(document.body).toHaveTextContent('Wren on line 3, and the application made it “WREN”');
    expect(screen.queryByText(/Let go/)).toBeNull();
    expect(screen.queryByText(/written without it/)).toBeNull();
  });

  it('asks the ledger for the rows behind a value', async () => {
    show();
    await userEvent.click(screen.getByRole('button', { name: /A long name/ }));
    expect(asked().params.query).toMatchObject({ outcome: 'rejected', search: 'A long name' });
    expect(await screen.findByText(/rows? holds? “A long name”/)).toBeInTheDocument();
    get.mockReturnValue(new Promise(() => undefined));
    await userEvent.type(screen.getByLabelText('Find in the ledger'), 's');
    expect(await screen.findByText('Looking through all rows…')).toBeInTheDocument();
  });

  it('shows the ledger of each table, and leads to rows with a problem in another one', async () => {
    const open = anOpenPlan();
    const owner = { ...aReport().destinations[0]!, table: 'owner', new: 3, changed: 2 };
    open.rehearsal = aRun({
      report: aReport({
        destinations: [aReport().destinations[0]!, owner],
        problems: [{ ...problems[0]!, destination: 'owner' }],
      }),
    });
    render(Rehearse, { open, goTo: vi.fn() });
    expect(asked().params.query).toMatchObject({ destination: 0 });
    await userEvent.selectOptions(screen.getByLabelText('Table'), 'owner');
    expect(asked().params.query).toMatchObject({ destination: 1 });
    expect(location.search).toBe('?table=1');
    // there the first of its fields is a link, whose numbers add up to nothing
    await userEvent.click(screen.getByRole('button', { name: 'Fields' }));
    const link = (await screen.findByRole('button', { name: 'length_m' })).closest('tr')!;
    expect(link).not.toHaveTextContent('4,210.5');
    await userEvent.click(screen.getByRole('button', { name: 'Fields' }));
    await userEvent.selectOptions(screen.getByLabelText('Table'), 'vessel');
    await userEvent.click(screen.getByRole('button', { name: /A long name/ }));
    expect(asked().params.query).toMatchObject({ destination: 1, problem: 'too-long' });
    expect(screen.getByLabelText('Table')).toHaveDisplayValue('owner');
    history.replaceState(null, '', location.pathname);
  });

  /** The last page of the ledger that was asked for; not what its rows make besides. */
  const asked = () =>
    get.mock.calls
      .filter((c) => String(c[0]).endsWith('/ledger') && c[1].params.query.limit === 100)
      .at(-1)?.[1];

  it('shows all rows with a problem, and all rows again', async () => {
    show();
    await userEvent.click(screen.getByRole('button', { name: '70' }));
    expect(asked().params.query).toMatchObject({
      outcome: 'rejected',
      problem: 'too-long',
      field: 'name',
      search: undefined,
    });
    await userEvent.click(screen.getByRole('button', { name: 'all rows' }));
    expect(asked().params.query).toMatchObject({ problem: undefined, field: undefined });
  });

  it('tells what becomes of each field, and shows the rows that change it', async () => {
    show();
    await userEvent.click(screen.getByRole('button', { name: 'Fields' }));
    const length = (await screen.findByRole('button', { name: 'length_m' })).closest('tr')!;
    expect(length).toHaveTextContent('4,210.5 → 4,318.75');
    expect(length).toHaveTextContent('farthest, line 44 9.5 → 12.25');
    expect(screen.getByText('Wren (2)')).toBeInTheDocument();
    await userEvent.click(within(length).getByRole('button', { name: 'length_m' }));
    expect(asked().params.query).toMatchObject({ outcome: 'changed', changed: 'length_m' });
    expect(screen.getByText(/Only rows/)).toHaveTextContent('Only rows that change length_m');
  });

  it('tells what moved since the rehearsal before', async () => {
    show();
    const moved = await screen.findByRole('button', { name: '12 rows from Waiting to New' });
    expect(moved).toHaveAttribute('title', 'lines 5, 6, 7, 8, 9, …');
    expect(screen.getByText('1 row from Rejected to Changed')).toBeInTheDocument();
    await userEvent.click(moved);
    expect(asked().params.query).toMatchObject({ outcome: 'new' });
  });

  it('tells of a row why each field stands as it does', async () => {
    show();
    const why = await screen.findByRole('region', { name: 'Why' });
    const name = within(why).getByText('name').closest('tr')!;
    expect(name).toHaveTextContent('Old name');
    expect(name).toHaveTextContent('Boat 10');
    await userEvent.click(screen.getByText('13', { selector: '.ln' }));
    expect(within(why).getByText('room for 5')).toBeInTheDocument();
  });

  it('lets the rejected rows be taken away as a file', () => {
    show();
    const id = aRun().id;
    expect(screen.getByRole('link', { name: 'workbook' })).toHaveAttribute(
      'href',
      `/api/runs/${id}/returns?format=xlsx`,
    );
  });

  it('lets the rows be taken away that another table than the first rejected', () => {
    const [first] = aReport().destinations;
    const clean = { ...first!, rejected: 0 };
    const open = anOpenPlan();
    open.rehearsal = aRun({
      report: aReport({ destinations: [clean, { ...first!, table: 'berth', rejected: 7 }] }),
    });
    render(Rehearse, { open, goTo: vi.fn() });
    expect(screen.getByRole('link', { name: 'workbook' })).toBeInTheDocument();
    expect(screen.getByText(/Take the rows that are left out away/)).toBeInTheDocument();
  });

  it('mends a problem where it is listed, and leads to its field', async () => {
    vi.spyOn(api, 'POST').mockImplementation(((path: string) =>
      Promise.resolve({ data: path.endsWith('/trials') ? [] : { rows: [] } })) as never);
    const { open, goTo } = show();
    await userEvent.click(screen.getByRole('button', { name: 'Mend' }));
    expect(screen.getByRole('button', { name: 'Mend' })).toHaveAttribute('aria-expanded', 'true');
    await userEvent.click(screen.getByRole('button', { name: 'all of it in Fill' }));
    expect(open.field).toBe('name');
    expect(goTo).toHaveBeenCalledWith('fill');
  });

  it('opens the way to the Run only for what was rehearsed', async () => {
    const { open, goTo } = show();
    const on = screen.getByRole('button', { name: 'Go on to the Run' });
    await userEvent.click(on);
    expect(goTo).toHaveBeenCalledWith('run');
    open.rehearsal = { ...open.rehearsal!, revision: 0 };
    expect(await screen.findByText(/changed after this rehearsal/)).toBeInTheDocument();
    expect(on).toBeDisabled();
  });

  it('shows the figures that answers make, and says what they count', async () => {
    const { open } = show();
    open.view = { ...open.view, source: { ...open.view.source, rows: 900_000 } };
    open.rehearsal = { ...open.rehearsal!, revision: 0 };
    const counts = {
      new: 560,
      changed: 388,
      unchanged: 223,
      skipped: 12,
      rejected: 60,
      waiting: 39,
    };
    const { revision } = open.view;
    vi.spyOn(api, 'POST').mockResolvedValue({
      data: { rehearsal: open.rehearsal.id, revision, rows: 3_214, counts: [counts] },
    } as never);
    open.rehearseSoon();
    expect(await screen.findByText(/count your answers: 3,214 rows/)).toBeInTheDocument();
    const figure = (of: string) => document.querySelector(`[data-outcome=${of}]`)?.textContent;
    expect(figure('new')).toContain('560');
    expect(figure('waiting')).toContain('39');
    expect(figure('rejected')).toContain('21');
    expect(screen.getByRole('button', { name: 'Rehearse again' })).toBeInTheDocument();
    expect(screen.getByRole('button', { name: 'Go on to the Run' })).toBeDisabled();
  });

  it('lists what is missing before anything can be rehearsed', async () => {
    const { open, goTo } = show({
      matters: [{ code: 'required-field', field: 'notes', message: 'notes is required.' }],
    });
    const list = screen.getByText('Before it can be rehearsed').parentElement!;
    await userEvent.click(within(list).getByRole('button', { name: 'Mend' }));
    expect(open.field).toBe('notes');
    expect(goTo).toHaveBeenCalledWith('fill');
    expect(await open.rehearse()).toBeNull();
    // a letter does the same, unless letters answer questions below
    open.field = '';
    keyboard.handle(new KeyboardEvent('keydown', { key: 'a' }));
    expect(open.field).toBe('');
    open.rehearsal = null;
    await tick();
    expect(screen.getByRole('button', { name: 'Mend' })).toHaveAttribute('aria-keyshortcuts', 'A');
    keyboard.handle(new KeyboardEvent('keydown', { key: 'a' }));
    await vi.waitFor(() => expect(goTo).toHaveBeenCalledTimes(2));
    expect(open.field).toBe('notes');
  });
});
