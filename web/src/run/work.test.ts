import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import type { Work as Going } from '../api/types';
import { aReport, aRun } from '../plan/fixtures';
import { ending } from './endings';
import { left, shareOf, Work, wordsOf } from './work.svelte';

function going(change: Partial<Going> = {}): Going {
  return {
    id: 4,
    kind: 'run',
    number: '2026-0004',
    plan: 7,
    planName: 'Arrivals',
    startedBy: 'odile',
    phase: 'writing',
    rows: 8192,
    total: 13000,
    rejected: 0,
    ...change,
  };
}

describe('what is going on', () => {
  beforeEach(() => vi.restoreAllMocks());

  it('is said in words', () => {
    expect(wordsOf(going())).toBe('writing, 8,192 of 13,000 rows');
    expect(wordsOf(going({ rejected: 12, perSecond: 4100, secondsLeft: 95 }))).toBe(
      'writing, 8,192 of 13,000 rows, 12 rejected, 4,100 a second, 2 min left',
    );
    expect(wordsOf(going({ phase: 'waiting', behind: 'Run 2026-0003 of “Tariffs”' }))).toBe(
      'waits for Run 2026-0003 of “Tariffs”',
    );
    expect(wordsOf(going({ kind: 'rehearsal' }))).toBe('deciding, 8,192 of 13,000 rows');
    expect(wordsOf(going({ kind: 'undo' }))).toBe('taking back, 8,192 of 13,000 rows');
    expect(left(7)).toBe('7 s left');
    expect(left(4000)).toBe('1 h 7 min left');
  });

  it('comes further by matching, and does not begin anew when it writes', () => {
    const at = (change: Partial<Going>) => shareOf(going({ total: 100, ...change }));
    expect(shareOf(null)).toBe(0);
    expect(at({ phase: 'waiting', rows: 0 })).toBe(0);
    expect(at({ phase: 'matching', rows: 50 })).toBeGreaterThan(0.1);
    expect(at({ phase: 'matching', rows: 100 })).toBe(at({ rows: 0 }));
    expect(at({ rows: 50 })).toBeLessThan(at({ rows: 60 }));
    expect(at({ rows: 100 })).toBe(1);
    expect(at({ kind: 'undo', rows: 0 })).toBe(0);
    expect(at({ kind: 'undo', rows: 100 })).toBe(1);
  });

  it('shows what this page began before all others', () => {
    const work = new Work();
    expect(work.words).toBe('Nothing running');
    work.hear([going({ id: 3, number: '2026-0003' }), going()]);
    expect(work.words).toMatch(/^Run 2026-0003: .*, and 1 other$/);
    work.current = aRun({ id: 4 });
    expect(work.words).toMatch(/^Run 2026-0004: /);
  });

  it('tells what has ended, once, until nobody wants to hear', () => {
    const work = new Work();
    const hear = vi.fn();
    const stop = work.whenEnded(hear);
    work.hear([going({ id: 3 }), going()]);
    work.hear([going()]);
    expect(hear).toHaveBeenCalledExactlyOnceWith(expect.objectContaining({ id: 3 }));
    stop();
    work.hear([]);
    expect(hear).toHaveBeenCalledOnce();
  });

  it('follows a run to its end', async () => {
    const answers = [aRun({ state: 'going' }), aRun({ state: 'committing' }), aRun()];
    vi.spyOn(api, 'GET').mockImplementation((async () => ({ data: answers.shift() })) as never);
    const work = new Work();
    const ended = work.follow(aRun({ state: 'going' }));
    expect(work.current).not.toBeNull();
    expect((await ended).state).toBe('done');
    expect(work.current).toBeNull();
  });

  it('has a sentence for how each run ended', () => {
    const run = aRun({ kind: 'run', number: '2026-0004', report: aReport() });
    expect(ending(run)).toMatch(/^Run 2026-0004 of Arrivals is done: 511 new, /);
    expect(ending({ ...run, state: 'paused', message: 'It was stopped.' })).toBe(
      'Run 2026-0004 of Arrivals: It was stopped.',
    );
  });
});
