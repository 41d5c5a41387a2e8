import type { Decision, Destination, MatchClasses } from '../api/types';

/** What can be said of a row at hand. */
export interface Answer {
  act: Decision['act'] | 'same';
  words: string;
  title?: string;
}

const LEAVE_OUT: Answer = { act: 'skip', words: 'Leave it out' };

/**
 * What can be said of a row of a class, besides which of the records beside it it speaks of.
 *
 * @param contradicting true if lines with the same key say different things
 * @param earlier the earlier line that it may be spelt as; null if there is none
 */
export function answersFor(
  of: MatchClasses['of'],
  contradicting: boolean,
  policies: Destination['policies'],
  earlier: number | null = null,
): Answer[] {
  if (of === 'several') return [{ act: 'other', words: 'None of them' }, LEAVE_OUT];
  if (of === 'similar') {
    const same: Answer = {
      act: 'same',
      words: `The same as line ${earlier}`,
      title: 'spelt as that line, so that the two repeat each other; its cells are corrected',
    };
    const own: Answer = { act: 'other', words: 'A record of its own' };
    return [...(earlier === null ? [] : [same]), own, LEAVE_OUT];
  }
  if (contradicting)
    return [
      { act: 'first', words: 'The first line' },
      { act: 'last', words: 'The last line' },
      {
        act: 'merge',
        words: 'Merge them',
        title: 'one record of them all: each field takes the first value that is not blank',
      },
      { act: 'skip', words: 'Leave them out' },
    ];
  if (of === 'one' && policies.onMatch === 'ask')
    return [
      { act: 'take', words: 'It is the same' },
      { act: 'other', words: 'It is another' },
    ];
  if (of === 'none' && policies.onNone === 'ask')
    return [{ act: 'other', words: 'Add it' }, LEAVE_OUT];
  return [];
}
