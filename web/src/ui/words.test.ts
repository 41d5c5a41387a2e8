import { describe, expect, it } from 'vitest';
import type { FieldInfo, Fill, Note } from '../api/types';
import {
  columnsOf,
  count,
  ends,
  fieldWords,
  happened,
  limits,
  many,
  phrase,
  took,
  when,
} from './words';

const field = (change: Partial<FieldInfo>): FieldInfo => ({
  name: 'f',
  type: 'text',
  nullable: true,
  hasDefault: false,
  generated: false,
  unique: false,
  jdbcType: 12,
  typeName: 'text',
  ...change,
});

const fill = (change: Partial<Fill>): Fill => ({
  field: 'f',
  origin: { kind: 'column', column: 'Reg No' },
  steps: [],
  whenBlank: 'leave',
  blankOnMatch: 'keep',
  whenBad: 'reject',
  onlyNew: false,
  ...change,
});

describe('counts', () => {
  it('parts thousands and minds the number', () => {
    expect(count(1204)).toBe('1,204');
    expect(many(1, 'row')).toBe('1 row');
    expect(many(0, 'row')).toBe('0 rows');
    expect(many(2, 'entry', 'entries')).toBe('2 entries');
  });
});

describe('what a field is', () => {
  it('is said in a few words', () => {
    expect(fieldWords(field({ length: 10, nullable: false, unique: true }))).toBe(
      'text, 10, required, unique',
    );
    const link = { table: 'owner', keyField: 'id', declared: true };
    expect(fieldWords(field({ link, nullable: false }))).toBe('link to owner, required');
    expect(fieldWords(field({ link: { ...link, declared: false } }))).toBe(
      'link to owner, by its name',
    );
    expect(fieldWords(field({ choices: ['a', 'b', 'c'] }))).toBe('choice of 3');
    expect(
      fieldWords(field({ type: 'whole', generated: true, nullable: false, unique: true })),
    ).toBe('whole number');
    expect(fieldWords(field({ nullable: false, hasDefault: true }))).not.toContain('required');
  });

  it('has limits worth telling', () => {
    expect(limits(field({ type: 'decimal', least: 2, greatest: 60 }))).toBe('2 to 60');
    expect(limits(field({ type: 'whole', least: -2147483648, greatest: 2147483647 }))).toBe('');
    expect(limits(field({ length: 40 }))).toBe('at most 40 characters');
    expect(limits(field({ choices: ['afloat', 'ashore'] }))).toBe('afloat, ashore');
  });
});

describe('a fill as a phrase', () => {
  it('names the column and the steps that are on', () => {
    const steps: Fill['steps'] = [
      { kind: 'trim', with: {}, off: false },
      { kind: 'case', with: { to: 'upper' }, off: true },
    ];
    expect(phrase(fill({ steps }), field({}))).toEqual({ column: 'Reg No', rest: ' then 1 step' });
    expect(phrase(fill({}), field({}))).toEqual({ column: 'Reg No', rest: '' });
  });

  it('says what the other origins do', () => {
    const link = {
      by: 'email',
      with: [],
      also: [],
      ignoring: [],
      whenMissing: 'reject' as const,
      create: [],
    };
    expect(phrase(fill({ origin: { kind: 'link', column: 'Owner', link } }), field({})).rest).toBe(
      ' finds email',
    );
    expect(phrase(fill({ origin: { kind: 'fixed', value: 'away' } }), field({})).rest).toBe(
      'always “away”',
    );
    expect(phrase(fill({ origin: { kind: 'generated', generator: 'who' } }), field({})).rest).toBe(
      'generated: who starts the Run',
    );
    expect(phrase(undefined, field({ generated: true })).rest).toBe('the database numbers it');
    expect(phrase(undefined, field({})).rest).toBe('left blank');
  });
});

describe('the columns of a fill', () => {
  it('are those of its origin, its steps and its look-up', () => {
    const read = fill({
      origin: {
        kind: 'link',
        template: '[Town], [Size [m]]]',
        link: {
          by: 'name',
          with: [],
          also: [{ field: 'land', column: 'Land' }],
          ignoring: [],
          whenMissing: 'ask',
          create: [],
        },
      },
      steps: [
        { kind: 'or-column', with: { column: 'City' }, off: false },
        { kind: 'join', with: { column: 'Unused' }, off: true },
        { kind: 'formula', with: { formula: '[value] & [Kind]' }, off: false },
      ],
    });
    expect(columnsOf(read)).toEqual(['Town', 'Size [m]', 'City', 'Kind', 'Land']);
    expect(columnsOf(undefined)).toEqual([]);
  });
});

describe('what happened to a row', () => {
  const note = (change: Partial<Note>): Note => ({
    code: 'not-a-date',
    reason: 'no such day',
    softened: false,
    question: false,
    ...change,
  });

  it('is one line', () => {
    expect(happened('new', [], [], 11)).toBe('11 fields');
    expect(happened('changed', ['a', 'b'], [], 5)).toBe('a, b');
    expect(happened('changed', ['a', 'b', 'c', 'd'], [], 5)).toBe('a, b, 2 more');
    expect(happened('unchanged', [], [], 5)).toBe('every filled field agrees');
    expect(happened('rejected', [], [note({ field: 'arrived_on', value: '31.02.2026' })], 5)).toBe(
      'arrived_on: “31.02.2026” no such day',
    );
    expect(happened('rejected', [], [note({}), note({})], 5)).toBe('no such day, and 1 more');
  });

  it('keeps words from right to left apart', () => {
    const one = [note({ field: 'شركة', value: 'النيل', reason: 'is not found' })];
    expect(happened('rejected', [], one, 5)).toBe(
      '\u2068شركة\u2069: “\u2068النيل\u2069” is not found',
    );
    expect(happened('changed', ['شركة', 'name'], [], 5)).toBe('\u2068شركة\u2069, name');
  });

  it('names no keys of records as if they were cells', () => {
    const said = { field: 'reg', value: '15', reason: 'line 145 has the same key' };
    const one = [note({ ...said, code: 'contradicted', question: true })];
    expect(happened('rejected', [], one, 5)).toBe('reg: line 145 has the same key');
  });

  it('tells first what rejects, not what was let go', () => {
    const soft = note({ reason: 'let go', softened: true });
    expect(happened('rejected', [], [soft, note({})], 5)).toBe('no such day, and 1 more');
  });
});

describe('blanks at the ends of a cell', () => {
  it('are counted on each side', () => {
    expect(ends(' 36,25  ')).toEqual({ before: 1, middle: '36,25', after: 2 });
    expect(ends('32')).toEqual({ before: 0, middle: '32', after: 0 });
    expect(ends('   ')).toEqual({ before: 0, middle: '   ', after: 0 });
  });
});

describe('how long something took', () => {
  it('has as many figures as matter', () => {
    expect([0.0582, 1.25, 9.96, 18.253, 119.4, 187.2].map(took)).toEqual([
      '0.06 s',
      '1.3 s',
      '10.0 s',
      '18 s',
      '119 s',
      '3 min 7 s',
    ]);
  });
});

describe('moments', () => {
  const now = new Date('2026-11-23T12:00:00');
  it('are the clock today and the day before that', () => {
    expect(when('2026-11-23T09:52:00', now)).toBe('09:52');
    expect(when('2026-11-20T09:52:00', now)).toBe('20 Nov 09:52');
    expect(when(undefined, now)).toBe('');
  });
});
