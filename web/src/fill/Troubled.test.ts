import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import type { StageRow, Trial } from '../api/types';
import { aField, aFill, anOpenPlan } from '../plan/fixtures';
import { answering, bookFor, step } from './repairs';
import Troubled from './Troubled.svelte';

const field = aField('name', { choices: ['ketch', 'sloop'], nullable: false });
const fill = aFill('name', 'Kind', { steps: [step('trim')] });

function aRow(trace: Partial<StageRow['trace']>, rows = 1): StageRow {
  return {
    rows,
    line: 97,
    trace: {
      cells: ['Ketch rig'],
      origin: 'Ketch rig',
      steps: ['Ketch rig'],
      stoppedAt: 1,
      softened: false,
      question: false,
      problem: { code: 'unknown-choice', value: 'Ketch rig', reason: 'not one of ketch, sloop' },
      ...trace,
    },
  };
}

function show(row: StageRow, trials: Trial[] = []) {
  const open = anOpenPlan();
  const put = vi.fn();
  const learnt = vi.fn();
  render(Troubled, { open, row, field, fill, span: 1, put, trials, kinds: [], learnt });
  return { open, put, learnt };
}

describe('a failing cell', () => {
  beforeEach(() => vi.restoreAllMocks());

  it('asks for an unknown word, offers the nearest value, and teaches the phrasebook', async () => {
    const sent: [string, unknown][] = [];
    vi.spyOn(api, 'POST').mockImplementation((async (path: string, { body }: { body: unknown }) => {
      sent.push([path, body]);
      return path.includes('suggestions')
        ? {
            data: [
              { value: 'ketch', near: true },
              { value: 'sloop', near: false },
            ],
          }
        : { data: { id: 3 } };
    }) as never);
    const { put, learnt } = show(aRow({ question: true }, 22));
    expect(screen.getByText('What is it?')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Answer' }));
    const answer = await screen.findByLabelText('“Ketch rig” means');
    await vi.waitFor(() => expect((answer as HTMLInputElement).value).toBe('ketch'));
    await userEvent.click(screen.getByRole('button', { name: 'Remember' }));
    await vi.waitFor(() => expect(learnt).toHaveBeenCalledWith('Words for vessel.name'));
    expect(sent.at(-1)?.[1]).toMatchObject({ from: 'Ketch rig', to: 'ketch' });
    expect(put.mock.lastCall?.[0].steps).toEqual([
      step('translate', { book: 'Words for vessel.name' }),
    ]);
  });

  it('corrects the one cell that holds the value, and leaves the fill as it is', async () => {
    const problem = { code: 'not-a-number' as const, value: 'tbc', reason: 'no number in it' };
    const { open, put } = show(aRow({ problem, origin: 'tbc', stoppedAt: 0, steps: [] }));
    await userEvent.click(screen.getByRole('button', { name: 'Correct it' }));
    const answer = screen.getByLabelText('Line 97 should say');
    await userEvent.clear(answer);
    await userEvent.type(answer, '32,5{Enter}');
    expect(open.plan.corrections).toEqual([{ line: 97, column: 'Kind', was: 'tbc', now: '32,5' }]);
    expect(put).not.toHaveBeenCalled();
    open.uncorrect(open.plan.corrections[0]!);
    expect(open.plan.corrections).toEqual([]);
  });

  it('offers first the step that was tried and frees it', async () => {
    const tried: Trial = {
      step: step('read-measure', { in: 'ft' }),
      at: 0,
      before: '32 ft',
      after: '32',
      frees: 2,
      breaks: 0,
      doubtful: false,
      freed: ['32 ft'],
    };
    const problem = { code: 'not-a-number' as const, value: '32 ft', reason: 'a unit' };
    const row = aRow({ problem, origin: '32 ft', stoppedAt: 0, steps: [] }, 2);
    const { put } = show(row, [{ ...tried, step: step('cut'), doubtful: true }, tried]);
    const [first] = screen.getAllByRole('button');
    expect(first?.textContent).toBe('+ read-measure');
    expect(first?.title).toBe('32 ft gives 32');
    await userEvent.click(first!);
    expect(put.mock.lastCall?.[0].steps[0]).toEqual(tried.step);
  });

  it('says of softened values what becomes of them', () => {
    const problem = { code: 'cut' as const, value: 'Grey Heron', reason: 'cut to 4 characters' };
    show(aRow({ problem, softened: true, result: 'Grey' }));
    expect(screen.getByText('Cut:')).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });
});

describe('answers', () => {
  it('go into the phrasebook that the fill uses already', () => {
    const uses = { ...fill, steps: [step('translate', { book: 'Kinds' })] };
    expect(bookFor(uses, 'vessel')).toBe('Kinds');
    expect(answering(uses, 'Kinds', 1)).toBe(uses);
    expect(answering(fill, 'Kinds', 9).steps[1]).toEqual(step('translate', { book: 'Kinds' }));
  });
});
