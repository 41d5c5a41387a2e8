import { expect, it } from 'vitest';
import { leftOver } from './books';

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
