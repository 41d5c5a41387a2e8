import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import { reachedWords, untilRead } from '../desk/reached';
import { anOpenPlan, aView, savesInto } from '../plan/fixtures';
import Borders from './Borders.svelte';
import Columns from './Columns.svelte';
import { Lines } from './lines.svelte';
import Words from './Words.svelte';

describe('a list of words', () => {
  it('takes words in and out', async () => {
    const add = vi.fn();
    const remove = vi.fn();
    render(Words, { words: ['-', 'n/a'], name: 'words for blank', add, remove });
    await userEvent.click(screen.getByLabelText('Take n/a out of words for blank'));
    expect(remove).toHaveBeenCalledWith('n/a');
    await userEvent.click(screen.getByRole('button', { name: 'Add to words for blank' }));
    await userEvent.keyboard('none{Enter}');
    expect(add).toHaveBeenCalledWith('none');
  });

  it('adds nothing if it is left with Escape', async () => {
    const add = vi.fn();
    render(Words, { words: [], name: 'words', add, remove: vi.fn() });
    await userEvent.click(screen.getByRole('button', { name: 'Add to words' }));
    await userEvent.keyboard('x{Escape}');
    expect(add).not.toHaveBeenCalled();
  });
});

describe('the columns', () => {
  it('tell type, blanks and what does not fit with its line', () => {
    const column = {
      ...aView().source.columns[0]!,
      name: 'Arrives',
      type: 'date' as const,
      pattern: 'd.M.yyyy',
      blank: 12,
      least: '2026-11-01',
      greatest: '2026-11-30',
      misfits: [{ text: 'soon', rows: 1, line: 1077 }],
    };
    render(Columns, { columns: [column], rows: 1204 });
    expect(screen.getByText('12 blank')).toBeInTheDocument();
    expect(screen.getByText(/“soon” is no date/)).toBeInTheDocument();
    expect(screen.getByText('soon in line 1,077')).toBeInTheDocument();
    expect(screen.getByText('2026-11-01 to 2026-11-30')).toBeInTheDocument();
  });
});

describe('the borders of fixed width', () => {
  beforeEach(() => {
    vi.restoreAllMocks();
    savesInto();
    vi.spyOn(api, 'GET').mockResolvedValue({ data: ['Reg  Feet', 'QH-1   28'] } as never);
  });

  it('are moved and taken away by key', async () => {
    const source = aView().source;
    source.reading = { ...source.reading, format: 'fixed', borders: [5] };
    const open = anOpenPlan({ source });
    render(Borders, { open });
    const border = await screen.findByRole('button', { name: 'Border before character 6' });
    border.focus();
    await userEvent.keyboard('{ArrowLeft}');
    expect(open.plan.reading).toMatchObject({ format: 'fixed', borders: [4] });
    await userEvent.keyboard('{Delete}');
    expect(open.plan.reading.borders).toEqual([]);
  });
});

describe('the lines of a file', () => {
  beforeEach(() => vi.restoreAllMocks());

  const page = (from: number) =>
    [from, from + 1, from + 250].map((line) => ({
      line,
      lineOfSheet: line,
      role: 'record',
      cells: [],
    }));

  it('come a page at a time, each once, and drop what lies beyond', async () => {
    const get = vi.spyOn(api, 'GET').mockImplementation((async (
      _: string,
      o: { params: { query: { from: number } } },
    ) => ({
      data: page(o.params.query.from),
    })) as never);
    const lines = new Lines(7, 60, vi.fn());
    lines.want(1, 120);
    lines.want(1, 120);
    await vi.waitFor(() => expect(lines.has(120)).toBe(true));
    expect(get).toHaveBeenCalledTimes(2);
    expect(lines.at(1)?.line).toBe(1);
    expect(lines.at(251)).toBeUndefined();
    lines.goToColumn(60);
    expect(lines.has(1)).toBe(false);
    lines.want(1, 20);
    await vi.waitFor(() => expect(lines.has(1)).toBe(true));
    expect(get.mock.lastCall?.[1]).toMatchObject({ params: { query: { firstColumn: 60 } } });
  });

  it('are asked for again after a failure', async () => {
    const failed = vi.fn();
    const get = vi.spyOn(api, 'GET').mockRejectedValueOnce(new Error('offline'));
    const lines = new Lines(7, 60, failed);
    lines.want(1, 10);
    await vi.waitFor(() => expect(failed).toHaveBeenCalled());
    get.mockResolvedValue({ data: page(1) } as never);
    lines.want(1, 10);
    await vi.waitFor(() => expect(lines.has(1)).toBe(true));
  });
});

describe('how far a file is read', () => {
  it('is told in rows, and in parts where bytes are known', () => {
    const reached = { state: 'reading' as const, bytes: 500, totalBytes: 1000, rows: 1204 };
    expect(reachedWords(reached)).toBe('1,204 rows, 50 % of the file');
    expect(reachedWords({ ...reached, bytes: 0 })).toBe('1,204 rows');
  });

  it('is followed until it is done', async () => {
    const states = ['reading', 'reading', 'ready'];
    vi.spyOn(api, 'GET').mockImplementation((async () => ({
      data: { state: states.shift(), bytes: 0, totalBytes: 0, rows: 0 },
    })) as never);
    const tell = vi.fn();
    await untilRead(5, tell, 1);
    expect(tell).toHaveBeenCalledTimes(3);
  });
});
