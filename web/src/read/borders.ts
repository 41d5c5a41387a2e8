// Borders of fixed-width cells: characters before each cell after the first, ascending.

export function toggledBorder(borders: number[], at: number): number[] {
  return borders.includes(at)
    ? borders.filter((b) => b !== at)
    : [...borders, at].sort((a, b) => a - b);
}

/** Moves a border, but never over another one or before the first character. */
export function movedBorder(borders: number[], from: number, to: number): number[] {
  const index = borders.indexOf(from);
  const least = index > 0 ? borders[index - 1]! + 1 : 1;
  const most = index + 1 < borders.length ? borders[index + 1]! - 1 : Infinity;
  const place = Math.max(least, Math.min(most, to));
  return borders.map((b) => (b === from ? place : b));
}
