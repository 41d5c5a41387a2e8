import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { StepHelp, Trial } from '../api/types';
import { step } from './repairs';
import StepMenu from './StepMenu.svelte';

const help = (kind: string, title: string): StepHelp => ({
  kind,
  group: 'read',
  title,
  help: `what ${title} does`,
  settings: [],
});
const KINDS = [help('read-measure', 'Read measure'), help('trim', 'Trim'), help('cut', 'Cut')];
const trial = (change: Partial<Trial>): Trial => ({
  step: step('trim'),
  at: 1,
  frees: 0,
  breaks: 0,
  doubtful: false,
  freed: [],
  ...change,
});
const TRIALS = [
  trial({ step: step('read-measure', { in: 'ft' }), frees: 2, before: '32\' 6" ', after: '32.5' }),
  trial({ step: step('cut', { length: '4' }), frees: 1, doubtful: true, before: 'tbc' }),
  trial({ breaks: 7 }),
];

function open(trials: Trial[] | null = TRIALS) {
  const did = { tryStep: vi.fn(), keep: vi.fn(), leave: vi.fn() };
  render(StepMenu, { kinds: KINDS, trials, ...did });
  return did;
}

describe('the list of steps', () => {
  it('says what each does to a real value and how many rows it frees', () => {
    open();
    const options = screen.getAllByRole('option').map((o) => o.textContent!.replace(/\s+/g, ' '));
    expect(options[0]).toContain('32\' 6" gives 32.5');
    expect(options[0]).toContain('frees 2 rows');
    expect(options[1]).toContain('tbc gives nothing');
    expect(options[1]).toContain('frees 1 row, doubtful');
    expect(options[2]).toContain('what Trim does');
    expect(options[2]).toContain('breaks 7 rows');
  });

  it('tries each by moving, keeps by Enter, leaves by Escape', async () => {
    const did = open();
    await userEvent.keyboard('{ArrowDown}{ArrowDown}');
    expect(did.tryStep).toHaveBeenLastCalledWith(TRIALS[1]!.step, 1);
    await userEvent.keyboard('{ArrowUp}{Enter}');
    expect(did.tryStep).toHaveBeenLastCalledWith(TRIALS[0]!.step, 1);
    expect(did.keep).toHaveBeenCalledOnce();
    await userEvent.keyboard('{Escape}');
    expect(did.leave).toHaveBeenCalledOnce();
  });

  it('is searched by title and by what it does', async () => {
    const did = open();
    await userEvent.type(screen.getByRole('combobox'), 'measure');
    expect(screen.getAllByRole('option')).toHaveLength(1);
    await userEvent.keyboard('{Enter}');
    expect(did.keep).not.toHaveBeenCalled();
    await userEvent.type(screen.getByRole('combobox'), 'xx');
    expect(screen.getByText('No step is called so.')).toBeTruthy();
  });

  it('says that steps are being tried', () => {
    open(null);
    expect(screen.getByText('trying…')).toBeTruthy();
  });
});
