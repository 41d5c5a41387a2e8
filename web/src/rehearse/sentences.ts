// What the questions of a report say.
import type { TableInfo } from '../api/types';
import { many } from '../ui/words';
import type { Asked } from './asked';

/** The sentence that a question is, where it is not about a word. */
export function heading(asked: Asked, table: string): string {
  switch (asked.kind) {
    case 'several-matches':
      return `Several records of ${table} have the same ${asked.field}`;
    case 'similar':
      return `Records of ${table} are much like rows in ${asked.field}`;
    case 'similar-row':
      return `Rows are much like earlier rows in ${asked.field}`;
    case 'contradicted':
      return `Lines with the same ${asked.field} say different things`;
    case 'no-match':
      return `No record of ${table} has this ${asked.field}`;
    case 'matched':
      return `A record of ${table} with this ${asked.field} is there`;
    case 'columns':
      return `${many(asked.rows, 'column')} unlike last time`;
    case 'guess':
      return `${asked.name} is filled by a guess: ${asked.words[0]?.value}`;
    default:
      return '';
  }
}

/**
 * What is said of the word that a question is about.
 *
 * @param of the table of its field, as far as that is known
 */
export function saidOf(asked: Asked, of: TableInfo | undefined): string {
  if (asked.kind === 'far-off') return 'is far from all others';
  const table = of?.fields.find((f) => f.name === asked.field)?.link?.table;
  const code = asked.words[0]?.code;
  if (code === 'several-links') return `names several of ${table ?? 'the records it links to'}`;
  if (table) return `is no ${table}`;
  return code === 'unknown-link'
    ? 'is none of the records it links to'
    : 'is not among its choices';
}
