import { describe, expect, it } from 'vitest';
import type { LedgerEntry, Question } from '../api/types';
import { anEntry, aReport } from '../plan/fixtures';
import { awaits, grouped, rowsOf, waitingRows } from './asked';

const question = (change: Partial<Question>): Question => ({
  code: 'unknown-link',
  destination: 'vessel',
  field: 'type_id',
  value: 'mtr',
  rows: 4,
  ...change,
});

describe('what a report asks', () => {
  it('is one question for a kind and a field', () => {
    const groups = grouped(
      [
        question({}),
        question({ value: 'rig', rows: 22 }),
        question({ code: 'guess', value: 'Kind', rows: 9 }),
        question({ code: 'several-matches', field: 'name', value: '' }),
        question({ destination: 'owner' }),
      ],
      ['vessel', 'owner'],
    );
    expect(groups.map((g) => [g.name, g.kind, g.words.length, g.rows, g.at])).toEqual([
      ['type_id', 'words', 2, 26, 0],
      ['type_id', 'guess', 1, 9, 0],
      ['name', 'several-matches', 1, 4, 0],
      ['owner.type_id', 'words', 1, 4, 1],
    ]);
  });

  it('asks once how dates are read, for all fields and tables that read them', () => {
    const ask = (field: string, rows: number, destination = 'vessel') =>
      question({ code: 'ambiguous-dates', field, rows, destination, value: '03/04/2026' });
    const groups = grouped(
      [ask('in_on', 9), ask('out_on', 12), ask('since', 9, 'owner')],
      ['vessel', 'owner'],
    );
    expect(groups.map((g) => [g.kind, g.words.length, g.rows, g.at])).toEqual([
      ['ambiguous-dates', 3, 12, -1],
    ]);
  });

  it('lets a row wait that nothing keeps back but a question', () => {
    const note = { code: 'unknown-link' as const, reason: '', softened: false, question: true };
    const entry = (...notes: object[]) =>
      ({ ...anEntry(4), outcome: 'rejected', notes }) as LedgerEntry;
    expect(awaits('rehearsal', entry(note, { ...note, question: false, softened: true }))).toBe(
      true,
    );
    expect(awaits('rehearsal', entry(note, { ...note, question: false }))).toBe(false);
    expect(awaits('rehearsal', { ...entry(note), outcome: 'new' })).toBe(false);
    expect(awaits('run', entry(note))).toBe(false);
  });

  it('keeps rows waiting in a rehearsal, and rejects them in a run', () => {
    const counts = { ...aReport().destinations[0]!, rejected: 70, waiting: 52 };
    expect(waitingRows('rehearsal', counts)).toBe(52);
    expect(rowsOf('rehearsal', counts, 'rejected')).toBe(18);
    expect(waitingRows('run', counts)).toBe(0);
    expect(rowsOf('run', counts, 'rejected')).toBe(70);
    expect(rowsOf('rehearsal', counts, 'new')).toBe(counts.new);
    expect(rowsOf('rehearsal', undefined, 'rejected')).toBe(0);
  });
});
