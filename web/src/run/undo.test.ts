import { expect, test } from 'vitest';
import type { EditedRecord, Prospect } from '../api/types';
import { choices, deed, does, placeOf, request, why } from './undo';

const edited = (row: number): EditedRecord => ({
  destination: 'vessel',
  place: { destination: 0, row, part: 0 },
  line: row + 2,
  key: String(row),
  added: false,
  fields: [],
});

const part = {
  destination: 'vessel',
  table: 'vessel',
  removed: 0,
  putBack: 0,
  broughtBack: 0,
  edited: 0,
  gone: 0,
  held: 0,
};

test('what is decided for all is sent once, with the exceptions', () => {
  const records = [edited(4), edited(9)];
  const single = {
    [placeOf(records[1]!)]: 'fields' as const,
    [placeOf(records[0]!)]: 'keep' as const,
  };
  expect(request(records, 'keep', single)).toEqual({
    edited: 'keep',
    decisions: [{ destination: 0, row: 9, part: 0, edited: 'fields' }],
  });
  expect(request(records, 'put-back', {}).decisions).toEqual([]);
});

test('a record that the run added is kept or removed, nothing between', () => {
  expect(choices(true).map((c) => c.value)).toEqual(['keep', 'put-back']);
  expect(choices(false).map((c) => c.value)).toEqual(['keep', 'fields', 'put-back']);
});

test('what it does is said table by table', () => {
  expect(does({ ...part, removed: 1, putBack: 1200, held: 2 })).toBe(
    '1 record removed, 1,200 put back as they were, 2 held by the database',
  );
  expect(does(part)).toBe('nothing');
  const prospect: Prospect = {
    parts: [
      { ...part, removed: 500 },
      { ...part, broughtBack: 11 },
    ],
    tried: true,
    edited: [],
    held: [],
  };
  expect(deed(prospect, 'keep', {})).toBe('Take 511 records back');
  expect(deed({ ...prospect, parts: [part] }, 'keep', {})).toBe('Take it back');
});

test('what was decided of edited records counts', () => {
  const of = (row: number, added: boolean) => ({ ...edited(row), added });
  const prospect: Prospect = {
    parts: [{ ...part, removed: 5, edited: 4 }],
    tried: true,
    edited: [of(1, true), of(2, false), of(3, false)],
    held: [],
  };
  expect(deed(prospect, 'keep', {})).toBe('Take 5 records back');
  expect(deed(prospect, 'keep', { [placeOf(of(1, true))]: 'put-back' })).toBe(
    'Take 6 records back',
  );
  expect(deed(prospect, 'fields', {})).toBe('Take 7 records back');
  expect(deed(prospect, 'put-back', { [placeOf(of(2, false))]: 'keep' })).toBe(
    'Take 8 records back',
  );
});

test('the database’s own words are shown where it holds a record', () => {
  expect(why({ code: 'gone', reason: 'x' })).toBe('no longer there');
  expect(why({ code: 'held', reason: 'the database keeps it: a berth points at it' })).toContain(
    'a berth points at it',
  );
});
