/**
 * Codes of what is said or asked about which record a row speaks of. Their values are keys of
 * records or lines, and no words of a cell.
 */
export const OF_MATCH = [
  'several-matches',
  'similar',
  'similar-row',
  'no-match',
  'matched',
  'contradicted',
];

/** What befalls a row because of another record that it makes. */
export const OF_ANOTHER: readonly string[] = ['parent', 'row-rejected'];
