// Two rows of a file that are much alike, said to be the same.
import type { Correction, LedgerEntry } from '../api/types';
import { cellsOf } from '../plan/cells';
import type { OpenPlan } from '../plan/plan.svelte';
import { hasExact, isNear } from './keys';

/**
 * Fields by which rows are only near to each other, with the columns that fill them; null if one
 * is filled otherwise, so that no cell can be spelt as another row's, or if no key in front compares
 * them exactly, so that rows that are spelt alike would be no repeats.
 */
export function spelt(open: OpenPlan): Record<string, string> | null {
  const columns: Record<string, string> = {};
  for (const key of open.destination.keys.filter(isNear)) {
    if (!hasExact(open.destination.keys, key)) return null;
    for (const field of key.fields) {
      const origin = open.fill(field)?.origin;
      if (origin?.kind !== 'column' || !origin.column) return null;
      columns[field] = origin.column;
    }
  }
  return Object.keys(columns).length ? columns : null;
}

/**
 * Spells a row as an earlier one by correcting its cells, so that the two repeat the same key, and
 * become one record as the plan says of such rows.
 */
export async function spellAs(open: OpenPlan, row: LedgerEntry, earlier: LedgerEntry) {
  const columns = Object.values(spelt(open) ?? {});
  const [own, other] = await Promise.all([cellsOf(open, row.row), cellsOf(open, earlier.row)]);
  const corrections: Correction[] = columns
    .filter((column) => own[column] !== other[column])
    .map((column) => ({ line: row.line, column, was: own[column]!, now: other[column]! }));
  if (corrections.length) open.correct(...corrections);
}
