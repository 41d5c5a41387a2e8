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
};

it('nothing is left over when the books balance', () => {
  expect(leftOver({ read: 1204, destinations: [into] })).toBe(0);
});

it('a row that no outcome accounts for is left over', () => {
  expect(leftOver({ read: 1205, destinations: [into] })).toBe(1);
  expect(leftOver({ read: 3, destinations: [] })).toBe(3);
});
