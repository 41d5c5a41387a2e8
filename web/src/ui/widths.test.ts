import { describe, expect, it } from 'vitest';
import { fit, letters, longestOf, needed } from './widths';

describe('the widths of columns', () => {
  it('are what values need while there is room', () => {
    const columns = [
      { least: 100, need: 180 },
      { least: 100, need: 90 },
      { least: 50, need: 60 },
    ];
    expect(fit(columns, 400)).toEqual([180, 100, 60]);
  });

  it('share what room there is, those that lack least first', () => {
    const columns = [
      { least: 100, need: 400 },
      { least: 100, need: 120 },
      { least: 100, need: 400 },
    ];
    expect(fit(columns, 400)).toEqual([140, 120, 140]);
  });

  it('are the least where there is none', () => {
    expect(fit([{ least: 100, need: 200 }], 60)).toEqual([100]);
    expect(fit([], 60)).toEqual([]);
  });

  it('count signs of East Asian scripts as two letters', () => {
    expect(letters('Wren')).toBe(4);
    expect(letters('会員 A')).toBe(6);
    expect(letters('ﾌﾘｶﾞﾅ')).toBe(5);
    expect(letters('4.339 د.أ')).toBe(10);
    expect(longestOf({ longest: 10, samples: [{ text: 'かもめ' }, { text: 'Wren' }] })).toBe(20);
    expect(longestOf({ longest: 10, samples: [] })).toBe(10);
  });

  it('grow with the letters', () => {
    expect(needed(20)).toBeGreaterThan(needed(10) + 70);
  });
});
