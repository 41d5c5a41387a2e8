import { describe, expect, it } from 'vitest';
import { addressed, addressQuestion, lookedAt, queryOf, questionAt } from './shared';

describe('an address that looks at a part of a ledger', () => {
  it('says all of it and is read again', () => {
    const looked = {
      outcome: 'rejected' as const,
      search: 'C-14 & more?',
      only: { table: 2, problem: 'too-long' as const, field: 'name', said: 'too long' },
    };
    expect(queryOf(looked)).toBe(
      '?outcome=rejected&table=2&problem=too-long&field=name&find=C-14+%26+more%3F',
    );
    expect(lookedAt(queryOf(looked))).toEqual({
      ...looked,
      only: { ...looked.only, line: undefined, changed: undefined },
    });
    expect(queryOf({ outcome: '', search: '', only: {} })).toBe('');
    expect(lookedAt('?line=88').only.line).toBe(88);
  });

  it('passes over what is nonsense', () => {
    const looked = lookedAt('?outcome=eaten&line=-3&find=');
    expect(looked).toMatchObject({ outcome: '', search: '' });
    expect(looked.only.line).toBeUndefined();
    expect(lookedAt('?line=1.5').only.line).toBeUndefined();
  });

  it('stands in the address bar', () => {
    addressed({ outcome: 'new', search: '', only: { line: 4 } });
    expect(location.search).toBe('?outcome=new&line=4');
    addressed({ outcome: '', search: '', only: {} });
    expect(location.search).toBe('');
    history.replaceState(null, '', '?run=7&line=4');
    addressed({ outcome: 'new', search: '', only: {} });
    expect(location.search).toBe('?run=7&outcome=new');
  });

  it('names a question beside them', () => {
    history.replaceState(null, '', '?outcome=new');
    addressQuestion({ kind: 'words', name: 'owner.type: of & old' });
    expect(questionAt(location.search)).toEqual({ kind: 'words', name: 'owner.type: of & old' });
    addressed({ outcome: 'changed', search: '', only: {} });
    expect(questionAt(location.search)?.kind).toBe('words');
    expect(lookedAt(location.search).outcome).toBe('changed');
    addressQuestion(null);
    expect(location.search).toBe('?outcome=changed');
    expect(questionAt('?question=words')).toBeNull();
    expect(questionAt('')).toBeNull();
  });
});
