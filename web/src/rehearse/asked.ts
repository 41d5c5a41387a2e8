// What a report asks, and which of the rejected rows only wait for an answer.
import type { LedgerEntry, Outcome, Question, RunReport } from '../api/types';
import { OF_MATCH } from '../api/codes';
import { isAmbiguous, type Ambiguous } from '../read/reading';

/**
 * Questions of one kind about one field: words, guesses, or which records rows speak of; or about
 * how the file is read.
 */
export interface Asked {
  name: string;
  field: string;
  /** Number of the destination that it is about; under 0 for what concerns the file. */
  at: number;
  kind:
    | 'words'
    | 'far-off'
    | 'guess'
    | 'several-matches'
    | 'similar'
    | 'similar-row'
    | 'no-match'
    | 'matched'
    | 'contradicted'
    | Ambiguous
    | 'columns';
  words: Question[];
  rows: number;
}

function kindOf(question: Question): Asked['kind'] {
  if (isAmbiguous(question.code)) return question.code;
  if (OF_MATCH.includes(question.code)) return question.code as Asked['kind'];
  if (question.code === 'guess' || question.code === 'far-off') return question.code;
  return 'words';
}

/**
 * Questions by kind and field, in the order of the report.
 *
 * @param tables what the destinations are called; what concerns another one than the first is named
 *   with it
 */
export function grouped(questions: Question[], tables: string[]): Asked[] {
  const groups: Asked[] = [];
  for (const question of questions) {
    const kind = kindOf(question);
    // how the file is read concerns it as a whole, whatever field it came up in
    const ofFile = isAmbiguous(kind);
    const at = ofFile ? -1 : tables.indexOf(question.destination);
    const named = at > 0 ? `${question.destination}.${question.field}` : question.field;
    const name = ofFile ? 'file' : named;
    const known = groups.find((g) => g.name === name && g.kind === kind);
    if (known) {
      known.words.push(question);
      known.rows = ofFile ? Math.max(known.rows, question.rows) : known.rows + question.rows;
    } else {
      const { field, rows } = question;
      groups.push({ name, field, at, kind, words: [question], rows });
    }
  }
  return groups;
}

/** What is asked where the columns are unlike those that the plan was made with. */
export const COLUMNS: Asked = {
  name: 'file',
  field: '',
  at: -1,
  kind: 'columns',
  words: [],
  rows: 0,
};

type Counts = RunReport['destinations'][number];

/** Rows of a rehearsal that nothing keeps back but a question; a run leaves them out. */
export function waitingRows(kind: string, counts: Counts | undefined): number {
  return kind === 'rehearsal' ? (counts?.waiting ?? 0) : 0;
}

/** The most rows that only wait in a table; parts of rows are none, unless nothing else goes anywhere. */
export function mostWaiting(report: Pick<RunReport, 'destinations' | 'read'> | undefined): number {
  const all = report?.destinations ?? [];
  const ofRows = all.filter((d) => d.rows <= report!.read);
  return Math.max(0, ...(ofRows.length ? ofRows : all).map((d) => d.waiting ?? 0));
}

/** True if nothing keeps a row of a rehearsal back but a question. */
export function awaits(kind: string, entry: LedgerEntry): boolean {
  return (
    kind === 'rehearsal' &&
    entry.outcome === 'rejected' &&
    entry.notes.some((n) => n.question) &&
    entry.notes.every((n) => n.question || n.softened)
  );
}

/** Rows that came to an outcome; those of a rehearsal that only wait are no rejected ones. */
export function rowsOf(kind: string, counts: Counts | undefined, outcome: Outcome): number {
  const waiting = outcome === 'rejected' ? waitingRows(kind, counts) : 0;
  return (counts?.[outcome] ?? 0) - waiting;
}
