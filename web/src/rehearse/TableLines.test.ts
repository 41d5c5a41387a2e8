import { render, screen } from '@testing-library/svelte';
import { expect, test } from 'vitest';
import TableLines from './TableLines.svelte';

const none = { new: 0, changed: 0, unchanged: 0, skipped: 0, rejected: 0, fieldsChanged: [] };
const vessel = { ...none, table: 'vessel', new: 1_000, unchanged: 242, rows: 1_242 };

/** What each line says, part by part. */
const lines = () =>
  screen
    .getAllByRole('listitem')
    .map((item) =>
      [...item.querySelectorAll('.name, [data-outcome], .counts > .q, .rows')]
        .map((part) => part.textContent!.replace(/\s+/g, ' ').trim())
        .join(' '),
    );

test('each table has a line with what comes into it', () => {
  const postal = { ...none, table: 'postal', new: 1_240, rejected: 2, rows: 1_242 };
  const seasonal = { ...none, table: 'seasonal', rows: 0 };
  const report = { read: 1_242, destinations: [vessel, postal, seasonal] };
  render(TableLines, { report, parents: [undefined, 0, 0] });
  expect(lines()).toEqual([
    'vessel 1,000 New 242 Unchanged 1,242 of 1,242 rows',
    'postal 1,240 New 2 Rejected 1,242 of 1,242 rows',
    'seasonal no rows 0 of 1,242 rows',
  ]);
});

test('more parts than rows are no share of them', () => {
  const tags = { ...none, table: 'tag', new: 30, rows: 30 };
  render(TableLines, { report: { read: 12, destinations: [{ ...vessel, rows: 12 }, tags] } });
  expect(lines()[1]).toBe('tag 30 New 30 parts');
});

test('an undo says what it removed there', () => {
  const gone = { ...none, table: 'kind', removed: 6, rows: 6 };
  render(TableLines, { report: { read: 6, destinations: [vessel, gone] }, kind: 'undo' });
  expect(lines()[1]).toMatch(/^kind 6 Removed/);
});

test('rows that wait are no rejected ones', () => {
  const asked = { ...none, table: 'kind', rejected: 5, waiting: 5, rows: 5 };
  render(TableLines, { report: { read: 9, destinations: [vessel, asked] }, kind: 'rehearsal' });
  expect(lines()[1]).toBe('kind 5 Waiting 5 of 9 rows');
});
