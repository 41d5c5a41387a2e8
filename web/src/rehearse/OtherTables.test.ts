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

test('an undo says what it removed there', () => {
  const gone = { ...none, table: 'kind', removed: 6, rows: 6, fieldsChanged: [] };
  render(OtherTables, { report: { destinations: [vessel, gone] }, kind: 'undo' });
  expect(screen.getByRole('listitem').textContent).toMatch(/also\s+kind\s+6\s+removed/);
});

test('rows that wait are no rejected ones', () => {
  const asked = { ...none, table: 'kind', rejected: 5, waiting: 5, rows: 5, fieldsChanged: [] };
  render(OtherTables, { report: { destinations: [vessel, asked] }, kind: 'rehearsal' });
  expect(screen.getByRole('listitem').textContent).toMatch(/5\s+waiting/);
  expect(screen.getByRole('listitem').textContent).not.toMatch(/rejected|no rows/);
});

test('a plan with one table says nothing more', () => {
  render(OtherTables, { report: { destinations: [vessel] } });
  expect(screen.queryByRole('list')).toBeNull();
});
