import type { Edited, EditedRecord, Prospect, UndoRequest } from '../api/types';
import { count, many } from '../ui/words';

/** What can be decided for a record that was edited since. */
export function choices(added: boolean): { value: Edited; text: string }[] {
  return added
    ? [
        { value: 'keep', text: 'Keep it' },
        { value: 'put-back', text: 'Remove it' },
      ]
    : [
        { value: 'keep', text: 'Keep it' },
        { value: 'fields', text: 'Put back the run’s fields' },
        { value: 'put-back', text: 'Put back all' },
      ];
}

/** What tells an edited record from the others. */
export function placeOf(record: EditedRecord): string {
  return `${record.place.destination}.${record.place.row}.${record.place.part}`;
}

/** What was decided, for the server: the usual and the exceptions. */
export function request(
  edited: EditedRecord[],
  forAll: Edited,
  single: Record<string, Edited>,
): UndoRequest {
  return {
    edited: forAll,
    decisions: edited
      .filter((r) => single[placeOf(r)] && single[placeOf(r)] !== forAll)
      .map((r) => ({ ...r.place, edited: single[placeOf(r)]! })),
  };
}

/** What taking back does in a table, in words. */
export function does(part: Prospect['parts'][number]): string {
  const words = [
    part.removed ? `${many(part.removed, 'record')} removed` : '',
    part.putBack ? `${count(part.putBack)} put back as they were` : '',
    part.broughtBack ? `${count(part.broughtBack)} brought back` : '',
    part.edited ? `${count(part.edited)} edited since` : '',
    part.gone ? `${count(part.gone)} no longer as they were found` : '',
    part.held ? `${count(part.held)} held by the database` : '',
  ].filter((w) => w);
  return words.length ? words.join(', ') : 'nothing';
}

/** Why records were not taken back as they were, in words. */
export function why(problem: { code: string; reason: string }): string {
  return (
    {
      'edited-since': 'edited since the run, and left as they are',
      gone: 'no longer there',
      'there-again': 'there again under the same key',
      altered: 'of which the application made something else',
    }[problem.code] ?? problem.reason
  );
}

/** The button that does it. */
export function deed(prospect: Prospect, forAll: Edited, single: Record<string, Edited>): string {
  const sum = (of: (part: Prospect['parts'][number]) => number) =>
    prospect.parts.reduce((n, p) => n + of(p), 0);
  const decided = prospect.edited.filter((r) => {
    const as = single[placeOf(r)] ?? forAll;
    return as === 'put-back' || (as === 'fields' && !r.added);
  });
  // not all that were edited may be listed
  const others = forAll === 'put-back' ? sum((p) => p.edited) - prospect.edited.length : 0;
  const records = sum((p) => p.removed + p.putBack + p.broughtBack) + decided.length + others;
  return records ? `Take ${many(records, 'record')} back` : 'Take it back';
}
