import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import type { ProblemGroup, StageRow, StageTable, Trial } from '../api/types';
import { anOpenPlan, savesInto } from '../plan/fixtures';
import Mend from './Mend.svelte';

const row = (origin: string, rows: number, line: number): StageRow => ({
  rows,
  line,
  trace: {
    origin,
    cells: [],
    steps: [],
    stoppedAt: 0,
    problem: { code: 'not-a-number', value: origin, reason: 'no number in it' },
    softened: false,
    question: false,
  },
});

const group: ProblemGroup = {
  code: 'not-a-number',
  destination: 'vessel',
  field: 'name',
  reason: 'no number in it',
  softened: false,
  rows: 3,
  sample: { row: 13, value: 'tbc', reason: 'no number in it', rows: 1 },
  values: [],
};

describe('a problem mended where it is listed', () => {
  const trial: Trial = {
    step: { kind: 'trim', with: {}, off: false },
    at: 0,
    frees: 2,
    breaks: 0,
    doubtful: false,
    freed: ['12 m'],
  };
  beforeEach(() => {
    vi.restoreAllMocks();
    const table: Partial<StageTable> = { rows: [row('tbc', 1, 13), row('12 m', 2, 20)] };
    vi.spyOn(api, 'POST').mockImplementation(((path: string) =>
      Promise.resolve({ data: path.endsWith('/trials') ? [trial] : table })) as never);
    savesInto();
  });

  function show() {
    const open = anOpenPlan();
    const soon = vi.spyOn(open, 'rehearseSoon').mockReturnValue();
    const kinds = [{ kind: 'trim', title: 'Trim' }] as never;
    const fill = vi.fn();
    render(Mend, { open, group, at: 0, kinds, fill });
    return { open, soon, fill };
  }

  it('offers the step that frees most, for all at once', async () => {
    const { open, soon } = show();
    const steps = open.fill('name')!.steps.length;
    await userEvent.click(await screen.findByRole('button', { name: /\+ Trim frees 2 values/ }));
    expect(open.fill('name')!.steps[0]).toMatchObject({ kind: 'trim' });
    expect(open.fill('name')!.steps).toHaveLength(steps + 1);
    expect(soon).toHaveBeenCalled();
  });

  it('corrects a single cell, and replaces what stands in several', async () => {
    const { open, soon } = show();
    await userEvent.type(await screen.findByLabelText('tbc reads'), '9.5{Enter}');
    expect(open.plan.corrections).toMatchObject([{ line: 13, was: 'tbc', now: '9.5' }]);
    await userEvent.type(screen.getByLabelText('12 m reads'), '12{Enter}');
    expect(open.fill('name')!.steps.at(0)).toMatchObject({
      kind: 'replace',
      with: { from: '12 m', to: '12' },
    });
    expect(soon).toHaveBeenCalledTimes(2);
  });

  it('leads to Fill for the rest, and takes no empty answer', async () => {
    const { open, soon, fill } = show();
    await userEvent.type(await screen.findByLabelText('tbc reads'), ' {Enter}');
    expect(open.plan.corrections).toEqual([]);
    expect(soon).not.toHaveBeenCalled();
    await userEvent.click(screen.getByRole('button', { name: 'all of it in Fill' }));
    expect(fill).toHaveBeenCalled();
  });
});
