import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import type { FormulaResult } from '../api/types';
import { aFill, anOpenPlan } from '../plan/fixtures';
import FormulaEditor from './FormulaEditor.svelte';

describe('a formula being written', () => {
  let sent: { formula: string; inStep: boolean; row: number }[] = [];

  beforeEach(() => {
    vi.restoreAllMocks();
    sent = [];
    // jsdom draws nothing, so the editor measures nothing
    Range.prototype.getClientRects = () => [] as unknown as DOMRectList;
  });

  function answers(result: Partial<FormulaResult>) {
    vi.spyOn(api, 'GET').mockResolvedValue({ data: [] } as never);
    vi.spyOn(api, 'POST').mockImplementation((async (_: string, { body }: never) => {
      sent.push(body);
      return { data: { from: 0, to: 0, ...result } };
    }) as never);
  }

  function show(formula: string, inStep = false) {
    const change = vi.fn();
    const open = anOpenPlan();
    const fill = aFill('name', 'Boat name');
    const shown = render(FormulaEditor, { open, fill, formula, inStep, change });
    return { change, open, ...shown };
  }

  it('shows what it gives for the record in hand, and again when the cursor moves', async () => {
    answers({ kind: 'text', value: 'WREN' });
    const { open, change } = show('UPPER([Boat name])');
    expect(await screen.findByText('WREN')).toBeTruthy();
    expect(sent[0]).toMatchObject({ formula: 'UPPER([Boat name])', inStep: false, row: 0 });
    open.cursor = 7;
    await vi.waitFor(() => expect(sent.at(-1)?.row).toBe(7));
    expect(change).not.toHaveBeenCalled();
  });

  it('keeps what can be used and says why the rest can not', async () => {
    answers({ kind: 'text', value: 'x' });
    const { change } = show('');
    const text = screen.getByLabelText('Formula');
    await userEvent.click(text);
    await userEvent.keyboard('1');
    await vi.waitFor(() => expect(change).toHaveBeenCalledWith('1'));
    vi.mocked(api.POST).mockImplementation((async () => ({
      data: { message: 'it ends where a value must follow', from: 1, to: 1 },
    })) as never);
    await userEvent.keyboard('+');
    expect(await screen.findByText('it ends where a value must follow')).toBeTruthy();
    expect(change).toHaveBeenCalledTimes(1);
  });

  it('loses nothing when it is left in the middle', async () => {
    answers({ message: 'unfinished' });
    const { change, unmount } = show('1');
    await userEvent.click(screen.getByLabelText('Formula'));
    await userEvent.keyboard('2');
    unmount();
    expect(change).toHaveBeenCalledOnce();
    expect(change.mock.lastCall?.[0]).toContain('2');
  });

  it('says which value a record is refused for, and that blank is blank', async () => {
    answers({
      kind: 'number',
      problem: { code: 'not-a-number', value: 'tbc', reason: 'no number in it' },
    });
    const first = show('[Boat name] * 2');
    expect(await screen.findByText('“tbc”: no number in it')).toBeTruthy();
    first.unmount();
    answers({ kind: 'text' });
    show('[Boat name]', true);
    expect(await screen.findByText('blank')).toBeTruthy();
    expect(sent.at(-1)?.inStep).toBe(true);
  });
});
