import { render, screen, within } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import type { Fill, StageTable, StepHelp } from '../api/types';
import { aField, aFill, anOpenPlan } from '../plan/fixtures';
import { step } from './repairs';
import StageGrid from './StageGrid.svelte';

const field = aField('length_m', {
  type: 'decimal',
  scale: 2,
  precision: 5,
  least: 2,
  greatest: 60,
});
const fill = aFill('length_m', 'LOA (ft)', {
  steps: [step('read-number'), step('multiply', { by: '0.3048' })],
});
const kinds: StepHelp[] = [
  {
    kind: 'read-number',
    group: 'read',
    title: 'Read as number',
    help: '',
    settings: [{ name: 'decimal', type: 'choice', required: false, choices: [',', '.'] }],
  },
  {
    kind: 'multiply',
    group: 'compute',
    title: 'Multiply',
    help: '',
    settings: [{ name: 'by', type: 'number', required: true, choices: [] }],
  },
];
const table: StageTable = {
  columns: ['LOA (ft)'],
  questions: 0,
  noted: 0,
  distinct: 3,
  distinctCapped: false,
  troubled: 2,
  troubledRows: 3,
  altered: [1, 2],
  rows: [
    {
      rows: 2,
      line: 13,
      trace: {
        cells: ['tbc'],
        question: false,
        origin: 'tbc',
        steps: [],
        stoppedAt: 0,
        softened: false,
        problem: { code: 'not-a-number', value: 'tbc', reason: 'no number in it' },
      },
    },
    {
      rows: 1,
      line: 90,
      trace: {
        cells: ['410'],
        question: false,
        origin: '410',
        steps: ['410', '124.968'],
        stoppedAt: 2,
        softened: false,
        problem: { code: 'too-precise', value: '124.968', reason: 'more than 2 decimals' },
      },
    },
    {
      rows: 118,
      line: 12,
      trace: {
        cells: [' 25 '],
        question: false,
        origin: ' 25 ',
        steps: ['25', '7.62'],
        stoppedAt: -1,
        softened: false,
        result: '7.62',
      },
    },
  ],
};

function show() {
  const put = vi.fn<(fill: Fill) => void>();
  const addAt = vi.fn<(at: number) => void>();
  const open = anOpenPlan();
  open.plan = {
    ...open.plan,
    destinations: [{ ...open.plan.destinations[0]!, fills: [fill] }],
  };
  render(StageGrid, {
    open,
    field,
    fill,
    table,
    kinds,
    put,
    addAt,
    trialAt: -1,
    books: [],
    trials: [],
    edit: vi.fn(),
    learnt: vi.fn(),
  });
  return { put, addAt, open };
}

const row = (text: string) => screen.getAllByText(text, { exact: false })[0]!.closest('tr')!;

describe('the stage table', () => {
  beforeEach(() => vi.restoreAllMocks());

  it('has a column a stage and a row a value, with the number of rows', () => {
    show();
    const heads = screen.getAllByRole('columnheader').map((h) => h.textContent);
    expect(heads[1]).toContain('LOA (ft)');
    expect(heads[2]).toContain('Read as number');
    expect(heads[3]).toContain('Multiply');
    expect(heads[4]).toContain('2 to 60');
    expect(within(row('tbc')).getByText('2')).toBeInTheDocument();
  });

  it('says in the failing cell where and why a value stops', () => {
    show();
    const cells = within(row('no number in it')).getAllByRole('cell');
    expect(cells).toHaveLength(3);
    expect(cells[2]).toHaveAttribute('colspan', '3');
    expect(cells[2]).toHaveTextContent('Stops here: no number in it');
    expect(within(row('more than 2 decimals')).getAllByRole('cell')).toHaveLength(5);
  });

  it('shows blanks at the ends of a value as dots', () => {
    show();
    expect(row('7.62')).toHaveTextContent('·25·');
  });

  it('mends a value in place', async () => {
    const { put } = show();
    await userEvent.click(screen.getByRole('button', { name: '+ Round' }));
    expect(put.mock.calls[0]?.[0].steps.at(-1)).toEqual(step('round', { places: '2' }));
  });

  it('asks what stands for a value that cannot be read', async () => {
    const { put } = show();
    await userEvent.click(within(row('tbc')).getByRole('button', { name: 'Replace it' }));
    await userEvent.type(screen.getByLabelText('Instead of “tbc” use'), '32{Enter}');
    expect(put.mock.calls[0]?.[0].steps[0]).toEqual(step('replace', { from: 'tbc', to: '32' }));
  });

  it('changes, switches off and removes steps from their headings', async () => {
    const { put, addAt } = show();
    await userEvent.selectOptions(screen.getByLabelText('Read as number: decimal'), '.');
    expect(put.mock.lastCall?.[0].steps[0]?.with).toEqual({ decimal: '.' });
    await userEvent.click(screen.getByLabelText('Switch off Multiply'));
    expect(put.mock.lastCall?.[0].steps[1]?.off).toBe(true);
    await userEvent.click(screen.getByLabelText('Remove Multiply'));
    expect(put.mock.lastCall?.[0].steps).toHaveLength(1);
    await userEvent.click(screen.getByLabelText('Add a step after Read as number'));
    expect(addAt).toHaveBeenCalledWith(1);
  });

  it('moves steps by the keyboard', async () => {
    const { put } = show();
    screen.getByLabelText('Remove Multiply').focus();
    await userEvent.keyboard('{Alt>}{ArrowLeft}{/Alt}');
    expect(put.mock.lastCall?.[0].steps.map((s) => s.kind)).toEqual(['multiply', 'read-number']);
    await userEvent.keyboard('{Delete}');
    expect(put.mock.lastCall?.[0].steps.map((s) => s.kind)).toEqual(['read-number']);
  });

  it('moves the cursor to the first record that has a value', async () => {
    vi.spyOn(api, 'GET').mockResolvedValue({ data: { row: 6 } } as never);
    const { open } = show();
    await userEvent.click(row('7.62'));
    expect(open.cursor).toBe(6);
  });
});
