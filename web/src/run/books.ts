import type { FieldInfo, RunReport } from '../api/types';
import { count, many, OUTCOMES } from '../ui/words';

type Into = RunReport['destinations'][number];

/** Rows that came to a table and that no outcome accounts for; 0 if its books balance. */
export function leftOver(into: Into): number {
  return into.rows - OUTCOMES.reduce((sum, o) => sum + into[o], 0);
}

/** What a run of what was rehearsed would do, as its button says; '' if it would write nothing. */
export function deed(report: Pick<RunReport, 'destinations'>): string {
  const added = report.destinations.reduce((sum, into) => sum + into.new, 0);
  const changed = report.destinations.reduce((sum, into) => sum + into.changed, 0);
  if (added && changed) return `Add ${count(added)} and change ${many(changed, 'record')}`;
  if (added) return `Add ${many(added, 'record')}`;
  return changed ? `Change ${many(changed, 'record')}` : '';
}

const MOST_DECIMALS = 6;

/** How sums of a field are written: with as many decimals as the field has. */
export function sums(field: FieldInfo | undefined): Intl.NumberFormat {
  const places = field?.type === 'whole' ? 0 : field?.scale;
  return new Intl.NumberFormat('en-GB', {
    minimumFractionDigits: Math.min(places ?? 2, MOST_DECIMALS),
    maximumFractionDigits: Math.min(places ?? 4, MOST_DECIMALS),
  });
}

/** How a control total is written; of tables that are not shown the fields are not at hand. */
export function sumsOf(
  shown: { name: string; fields: FieldInfo[] },
  total: { destination: string; field: string },
): Intl.NumberFormat {
  const here = total.destination === shown.name;
  return sums(here ? shown.fields.find((f) => f.name === total.field) : undefined);
}
