import { render, screen, within } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import type { RawLine } from '../api/types';
import { anOpenPlan, aView, savesInto } from '../plan/fixtures';
import type { OpenPlan } from '../plan/plan.svelte';
import { keyboard } from '../ui/keys.svelte';
import Read from './Read.svelte';

const texts = [
  ['Season', 'Winter 2026/27', ''],
  ['Reg No', 'Sep 26', 'Oct 26'],
  ['QH-1', '311', '-'],
  ['QH-2', '402', '96'],
];
const roles = ['left-out', 'titles', 'record', 'record'];
const lines: RawLine[] = texts.map((cells, i) => ({
  line: i + 1,
  lineOfSheet: i + 1,
  role: roles[i]!,
  cells: cells.map((text) => ({ kind: 'text' as const, text })),
}));

function aSheet(): OpenPlan {
  const source = aView().source;
  source.lines = 4;
  source.rows = 2;
  source.reading = {
    ...source.reading,
    titleRows: [2],
    firstRow: 3,
    lastRow: 4,
    blankWords: ['-'],
  };
  source.titles = ['Reg No', 'Sep 26', 'Oct 26'].map((title, i) => ({
    name: title,
    title,
    letter: 'ABC'[i]!,
  }));
  return anOpenPlan({ source });
}

function press(key: string, change: KeyboardEventInit = {}) {
  keyboard.handle(new KeyboardEvent('keydown', { key, ...change }));
}

describe('the Read stop', () => {
  beforeEach(() => {
    vi.restoreAllMocks();
    savesInto();
    vi.spyOn(api, 'GET').mockImplementation((async () => ({ data: lines })) as never);
    vi.spyOn(api, 'POST').mockResolvedValue({
      data: {
        rows: 3,
        columns: ['Reg No', 'Month', 'Value'],
        records: [
          { line: 3, cells: ['QH-1', 'Sep 26', '311'].map((text) => ({ kind: 'text', text })) },
        ],
        warnings: [],
      },
    } as never);
  });

  it('shows the lines of the file with what they are read as', async () => {
    render(Read, { open: aSheet() });
    expect(await screen.findByText('QH-1')).toBeInTheDocument();
    expect(screen.getByText('titles')).toBeInTheDocument();
    expect(screen.getByText('first record')).toBeInTheDocument();
    expect(screen.getByText('last record')).toBeInTheDocument();
    expect(screen.getByTitle('-')).toHaveClass('means-blank');
  });

  it('sets marks with the keyboard where the cursor stands', async () => {
    const open = aSheet();
    render(Read, { open });
    await screen.findByText('QH-1');
    press('j');
    press('h');
    expect(open.plan.reading.titleRows).toEqual([2]);
    press('j');
    press('x');
    expect(open.plan.reading.skip).toEqual([{ line: 3, text: 'QH-1' }]);
    press(']');
    expect(open.plan.reading.lastRow).toBe(3);
    press('k');
    press('k');
    press('ArrowRight');
    press('p');
    expect(open.plan.reading.picks).toEqual([
      { name: 'Season', column: 'B', line: 1, label: 'Season' },
    ]);
  });

  it('folds the columns that are chosen, and names what comes of them', async () => {
    const open = aSheet();
    render(Read, { open });
    await screen.findByText('QH-1');
    expect(screen.getByRole('button', { name: /^Fold/ })).toBeDisabled();
    await userEvent.click(screen.getByRole('button', { name: 'B' }));
    press('ArrowRight', { shiftKey: true });
    await vi.waitFor(() => expect(screen.getByRole('button', { name: /^Fold/ })).toBeEnabled());
    await userEvent.click(screen.getByRole('button', { name: /^Fold/ }));
    expect(open.plan.reading.fold).toEqual({
      from: 'Sep 26',
      to: 'Oct 26',
      names: [{ name: 'Title' }],
      values: ['Value'],
    });
  });

  it('offers a fold that was found, with the records it makes', async () => {
    const source = aSheet().view.source;
    source.proposals = {
      picks: [],
      fillDown: [],
      others: [],
      fold: { from: 'Sep 26', to: 'Oct 26', names: [{ name: 'Month' }], values: ['Value'] },
    };
    const open = anOpenPlan({ source });
    render(Read, { open });
    const fold = await screen.findByRole('region', { name: 'Fold' });
    expect(await within(fold).findByText('2 records become 3')).toBeInTheDocument();
    await userEvent.click(within(fold).getByRole('button', { name: 'Keep the fold' }));
    expect(open.plan.reading.fold?.names[0]?.name).toBe('Month');
  });

  it('leaves rows out by a condition', async () => {
    const open = aSheet();
    render(Read, { open });
    await userEvent.click(screen.getByRole('button', { name: 'leave out rows where…' }));
    await userEvent.selectOptions(screen.getByLabelText('Column of the condition'), 'Sep 26');
    await userEvent.selectOptions(screen.getByLabelText('Test of the condition'), 'less');
    await userEvent.type(screen.getByLabelText('Value of the condition'), '400');
    await userEvent.click(screen.getByRole('button', { name: 'Leave them out' }));
    expect(open.plan.reading.leaveOut).toEqual([{ column: 'Sep 26', test: 'less', value: '400' }]);
  });
});
