import { fireEvent, render, screen, waitFor, within } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api, ApiError } from '../api/client';
import type { Proposal, Source } from '../api/types';
import { aReport, aRun, aView } from '../plan/fixtures';

const bring = vi.fn<(file: File) => Promise<Source>>();
const navigate = vi.fn();
vi.mock('../api/client', async (actual) => ({
  ...(await actual<typeof import('../api/client')>()),
  bring: (file: File) => bring(file),
}));
vi.mock('../router', () => ({ navigate: (...words: unknown[]) => navigate(...words) }));

const { default: Desk } = await import('./Desk.svelte');

const source: Source = {
  id: 5,
  state: 'ready',
  name: 'winter-arrivals.xlsx',
  bytes: 71228,
  sha256: '',
  rows: 1204,
  columns: ['Reg No', 'Boat name'],
  uploadedBy: 'odile',
  uploadedAt: '2026-11-23T09:00:00',
};
const proposals: Proposal[] = [
  {
    plan: 7,
    name: 'Winter arrivals',
    table: 'vessel',
    columns: 2,
    of: 2,
    because: '2 of 2 the same',
  },
  { name: 'New plan', table: 'owner', columns: 1, of: 2, because: '1 of 2 like its fields' },
];

describe('the Desk', () => {
  let answers: Record<string, unknown>;
  beforeEach(() => {
    vi.restoreAllMocks();
    bring.mockReset().mockResolvedValue(source);
    navigate.mockReset();
    answers = {
      '/api/runs': [],
      '/api/plans': [],
      '/api/connections': [{ name: 'marina', shownName: 'Quillhaven Marina', url: '', user: 'sa' }],
      '/api/sources/{source}/proposals': proposals,
      '/api/connections/{name}/tables': [{ name: 'vessel', records: 1873 }],
    };
    vi.spyOn(api, 'GET').mockImplementation((async (path: string) => ({
      data: answers[path],
    })) as never);
  });

  const drop = async (name = 'winter-arrivals.xlsx') => {
    await userEvent.upload(screen.getByLabelText('File to bring in'), new File(['x'], name));
  };

  it('tells a newcomer what to do', async () => {
    render(Desk);
    expect(await screen.findByText('Nothing has been brought in yet.')).toBeInTheDocument();
    expect(screen.getByText('Drop a file')).toBeInTheDocument();
  });

  it('asks for a connection where there is none', async () => {
    answers['/api/connections'] = [];
    render(Desk);
    expect(await screen.findByRole('link', { name: 'Add a connection' })).toBeInTheDocument();
  });

  it('begins with the tables that take what the first one leaves', async () => {
    const made = vi.spyOn(api, 'POST').mockResolvedValue({ data: { id: 9 } } as never);
    answers['/api/sources/{source}/proposals'] = [
      { ...proposals[1], besides: { tables: ['postal address', 'vessel'], columns: 3 } },
    ];
    render(Desk);
    await screen.findByText('Nothing has been brought in yet.');
    await drop();
    const more = await screen.findByText(/3 more columns go to/);
    expect(more).toHaveTextContent('3 more columns go to postal address and vessel');
    await userEvent.click(screen.getByRole('button', { name: 'With these too' }));
    expect(made.mock.calls[0]?.[1]).toMatchObject({ body: { table: 'owner', besides: true } });
    await waitFor(() =>
      expect(navigate).toHaveBeenCalledWith('/plans/:id/:stop', {
        params: { id: '9', stop: 'fill' },
      }),
    );
  });

  it('proposes what can be done with a file, the plan that fits it first', async () => {
    render(Desk);
    await screen.findByText('Nothing has been brought in yet.');
    await drop();
    expect(await screen.findByText(/1,204 rows, 2 columns/)).toBeInTheDocument();
    const buttons = screen.getAllByRole('button', { name: /^(Open|Begin)$/ });
    expect(buttons.map((b) => b.textContent?.trim())).toEqual(['Open', 'Begin']);
    expect(buttons[0]).toHaveClass('main');
  });

  it('opens the plan with the new file, or drafts a new one', async () => {
    const put = vi.spyOn(api, 'PUT').mockResolvedValue({ data: aView() } as never);
    const post = vi.spyOn(api, 'POST').mockResolvedValue({ data: { id: 9 } } as never);
    render(Desk);
    await screen.findByText('Nothing has been brought in yet.');
    await drop();
    await userEvent.click(await screen.findByRole('button', { name: 'Open' }));
    expect(put.mock.calls[0]?.[1]).toMatchObject({ body: { source: 5 } });
    expect(navigate.mock.lastCall?.[1].params).toEqual({ id: '7', stop: 'fill' });
    await userEvent.click(screen.getByRole('button', { name: 'Begin' }));
    expect(post.mock.calls[0]?.[1]).toMatchObject({
      body: { source: 5, connection: 'marina', table: 'owner' },
    });
    expect(navigate.mock.lastCall?.[1].params).toEqual({ id: '9', stop: 'fill' });
  });

  it('looks first at a file unlike the last one', async () => {
    const view = aView();
    view.source.changes = [{ kind: 'added', because: 'it was not there before' }];
    vi.spyOn(api, 'PUT').mockResolvedValue({ data: view } as never);
    render(Desk);
    await screen.findByText('Nothing has been brought in yet.');
    await drop();
    await userEvent.click(await screen.findByRole('button', { name: 'Open' }));
    await vi.waitFor(() =>
      expect(navigate.mock.lastCall?.[1].params).toEqual({ id: '7', stop: 'read' }),
    );
  });

  it('shows the first rows of a large file while it is read', async () => {
    bring.mockResolvedValue({ ...source, state: 'reading', rows: -1 });
    answers['/api/sources/{id}/peek'] = {
      columns: ['Reg No'],
      rows: [[{ kind: 'text', text: 'QH-2292' }]],
    };
    const steps = [
      { state: 'reading', bytes: 50, totalBytes: 100, rows: 600 },
      { state: 'ready', bytes: 100, totalBytes: 100, rows: 1204 },
    ];
    answers['/api/sources/{id}'] = source;
    const plain = vi.mocked(api.GET).getMockImplementation()!;
    vi.mocked(api.GET).mockImplementation((async (path: string) =>
      path === '/api/sources/{id}/progress'
        ? { data: steps.shift() }
        : (plain as (p: string) => unknown)(path)) as never);
    render(Desk);
    await screen.findByText('Nothing has been brought in yet.');
    await drop();
    expect(await screen.findByText('QH-2292')).toBeInTheDocument();
    expect(screen.getByRole('status')).toHaveTextContent('600 rows, 50 % of the file');
    expect(await screen.findByRole('button', { name: 'Open' })).toBeInTheDocument();
    expect(screen.queryByText('QH-2292')).toBeNull();
  });

  it('says why a file is not taken, and takes the next one', async () => {
    bring.mockRejectedValueOnce(new ApiError(422, 'empty-file', 'The file is empty.'));
    render(Desk);
    await screen.findByText('Nothing has been brought in yet.');
    await drop('nothing.csv');
    expect(await screen.findByRole('alert')).toHaveTextContent('nothing.csv');
    expect(screen.getByRole('alert')).toHaveTextContent('The file is empty.');
    await drop();
    expect(await screen.findByText(/1,204 rows/)).toBeInTheDocument();
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('takes cells that are pasted', async () => {
    render(Desk);
    await screen.findByText('Nothing has been brought in yet.');
    const clipboardData = { getData: () => 'Reg No\tName\nQH-1\tWren', files: [] };
    await fireEvent.paste(window, { clipboardData });
    expect(bring.mock.calls[0]?.[0].name).toBe('pasted-cells.tsv');
    await fireEvent.paste(window, { clipboardData: { getData: () => 'a word', files: [] } });
    expect(bring).toHaveBeenCalledOnce();
  });

  it('lists the runs with their outcomes, and those that failed with their reason', async () => {
    answers['/api/runs'] = [
      aRun({
        id: 2,
        kind: 'run',
        number: '2026-0002',
        state: 'failed',
        report: undefined,
        message: 'The database refused line 8.',
      }),
      aRun({ id: 1, kind: 'run', number: '2026-0001', report: aReport() }),
    ];
    render(Desk);
    const good = (await screen.findByText('2026-0001')).closest('tr')!;
    expect(within(good).getByRole('img')).toHaveAttribute(
      'aria-label',
      '511 new, 388 changed, 223 unchanged, 12 skipped, 70 rejected',
    );
    expect(within(good).getByText('70')).toBeInTheDocument();
    expect(within(good).getByRole('link')).toHaveAttribute('href', '/plans/7/run?run=1');
    const bad = screen.getByText('2026-0002').closest('tr')!;
    expect(bad).toHaveTextContent('The database refused line 8.');
  });

  it('begins in another connection where a table fits better', async () => {
    answers['/api/connections'] = [
      { name: 'marina', shownName: 'Quillhaven Marina', url: '', user: 'sa' },
      { name: 'yard', shownName: 'Quillhaven Yard', url: '', user: 'sa' },
    ];
    answers['/api/sources/{source}/proposals'] = [
      { name: 'New plan', connection: 'yard', table: 'hull', columns: 2, of: 2, because: '' },
      { name: 'New plan', connection: 'marina', table: 'owner', columns: 1, of: 2, because: '' },
    ];
    const post = vi.spyOn(api, 'POST').mockResolvedValue({ data: { id: 9 } } as never);
    render(Desk);
    await drop();
    expect(await screen.findByText('in Quillhaven Yard')).toBeInTheDocument();
    expect(screen.queryByText('in Quillhaven Marina')).not.toBeInTheDocument();
    await userEvent.click(screen.getAllByRole('button', { name: 'Begin' })[0]!);
    expect(post).toHaveBeenCalledWith('/api/plans', {
      body: { source: source.id, connection: 'yard', table: 'hull', besides: false },
    });
  });

  it('proposes what other connections have where one can not be reached', async () => {
    const answer = vi.mocked(api.GET).getMockImplementation()!;
    vi.mocked(api.GET).mockImplementation(((path: string, ...more: unknown[]) =>
      path === '/api/connections/{name}/tables'
        ? Promise.resolve({ error: { detail: 'It is down.', code: 'database-host' } })
        : (answer as (...of: unknown[]) => unknown)(path, ...more)) as never);
    render(Desk);
    await screen.findByText('Nothing has been brought in yet.');
    await drop();
    expect(await screen.findByRole('button', { name: 'Open' })).toBeInTheDocument();
    expect(screen.queryByRole('alert')).toBeNull();
  });
});
