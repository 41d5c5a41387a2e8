import { render, screen, within } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import { anEntry, aReport, aRun } from '../plan/fixtures';
import Record from './Record.svelte';

vi.mock('../router', () => ({ route: { params: { id: '7' } } }));

describe('the record of a run', () => {
  beforeEach(() => {
    vi.restoreAllMocks();
  });

  function answer(run: ReturnType<typeof aRun>) {
    const ledger = {
      fields: ['registration', 'name'],
      total: 1,
      entries: [anEntry(10, { outcome: 'changed', before: ['QH-10', 'Old name'], changed: [1] })],
    };
    vi.spyOn(api, 'GET').mockImplementation(((path: string) => {
      if (path.endsWith('/ledger')) return Promise.resolve({ data: ledger });
      if (path.endsWith('/fields'))
        return Promise.resolve({ data: [{ field: 'name', records: 388, filled: 4, cleared: 0 }] });
      return Promise.resolve({ data: run });
    }) as never);
  }

  it('says what it was of, whether it adds up, and shows rows', async () => {
    answer({ ...aRun({ report: aReport() }), checksum: 'ab12'.repeat(16) });
    render(Record);
    expect(await screen.findByText('ab12'.repeat(16))).toBeInTheDocument();
    const row = screen.getByRole('cell', { name: 'vessel' }).closest('tr')!;
    expect(within(row).getByText('511')).toBeInTheDocument();
    expect(row.lastElementChild).toHaveTextContent('0');
    expect(screen.getByText('It adds up, to the row and to the last digit.')).toBeInTheDocument();
    expect(screen.getAllByText('name: Old name → Boat 10').length).toBeGreaterThan(0);
    expect(screen.getByRole('link', { name: 'All rows as text' })).toHaveAttribute(
      'href',
      '/api/runs/7/record?format=csv',
    );
  });

  it('says so where there are no books', async () => {
    answer(aRun({ report: undefined, state: 'failed' }));
    render(Record);
    expect(await screen.findByText(/no books of it: it is failed/)).toBeInTheDocument();
  });
});
