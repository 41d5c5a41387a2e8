import { describe, expect, it } from 'vitest';
import type { Destination, MatchKey } from '../api/types';
import { anEntry, anOpenPlan } from '../plan/fixtures';
import {
  compared,
  comparedInWords,
  decidedBy,
  decisionInWords,
  ignoredInWords,
  isNear,
  keyValues,
  moved,
  partsOf,
  withAdded,
  withCompared,
  withDecision,
  withDistance,
  withField,
  withFiner,
  withIgnored,
  withKey,
  withNear,
} from './keys';

const reg: MatchKey = { fields: ['registration'], ignoring: ['case'] };
const name: MatchKey = { fields: ['name', 'owner_id'], ignoring: ['case', 'spaces'] };

describe('match keys', () => {
  it('lose a key whose last field goes', () => {
    expect(withKey([reg, name], 0, (k) => withField(k, 'registration'))).toEqual([name]);
    expect(withKey([reg], 0, (k) => withField(k, 'name'))[0]?.fields).toEqual([
      'registration',
      'name',
    ]);
  });

  it('compare a field in a way of its own', () => {
    const exact = withCompared(name, 'owner_id', 'exactly');
    expect(exact.ignoringIn).toEqual({ owner_id: [] });
    expect(compared(exact, 'owner_id')).toBe('exactly');
    expect(compared(exact, 'name')).toBe('as above');
    expect(withCompared(exact, 'owner_id', 'as above').ignoringIn).toEqual({});
    expect(withIgnored(exact, 'accents', 'name').ignoringIn).toEqual({
      owner_id: [],
      name: ['case', 'spaces', 'accents'],
    });
    expect(withField(exact, 'owner_id').ignoringIn).toEqual({});
    expect(withIgnored(reg, 'case').ignoring).toEqual([]);
  });

  it('stand behind the same that compares exactly, where they are near', () => {
    const near = withCompared(name, 'name', 'spelt alike');
    expect(withNear([reg, name], 1, 'name', 'spelt alike')).toEqual([reg, name, near]);
    expect(withNear([name, near], 1, 'name', 'exactly')).toHaveLength(2);
    expect(withNear([name, name], 1, 'name', 'spelt alike')).toEqual([name, near]);
    expect(withAdded([reg], near)).toEqual([reg, { ...near, nearIn: {} }, near]);
    expect(withAdded([name], near)).toEqual([name, near]);
    expect(withAdded([name], reg)).toEqual([name, reg]);
  });

  it('are near in some fields, and then only ask', () => {
    const near = withCompared(withCompared(name, 'name', 'spelt alike'), 'owner_id', 'within');
    expect(near.nearIn).toEqual({ name: 'spelling', owner_id: '1' });
    expect(compared(near, 'name')).toBe('spelt alike');
    expect(compared(near, 'owner_id')).toBe('within');
    expect(comparedInWords(withDistance(near, 'owner_id', '0.5'))).toBe(
      'name spelt alike; owner_id within 0.5',
    );
    expect(comparedInWords(withCompared(near, 'owner_id', 'exactly'))).toBe(
      'ignoring capitals, spaces; owner_id letter for letter; name spelt alike',
    );
    expect(isNear(near)).toBe(true);
    expect(isNear(withField(withField(near, 'name'), 'owner_id'))).toBe(false);
    expect(isNear(name)).toBe(false);
  });

  it('are put in another order, and made finer', () => {
    expect(moved([reg, name], 1, -1)).toEqual([name, reg]);
    expect(moved([reg, name], 0, -1)).toEqual([reg, name]);
    expect(withFiner([reg, name], 1, 'length_m').map((k) => k.fields.length)).toEqual([1, 3, 2]);
  });

  it('are told in words', () => {
    expect(ignoredInWords(['spaces', 'case'])).toBe('ignoring capitals, spaces');
    expect(ignoredInWords([])).toBe('letter for letter');
  });
});

describe('decisions', () => {
  const fields = ['registration', 'name', 'owner_id'];
  const destination: Destination = { ...anOpenPlan().destination, keys: [reg, name] };

  it('about lines with the same key stand beside those about the record', () => {
    const of = { registration: 'QH-10' };
    const taken = withDecision(destination, { of, act: 'take', record: ['7'] });
    const both = withDecision(taken, { of, act: 'first' });
    expect(both.decisions.map((d) => d.act)).toEqual(['take', 'first']);
    expect(withDecision(both, { of, act: 'merge' }).decisions.map((d) => d.act)).toEqual([
      'take',
      'merge',
    ]);
    expect(withDecision(both, { of, act: 'skip' }).decisions.map((d) => d.act)).toEqual([
      'first',
      'skip',
    ]);
    expect(decisionInWords({ of, act: 'first' })).toBe('QH-10: the first line is right');
  });

  it('are about the values of the key that found records', () => {
    const entry = { ...anEntry(4), matchedBy: 2, after: [null, 'Wren', '7'] } as never;
    expect(decidedBy(destination, fields, entry)).toEqual({ name: 'Wren', owner_id: '7' });
    const none = { ...anEntry(4), matchedBy: 0, after: [null, 'Wren', '7'] } as never;
    expect(decidedBy(destination, fields, none)).toEqual({ name: 'Wren', owner_id: '7' });
    expect(keyValues(reg, fields, none)).toBeNull();
  });

  it('replace what was decided about the same values', () => {
    const one = withDecision(destination, {
      of: { name: 'Wren', owner_id: '7' },
      act: 'take',
      record: ['12'],
    });
    const two = withDecision(one, { of: { owner_id: '7', name: 'Wren' }, act: 'other' });
    expect(two.decisions).toEqual([{ of: { owner_id: '7', name: 'Wren' }, act: 'other' }]);
    expect(decisionInWords(one.decisions[0]!)).toBe('Wren, 7: record 12');
  });

  it('name a record by the parts of its key, whatever these hold', () => {
    const by = (...primaryKey: string[]) => ({ ...anOpenPlan().view.table, primaryKey });
    expect(partsOf('Smith, Jane', by('name'))).toEqual(['Smith, Jane']);
    expect(partsOf('A,1', by('dock', 'no'))).toEqual(['A', '1']);
    expect(partsOf('a\\, b\\\\,', by('dock', 'no'))).toEqual(['a, b\\', '']);
  });
});
