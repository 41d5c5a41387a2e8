import { describe, expect, it } from 'vitest';
import type { FileChange } from '../api/types';
import { aView } from '../plan/fixtures';
import { movedBorder, toggledBorder } from './borders';
import {
  changeWords,
  elsewhere,
  meanings,
  pickOf,
  together,
  toggled,
  withChanges,
  withConfirmed,
  withMeaning,
  withPick,
  withSkipped,
  withTitleLine,
  withTitles,
} from './reading';

describe('changes of a reading', () => {
  it('takes a word in and out of a list', () => {
    expect(toggled(undefined, 'Notes')).toEqual(['Notes']);
    expect(toggled(['Notes', 'Kind'], 'Notes')).toEqual(['Kind']);
  });

  it('finds the rows anew on another sheet and keeps what is said of the file', () => {
    const reading = { sheet: 'Power', titleRows: [5], encoding: 'UTF-8', blankWords: ['-'] };
    expect(elsewhere(reading, { sheet: 'Water' })).toEqual({
      sheet: 'Water',
      encoding: 'UTF-8',
      blankWords: ['-'],
    });
  });

  it('reads sheets together, and alone again', () => {
    const two = together({}, 'Power', 'Water');
    expect(two.sheets).toEqual(['Power', 'Water']);
    expect(two.sheet).toBeUndefined();
    expect(together(two, undefined, 'Power')).toMatchObject({ sheet: 'Water' });
    expect(together(two, undefined, 'Power').sheets).toBeUndefined();
  });

  it('marks titles on one line or several', () => {
    expect(withTitles({ unitsRow: 6, firstRow: 7 }, 5)).toEqual({ titleRows: [5] });
    expect(withTitleLine({}, [5], 4).titleRows).toEqual([4, 5]);
    expect(withTitleLine({ titleRows: [4, 5] }, [5], 4).titleRows).toEqual([5]);
  });

  it('leaves a line out as long as it holds the same, and takes it back', () => {
    const once = withSkipped({}, 12, 'Page 2');
    expect(once.skip).toEqual([{ line: 12, text: 'Page 2' }]);
    expect(withSkipped(once, 12, 'Page 2').skip).toEqual([]);
  });

  it('names a pick after the text before it', () => {
    expect(pickOf('B', 2, 'Season:')).toEqual({
      name: 'Season',
      column: 'B',
      line: 2,
      label: 'Season:',
    });
    expect(pickOf('B', 2, '20.11.2026').name).toBe('Cell B2');
    const pick = pickOf('B', 2, 'Season');
    expect(withPick(withPick({}, pick), pick).picks).toEqual([]);
  });

  it('remembers what was seen', () => {
    expect(withConfirmed({}, 'dates-among-codes', 'Code').confirmed).toEqual([
      'dates-among-codes:Code',
    ]);
  });

  it('lets a renamed column go on under the name of the plan', () => {
    const { columns, titles } = aView().source;
    const changes: FileChange[] = [
      {
        kind: 'renamed',
        before: { name: 'Vessel', letter: 'B', type: 'text' },
        now: { name: 'Boat name', letter: 'B', type: 'text' },
        because: 'it stands in the same place',
      },
      { kind: 'added', now: { name: 'Colour', letter: 'C', type: 'text' }, because: '' },
    ];
    const next = withChanges({}, changes, columns, titles);
    expect(next.renamed).toEqual({ 'Boat name': 'Vessel' });
    expect(next.columns?.map((c) => c.name)).toEqual(['Reg No', 'Vessel', 'Colour']);
    expect(changeWords(changes[0]!).what).toBe('“Vessel” is now “Boat name”');
    expect(changeWords(changes[1]!).what).toBe('“Colour” is new');
  });
});

describe('borders of fixed width', () => {
  it('are set, taken, and moved between their neighbours', () => {
    expect(toggledBorder([4, 9], 6)).toEqual([4, 6, 9]);
    expect(toggledBorder([4, 6, 9], 6)).toEqual([4, 9]);
    expect(movedBorder([4, 6, 9], 6, 8)).toEqual([4, 8, 9]);
    expect(movedBorder([4, 6, 9], 6, 20)).toEqual([4, 8, 9]);
    expect(movedBorder([4, 6, 9], 4, -3)).toEqual([1, 6, 9]);
  });
});

describe('texts that read in two ways', () => {
  const found = { locale: { decimal: ',' as const, dateOrder: 'day-month-year' as const } };

  it('are told by what each way makes of one', () => {
    const words = (code: 'ambiguous-dates' | 'ambiguous-decimals', sample: string) =>
      meanings(code, sample).map((m) => m.words);
    expect(words('ambiguous-dates', '7.12.26 10:15')).toEqual([
      'Day first: 7 December',
      'Month first: 12 July',
    ]);
    expect(words('ambiguous-decimals', '1.204')).toEqual([
      'Comma before decimals: 1204',
      'Point before decimals: 1.204',
    ]);
    expect(words('ambiguous-decimals', '-1,204')).toEqual([
      'Comma before decimals: -1.204',
      'Point before decimals: -1204',
    ]);
  });

  it('are settled one kind at a time', () => {
    const once = withMeaning({}, found, 'ambiguous-dates', 'month-day-year');
    expect(once).toEqual({
      locale: { decimal: ',', dateOrder: 'month-day-year' },
      confirmed: ['ambiguous-dates:'],
    });
    expect(withMeaning(once, once, 'ambiguous-decimals', '.').confirmed).toHaveLength(2);
  });
});
