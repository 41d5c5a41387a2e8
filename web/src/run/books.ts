import type { RunReport } from '../api/types';
import { OUTCOMES } from '../ui/words';

/** Rows read that no outcome accounts for; 0 if the books balance. */
export function leftOver(report: Pick<RunReport, 'read' | 'destinations'>): number {
  const into = report.destinations[0];
  return into ? report.read - OUTCOMES.reduce((sum, o) => sum + into[o], 0) : report.read;
}
