import { expect, it } from 'vitest';
import { letter } from './letters';

it('letters go on after Z', () => {
  expect([0, 25, 26, 701, 702, 16383].map(letter)).toEqual(['A', 'Z', 'AA', 'ZZ', 'AAA', 'XFD']);
});
