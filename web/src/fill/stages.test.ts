import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api, ApiError } from '../api/client';
import type { StageTable } from '../api/types';
import { anOpenPlan } from '../plan/fixtures';
import { Stages } from './stages.svelte';

const table = (distinct: number) => ({ distinct, rows: [], columns: [] }) as never as StageTable;

describe('the stages of a field', () => {
  let answers: ((path: string) => unknown)[];
  const stages = () => new Stages(anOpenPlan(), 'name');

  beforeEach(() => {
    vi.restoreAllMocks();
    answers = [];
    vi.spyOn(api, 'POST').mockImplementation((async (path: string) => ({
      data: await (answers.shift() ?? (() => []))(path),
    })) as never);
  });

  it('keep the newest answer, whichever comes last', async () => {
    let late: (t: StageTable) => void = () => {};
    answers = [() => new Promise((done) => (late = done)), () => table(2)];
    const shown = stages();
    const first = shown.load();
    await shown.load();
    late(table(1));
    await first;
    expect(shown.table?.distinct).toBe(2);
  });

  it('say why a fill can not be shown', async () => {
    vi.spyOn(api, 'POST').mockRejectedValue(
      new ApiError(422, 'step-settings', 'Cut needs “length”.'),
    );
    const shown = stages();
    await shown.load();
    expect(shown.refusal).toBe('Cut needs “length”.');
  });

  it('show a step that is tried, and forget it when it is left', () => {
    const shown = stages();
    const steps = shown.kept!.steps.length;
    shown.addAt(0);
    expect(shown.choosing).toBe(true);
    shown.tryStep({ kind: 'remove-accents', with: {}, off: false }, 0);
    expect(shown.fill!.steps[0]!.kind).toBe('remove-accents');
    shown.leave();
    expect(shown.fill!.steps).toHaveLength(steps);
    expect([shown.choosing, shown.trials]).toEqual([false, null]);
  });

  it('keep a step, and write its formula next', () => {
    const shown = stages();
    const steps = shown.kept!.steps.length;
    shown.tryStep({ kind: 'formula', with: { formula: '[value]' }, off: false }, steps);
    shown.keep();
    expect(shown.kept!.steps).toHaveLength(steps + 1);
    expect(shown.editing).toBe(steps);
    shown.edit(steps);
    expect(shown.editing).toBe(-1);
  });
});
