/** Pixels of a letter of data, and of a cell's edges. */
const LETTER = 7.7;
const EDGES = 18;

/** The width that a text of so many letters needs. */
export function needed(letters: number): number {
  return Math.ceil(EDGES + LETTER * letters);
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
