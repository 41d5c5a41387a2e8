import { OF_MATCH } from '../api/codes';
import type { FieldInfo, Fill, Note, Outcome, Step } from '../api/types';

const number = new Intl.NumberFormat('en-GB');

/** A count as people read it: 1,204. */
export function count(value: number): string {
  return number.format(value);
}

/** A number that is no count: with its fractions, without the noise of binary ones. */
export function amount(value: number): string {
  return value.toLocaleString('en-GB', { maximumFractionDigits: 6 });
}

/** A count with its noun in the right number. */
export function many(value: number, one: string, more = `${one}s`): string {
  return `${count(value)} ${value === 1 ? one : more}`;
}

/** How long something took: as many figures as matter. */
export function took(seconds: number): string {
  if (seconds >= 120) return `${Math.floor(seconds / 60)} min ${Math.round(seconds % 60)} s`;
  const digits = seconds >= 10 ? 0 : seconds >= 1 ? 1 : 2;
  return `${seconds.toFixed(digits)} s`;
}

/** Some words in a row: the first few, and how many more there are. */
export function listed(words: string[], most = 4): string {
  const more = words.length - most;
  return more > 1
    ? `${words.slice(0, most).join(', ')} and ${more} more`
    : words.slice(0, most + 1).join(', ');
}

/** What a row can come to when it is brought in. */
export const OUTCOMES = [
  'new',
  'changed',
  'unchanged',
  'skipped',
  'rejected',
] as const satisfies Outcome[];

/** What a record that a run has written can come to when the run is taken back. */
export const UNDO_OUTCOMES = [
  'removed',
  'changed',
  'new',
  'unchanged',
  'skipped',
  'rejected',
] as const satisfies Outcome[];

const UNDO_WORDS: Record<Outcome, string> = {
  removed: 'Removed',
  changed: 'Put back',
  new: 'Brought back',
  unchanged: 'As it was',
  skipped: 'Left',
  rejected: 'Held',
};

/**
 * The outcomes of a rehearsal or run, or of an undo: of these only what came about, for an undo
 * brings records back only if it takes back an undo.
 */
export function outcomesOf(
  kind: string,
  counts: Partial<Record<Outcome, number>> = {},
): readonly Outcome[] {
  return kind === 'undo' ? UNDO_OUTCOMES.filter((o) => o === 'removed' || counts[o]) : OUTCOMES;
}

/** The word for an outcome; an undo has its own. */
export function outcomeWord(outcome: Outcome, kind = ''): string {
  return kind === 'undo' ? UNDO_WORDS[outcome] : capital(outcome);
}

export function capital(word: string): string {
  return word.charAt(0).toUpperCase() + word.slice(1);
}

/** What a field is, in a few words. */
export function fieldWords(field: FieldInfo): string {
  const words: string[] = [];
  if (field.link?.declared === false) words.push(`link to ${field.link.table}, by its name`);
  else if (field.link) words.push(`link to ${field.link.table}`);
  else if (field.choices) words.push(`choice of ${field.choices.length}`);
  else if (field.type === 'text') words.push(field.length ? `text, ${field.length}` : 'text');
  else
    words.push(
      { whole: 'whole number', datetime: 'date and time' }[field.type as string] ?? field.type,
    );
  if (!field.nullable && !field.hasDefault && !field.generated) words.push('required');
  if (field.unique && !field.generated) words.push('unique');
  return words.join(', ');
}

/** The limits that a field sets, for the head of its last stage. */
export function limits(field: FieldInfo): string {
  if (field.choices) return field.choices.join(', ');
  const inferred = Math.abs(field.greatest ?? 0) >= 32767;
  if (field.least != null && field.greatest != null && !inferred)
    return `${field.least} to ${field.greatest}`;
  if (field.length) return `at most ${field.length} characters`;
  return '';
}

/** Bytes in the unit in which people think of files. */
export function megabytes(bytes: number): string {
  const units = ['B', 'KB', 'MB', 'GB', 'TB'];
  let size = bytes;
  let unit = 0;
  while (size >= 1024 && unit < units.length - 1) {
    size /= 1024;
    unit++;
  }
  return `${size.toLocaleString('en-GB', { maximumFractionDigits: size < 10 && unit ? 1 : 0 })} ${units[unit]}`;
}

export const GENERATED: Record<string, string> = {
  who: 'who starts the Run',
  'run-time': 'when the Run starts',
  'file-name': 'name of the file',
  line: 'line in the file',
  row: 'number of the row',
  run: 'number of the Run',
  uuid: 'a random identifier',
  series: 'numbers in series',
};

/** What comes before and after the column's name in a fill's phrase. */
export function phrase(
  fill: Fill | undefined,
  field: FieldInfo,
): { column?: string; rest: string } {
  if (!fill || fill.origin.kind === 'database')
    return {
      rest: field.unfillable
        ? field.unfillable
        : field.generated
          ? 'the database numbers it'
          : field.hasDefault
            ? 'left to the database, which has a default'
            : 'left blank',
    };
  const steps = fill.steps.filter((s) => !s.off).length;
  const then = steps ? ` then ${many(steps, 'step')}` : '';
  switch (fill.origin.kind) {
    case 'column':
      return { column: fill.origin.column, rest: then };
    case 'joined':
      return { rest: `joined: ${fill.origin.template ?? ''}${then}` };
    case 'formula':
      return { rest: `formula: ${fill.origin.formula ?? ''}${then}` };
    case 'link': {
      const by = lookedIn(fill.origin.link);
      const book = fill.steps.find((s) => s.kind === 'translate' && !s.off);
      return {
        column: fill.origin.column,
        rest: `${book ? ' by phrasebook,' : ''}${fill.origin.column ? '' : linkedBy(fill)} finds ${by}`,
      };
    }
    case 'fixed':
      return { rest: `always “${fill.origin.value ?? ''}”${then}` };
    default:
      return { rest: `generated: ${GENERATED[fill.origin.generator ?? ''] ?? ''}` };
  }
}

function linkedBy(fill: Fill): string {
  return fill.origin.formula
    ? 'formula'
    : fill.origin.template
      ? fill.origin.template
      : `“${fill.origin.value ?? ''}”`;
}

/** Names of the columns that stand in brackets in a template or formula. */
export function bracketed(text: string | undefined): string[] {
  const names: string[] = [];
  for (const match of (text ?? '').matchAll(/\[((?:[^\]]|\]\])+)\]/g))
    names.push(match[1]!.replaceAll(']]', ']'));
  return [...new Set(names)];
}

/** All columns that a fill reads: by its origin, its steps and its look-up. */
export function columnsOf(fill: Fill | undefined): string[] {
  if (!fill) return [];
  const { column, template, formula, link } = fill.origin;
  const steps = fill.steps
    .filter((s) => !s.off)
    .flatMap((s) => [
      ...(s.with.column ? [s.with.column] : []),
      ...bracketed(s.kind === 'formula' ? s.with.formula : '').filter((c) => c !== 'value'),
    ]);
  return [
    ...new Set([
      ...(column ? [column] : []),
      ...bracketed(template),
      ...bracketed(formula),
      ...steps,
      ...(link?.also ?? []).map((a) => a.column),
      ...(link?.create ?? []).flatMap((made) => columnsOf(made)),
    ]),
  ];
}

/** The fields in which a link looks for what its cell holds. */
export function lookedIn(link: Fill['origin']['link']): string {
  return link ? [link.by, ...link.with].join(' and ') : '';
}

/** The second line of a step's heading where it has no settings to edit. */
export function stepWords(step: Step, altered: number | undefined): string {
  if (step.off) return 'switched off';
  return altered === undefined ? '' : altered === 0 ? 'altered none' : `altered ${count(altered)}`;
}

/** What happened to a row, in one line. */
export function happened(
  outcome: Outcome,
  changed: string[],
  notes: Note[],
  filled: number,
): string {
  if (outcome === 'new') return many(filled, 'field');
  if (outcome === 'changed')
    return changed.length > 3
      ? `${changed.slice(0, 2).map(apart).join(', ')}, ${changed.length - 2} more`
      : changed.map(apart).join(', ');
  if (outcome === 'unchanged') return 'every filled field agrees';
  if (outcome === 'removed' && !notes.length) return 'the record is gone';
  const note = notes.find((n) => !n.softened) ?? notes[0];
  if (!note) return '';
  return noteWords(note) + (notes.length > 1 ? `, and ${notes.length - 1} more` : '');
}

export function noteWords(note: Note): string {
  const value = note.value && !OF_MATCH.includes(note.code) ? ` “${apart(note.value)}”` : '';
  return (note.field ? `${apart(note.field)}:${value} ` : '') + note.reason;
}

const RIGHT_TO_LEFT = /[\u0590-\u08FF]/;

/** Data within a sentence: what is written from right to left turns nothing that stands beside it. */
export function apart(text: string): string {
  return RIGHT_TO_LEFT.test(text) ? `\u2068${text}\u2069` : text;
}

/** Spaces at the ends of a cell, shown as dots. */
export function ends(text: string): { before: number; middle: string; after: number } {
  const middle = text.trim();
  if (!middle) return { before: 0, middle: text, after: 0 };
  const before = text.indexOf(middle);
  return { before, middle, after: text.length - before - middle.length };
}

/** The day of a moment. */
export function date(iso: string): string {
  return new Date(iso).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
  });
}

/** A moment as it is told: today by the clock, else by the day. */
export function when(iso: string | undefined, now = new Date()): string {
  if (!iso) return '';
  const at = new Date(iso);
  const clock = at.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
  if (at.toDateString() === now.toDateString()) return clock;
  return `${at.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })} ${clock}`;
}
