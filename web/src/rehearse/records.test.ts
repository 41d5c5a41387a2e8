import { render, screen } from '@testing-library/svelte';
import { beforeEach, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import type { LedgerEntry } from '../api/types';
import { anEntry } from '../plan/fixtures';
import OtherRecords from './OtherRecords.svelte';
import { fates, RowRecords } from './records.svelte';
import RowFates from './RowFates.svelte';

const entry = (line: number, change: Partial<LedgerEntry> = {}): LedgerEntry =>
  ({ ...anEntry(line), notes: [], changed: [], ...change }) as LedgerEntry;
const question = { code: 'unknown-link', reason: 'no such town', softened: false, question: true };
const get = vi.fn();

beforeEach(() => {
  vi.restoreAllMocks();
  get.mockReset();
  vi.spyOn(api, 'GET').mockImplementation(get as never);
});

it('each outcome of a row is told once, and waiting is none', () => {
  const waits = entry(2, { outcome: 'rejected', notes: [question] as never });
  const all = [entry(2, { outcome: 'new' }), entry(2, { outcome: 'new' }), waits];
  expect(fates('rehearsal', all)).toEqual([
    { of: 'new', waiting: false, records: 2 },
    { of: 'rejected', waiting: true, records: 1 },
  ]);
  expect(fates('run', [waits])).toEqual([{ of: 'rejected', waiting: false, records: 1 }]);
});

it('lines are asked for once a table, and rows that share one are told apart', async () => {
  const found = [entry(2, { row: 0 }), entry(2, { row: 1, outcome: 'skipped' })];
  get.mockResolvedValue({ data: { fields: ['town'], total: 2, entries: found } });
  const records = new RowRecords(7, vi.fn());
  expect(records.of(entry(2, { row: 1 }), 1)).toBeUndefined();
  await records.want([2, 3], 1);
  await records.want([2, 3, 4], 1);
  await records.want([2], 2);
  const asked = get.mock.calls.map((c) => c[1].params.query);
  expect(asked.map((q) => [q.destination, q.line])).toEqual([
    [1, [2, 3]],
    [1, [4]],
    [2, [2]],
  ]);
  expect(records.of(entry(2, { row: 1 }), 1)?.map((e) => e.outcome)).toEqual(['skipped']);
  expect(records.of(entry(3), 1)).toEqual([]);
  expect(records.fields.get(1)).toEqual(['town']);
});

it('a row without a record there says so, but not before that is known', async () => {
  const { rerender } = render(RowFates, { entries: undefined, kind: 'run' });
  expect(screen.queryByText('no record')).toBeNull();
  await rerender({ entries: [], kind: 'run' });
  expect(screen.getByText('no record')).toBeInTheDocument();
});

it('the row in hand tells what it makes in the other tables', () => {
  const stop = entry(2, {
    outcome: 'changed',
    recordKey: '31',
    after: ['Oban', null, 'A'] as never,
    before: ['Leith', null, 'A'] as never,
    changed: [0],
  });
  const others = [
    { table: 'stop', isUnder: true, fields: ['town', 'note', 'pier'], entries: [stop] },
  ];
  render(OtherRecords, { others, kind: 'run' });
  const record = screen.getByRole('region', { name: 'Record of stop' });
  expect(record.textContent!.replace(/\s+/g, ' ')).toMatch(
    /stop record 31 Changed.* town ?Oban ?was Leith ?pier ?A/,
  );
  expect(record).not.toHaveTextContent('note');
});
