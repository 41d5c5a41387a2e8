import { render, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import { anEntry, anOpenPlan } from '../plan/fixtures';
import Inspector from './Inspector.svelte';

type Note = ReturnType<typeof anEntry>['notes'][number];

function show(note: Partial<Note>) {
  const open = anOpenPlan();
  const notes = [{ softened: false, question: true, field: 'registration', ...note } as Note];
  const entry = anEntry(10, { outcome: 'rejected', notes });
  const fields = ['registration', 'name'];
  const into = open.plan.destinations[0];
  const rest = { table: 0, low: false, kind: 'rehearsal', goTo: vi.fn(), share: vi.fn() };
  render(Inspector, { open, entry, into, fields, ...rest });
  return screen.getAllByRole('row')[1]!;
}

describe('why a row is what it is', () => {
  it('shows the value of a key whose record is asked about, not the record', () => {
    const row = show({ code: 'similar-row', value: '4', reason: 'much like line 4: name Wren' });
    expect(row).toHaveTextContent(/QH-10\s*much like line 4: name Wren/);
  });

  it('shows the value that is wrong, as it came', () => {
    const row = show({ code: 'unknown-choice', value: 'Ketch rig', reason: 'is no choice' });
    expect(row).toHaveTextContent(/Ketch rig\s*is no choice/);
  });
});
