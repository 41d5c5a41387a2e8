import type {
  ColumnProfile,
  ColumnShape,
  FileChange,
  Fold,
  OtherTable,
  Pick,
  Reading,
} from '../api/types';

// Changes of a reading. Only what a person says stands in it; all else is found in each file.

/** A list without a word if it has it, else with it. */
export function toggled(list: string[] | undefined, word: string): string[] {
  const all = list ?? [];
  return all.includes(word) ? all.filter((w) => w !== word) : [...all, word];
}

/** Another sheet, array or file of the archive: where its rows are is found anew. */
export function elsewhere(reading: Reading, change: Partial<Reading>): Reading {
  return {
    ...reading,
    sheet: undefined,
    sheets: undefined,
    titleRows: undefined,
    unitsRow: undefined,
    firstRow: undefined,
    lastRow: undefined,
    skip: undefined,
    section: undefined,
    fold: undefined,
    ...change,
  };
}

/** One sheet more, or one less, to be read together with the others. */
export function together(reading: Reading, current: string | undefined, sheet: string): Reading {
  const now = reading.sheets?.length ? reading.sheets : current ? [current] : [];
  const next = toggled(now, sheet);
  return next.length > 1
    ? elsewhere(reading, { sheets: next })
    : elsewhere(reading, { sheet: next[0] ?? sheet });
}

export function withTitles(reading: Reading, line: number | undefined): Reading {
  return {
    ...reading,
    titleRows: line === undefined ? undefined : [line],
    unitsRow: undefined,
    firstRow: undefined,
  };
}

/** Another table of the sheet: below the one that is read, or beside it. */
export function withTable(reading: Reading, table: OtherTable): Reading {
  return table.omit
    ? { ...reading, omit: table.omit, lastRow: undefined, section: undefined }
    : {
        ...withTitles(reading, table.titles),
        omit: undefined,
        lastRow: undefined,
        section: undefined,
      };
}

/** The titles with one line more above or below, or without it. */
export function withTitleLine(reading: Reading, found: number[], line: number): Reading {
  const now = reading.titleRows ?? found;
  const next = now.includes(line) ? now.filter((l) => l !== line) : [...now, line];
  return { ...reading, titleRows: next.sort((a, b) => a - b), firstRow: undefined };
}

export function withSkipped(reading: Reading, line: number, text: string): Reading {
  const all = reading.skip ?? [];
  const known = all.some((s) => s.line === line);
  return {
    ...reading,
    skip: known ? all.filter((s) => s.line !== line) : [...all, { line, text }],
  };
}

export function withPick(reading: Reading, pick: Pick): Reading {
  const others = (reading.picks ?? []).filter(
    (p) => !(p.column === pick.column && p.line === pick.line),
  );
  const known = others.length < (reading.picks?.length ?? 0);
  return { ...reading, picks: known ? others : [...others, pick] };
}

/** A pick of a cell, named after the text before it. */
export function pickOf(column: string, line: number, before: string): Pick {
  const label = before.trim();
  return label && !/^[\d\s.,:/-]+$/.test(label)
    ? { name: label.replace(/\s*:$/, ''), column, line, label }
    : { name: `Cell ${column}${line}`, column, line };
}

/** A fold over a range of columns; the words for titles and values can be changed later. */
export function foldOf(from: string, to: string): Fold {
  return { from, to, names: [{ name: 'Title' }], values: ['Value'] };
}

/** Settles that a warning is seen. */
export function withConfirmed(reading: Reading, code: string, column?: string): Reading {
  const key = `${code}:${column ?? ''}`;
  return { ...reading, confirmed: [...(reading.confirmed ?? []), key] };
}

/** What a person may have to say of how a file writes dates and numbers. */
export type Ambiguous = 'ambiguous-dates' | 'ambiguous-decimals';

/** True if it is about that. */
export function isAmbiguous(code: string): code is Ambiguous {
  return code === 'ambiguous-dates' || code === 'ambiguous-decimals';
}

/**
 * Says how dates or numbers are meant that read in two ways; the other question stays open.
 *
 * @param found how the file is read now
 * @param means an order of day and month, or a decimal sign
 */
export function withMeaning(
  reading: Reading,
  found: Reading,
  code: Ambiguous,
  means: string,
): Reading {
  const said = code === 'ambiguous-dates' ? { dateOrder: means } : { decimal: means };
  const locale = { ...found.locale!, ...said } as Reading['locale'];
  return withConfirmed({ ...reading, locale }, code);
}

/** The ways in which a date or number may be meant, each with what the sample would be. */
export function meanings(code: Ambiguous, sample: string): { means: string; words: string }[] {
  if (code === 'ambiguous-decimals') {
    const bare = sample.replace(/[.,]/, '');
    const point = sample.replace(',', '.');
    const comma = sample.includes(',');
    return [
      { means: ',', words: `Comma before decimals: ${comma ? point : bare}` },
      { means: '.', words: `Point before decimals: ${comma ? bare : point}` },
    ];
  }
  const [first = 1, second = 1] = (sample.match(/\d+/g) ?? []).map(Number);
  return [
    { means: 'day-month-year', words: `Day first: ${dayOf(first, second)}` },
    { means: 'month-day-year', words: `Month first: ${dayOf(second, first)}` },
  ];
}

function dayOf(day: number, month: number): string {
  const date = new Date(Date.UTC(2000, month - 1, day));
  return date.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', timeZone: 'UTC' });
}

/** The columns of a file as a plan remembers them. */
export function shape(columns: ColumnProfile[]): ColumnShape[] {
  return columns.map(({ name, letter, type }) => ({ name, letter, type }));
}

/**
 * Takes the columns of another file for those of the plan. Columns that are found to be renamed go
 * on under the name that the plan has for them.
 */
export function withChanges(
  reading: Reading,
  changes: FileChange[],
  columns: ColumnProfile[],
  titles: { name: string; title: string }[],
): Reading {
  const renamed = { ...reading.renamed };
  const names = new Map<string, string>();
  for (const change of changes) {
    if (change.kind === 'renamed' && change.before && change.now) {
      const title = titles.find((t) => t.name === change.now!.name)?.title ?? change.now.name;
      renamed[title] = change.before.name;
      names.set(change.now.name, change.before.name);
    }
  }
  return {
    ...reading,
    renamed: Object.keys(renamed).length ? renamed : undefined,
    columns: shape(columns).map((c) => ({ ...c, name: names.get(c.name) ?? c.name })),
  };
}

/** What is to be done about a change, in words. */
export function changeWords(change: FileChange): { what: string; detail: string } {
  const was = change.before?.name ?? '';
  const is = change.now?.name ?? '';
  switch (change.kind) {
    case 'renamed':
      return { what: `“${was}” is now “${is}”`, detail: change.because };
    case 'moved':
      return { what: `“${is}” has moved`, detail: change.because };
    case 'added':
      return { what: `“${is}” is new`, detail: change.because };
    case 'gone':
      return { what: `“${was}” is gone`, detail: change.because };
    default:
      return { what: `“${is}” holds something else`, detail: change.because };
  }
}
