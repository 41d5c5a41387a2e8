/** Pixels of a letter of data, and of a cell's edges. */
const LETTER = 7.7;
const EDGES = 18;

/** The width that a text of so many letters needs. */
export function needed(letters: number): number {
  return Math.ceil(EDGES + LETTER * letters);
}

/** Signs of East Asian scripts, which are twice as wide as letters. */
const WIDE =
  /[\u1100-\u115F\u2E80-\u303E\u3041-\uA4CF\uAC00-\uD7A3\uF900-\uFAFF\uFE30-\uFE6F\uFF01-\uFF60\uFFE0-\uFFE6]/g;

/** Letters of scripts that come from another face, in which each is somewhat wider. */
const BROAD = /[\u0590-\u08FF\u0900-\u0DFF]/g;
const BROADER = 0.3;

/** How many letters are as wide as a text. */
export function letters(text: string): number {
  const wide = text.match(WIDE)?.length ?? 0;
  return text.length + wide + Math.ceil((text.match(BROAD)?.length ?? 0) * BROADER);
}

/** How many letters are as wide as the longest text of a column, told by some of its texts. */
export function longestOf(column: { longest: number; samples: { text: string }[] }): number {
  const widest = Math.max(1, ...column.samples.map((s) => letters(s.text) / (s.text.length || 1)));
  return Math.ceil(column.longest * widest);
}

/** A column that wants some room. */
export interface Wanting {
  /** What it has in any case. */
  least: number;
  /** With how much nothing in it is cut. */
  need: number;
}

/**
 * Widths of columns, in pixels: each has its least, and what room is left goes to those whose
 * values need more, the ones that lack least first.
 */
export function fit(columns: Wanting[], room: number): number[] {
  const widths = columns.map((c) => c.least);
  let spare = room - widths.reduce((sum, w) => sum + w, 0);
  const lacking = columns
    .map((c, i) => ({ i, lacks: c.need - c.least }))
    .filter((c) => c.lacks > 0)
    .sort((a, b) => a.lacks - b.lacks);
  lacking.forEach(({ i, lacks }, n) => {
    if (spare <= 0) return;
    const given = Math.min(lacks, Math.floor(spare / (lacking.length - n)));
    widths[i] = widths[i]! + given;
    spare -= given;
  });
  return widths;
}
