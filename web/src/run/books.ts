import type { RunReport } from '../api/types';
import { OUTCOMES } from '../ui/words';

type Into = RunReport['destinations'][number];

/** Rows that came to a table and that no outcome accounts for; 0 if its books balance. */
export function leftOver(into: Into): number {
  return into.rows - OUTCOMES.reduce((sum, o) => sum + into[o], 0);
}
