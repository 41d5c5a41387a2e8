import { expect, it } from 'vitest';
import { aField } from '../plan/fixtures';
import { deed, leftOver, sums } from './books';

const into = {
  table: 'vessel',
  new: 511,
  changed: 388,
  unchanged: 223,
  skipped: 12,
  rejected: 70,
  fieldsChanged: [],
  rows: 1204,
};

it('nothing is left over when the books balance', () => {
  expect(leftOver(into)).toBe(0);
});

it('a row that no outcome accounts for is left over', () => {
  expect(leftOver({ ...into, rows: 1205 })).toBe(1);
});

it('the button says what a run would do, over all tables', () => {
  const other = { ...into, table: 'owner', new: 1, changed: 0 };
  expect(deed({ destinations: [into] })).toBe('Add 511 and change 388 records');
  expect(deed({ destinations: [{ ...into, changed: 0 }, other] })).toBe('Add 512 records');
  expect(deed({ destinations: [other] })).toBe('Add 1 record');
  expect(deed({ destinations: [{ ...into, new: 0, changed: 1 }] })).toBe('Change 1 record');
  expect(deed({ destinations: [{ ...other, new: 0 }] })).toBe('');
});

it('sums have the decimals of their field', () => {
  expect(sums(aField('price', { type: 'decimal', scale: 3 })).format(1204.5)).toBe('1,204.500');
  expect(sums(aField('berths', { type: 'whole', scale: 0 })).format(1204)).toBe('1,204');
  expect(sums(aField('ratio', { type: 'decimal' })).format(0.12345)).toBe('0.1235');
  expect(sums(undefined).format(7)).toBe('7.00');
});
