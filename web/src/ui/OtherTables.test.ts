import { render, screen } from '@testing-library/svelte';
import { expect, test } from 'vitest';
import OtherTables from './OtherTables.svelte';

const none = { new: 0, changed: 0, unchanged: 0, skipped: 0, rejected: 0 };
const vessel = { ...none, table: 'vessel', new: 3, rows: 3, fieldsChanged: [] };

test('tables after the first are named with what comes into them', () => {
  const postal = {
    ...none,
    table: 'postal',
    new: 1240,
    rejected: 2,
    rows: 1242,
    fieldsChanged: [],
  };
  const seasonal = { ...none, table: 'seasonal', rows: 0, fieldsChanged: [] };
  render(OtherTables, { report: { destinations: [vessel, postal, seasonal] } });
  const items = screen
    .getAllByRole('listitem')
    .map((i) => i.textContent?.replace(/\s+/g, ' ').trim());
  expect(items[0]).toMatch(/also postal .*1,240 new.*2 rejected/);
  expect(items[0]).not.toContain('changed');
  expect(items[1]).toContain('seasonal no rows');
});

test('a plan with one table says nothing more', () => {
  render(OtherTables, { report: { destinations: [vessel] } });
  expect(screen.queryByRole('list')).toBeNull();
});
