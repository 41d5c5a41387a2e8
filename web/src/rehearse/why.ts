import type { Fill, LedgerEntry } from '../api/types';
import { lookedIn, many } from '../ui/words';

/** Why a field of a row stands as it does, in the user's words. */
export function why(
  fills: { fill: (field: string) => Fill | undefined },
  field: string,
  entry: LedgerEntry,
  i: number,
): string {
  const fill = fills.fill(field);
  if (!fill) return '';
  const matched = !!entry.before;
  if (matched && fill.onlyNew) return 'only for new records, so it keeps its own';
  if (entry.after[i] == null) {
    if (!matched) return 'blank, so left to the database';
    return fill.blankOnMatch === 'clear' ? 'blank, so cleared' : 'blank, so kept';
  }
  switch (fill.origin.kind) {
    case 'link':
      return `${fill.origin.column} found by ${lookedIn(fill.origin.link)}`;
    case 'column': {
      const steps = fill.steps.filter((s) => !s.off).length;
      return `${fill.origin.column}${steps ? `, after ${many(steps, 'step')}` : ''}`;
    }
    case 'fixed':
      return 'the fixed value';
    default:
      return 'generated';
  }
}
