/** The letters by which spreadsheets name columns, from 0: A, B, … Z, AA. */
export function letter(column: number): string {
  let letters = '';
  for (let rest = column; rest >= 0; rest = Math.floor(rest / 26) - 1) {
    letters = String.fromCharCode(65 + (rest % 26)) + letters;
  }
  return letters;
}
