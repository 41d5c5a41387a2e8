import { describe, expect, it } from 'vitest';
import type { Fill, LedgerEntry } from '../api/types';
import { why } from './why';

const fill = (change: Partial<Fill>): Fill => ({
  field: 'f',
  origin: { kind: 'column', column: 'Kind' },
  steps: [{ kind: 'trim', with: {}, off: false }],
  whenBlank: 'leave',
  blankOnMatch: 'keep',
  whenBad: 'reject',
  onlyNew: false,
  ...change,
});

const entry = (after: string | null, before?: string[]): LedgerEntry => ({
  line: 2,
  row: 0,
  part: 0,
  outcome: before ? 'changed' : 'new',
  matchedBy: before ? 1 : 0,
  after: [after as string],
  before,
  changed: [],
  notes: [],
});

const said = (f: Fill, e: LedgerEntry) => why({ fill: () => f }, 'f', e, 0);

describe('why a field stands as it does', () => {
  it('names the column and its steps', () => {
    expect(said(fill({}), entry('sloop'))).toBe('Kind, after 1 step');
    expect(said(fill({ steps: [] }), entry('sloop'))).toBe('Kind');
  });

  it('tells what a blank does', () => {
    expect(said(fill({}), entry(null))).toBe('blank, so left to the database');
    expect(said(fill({}), entry(null, ['old']))).toBe('blank, so kept');
    expect(said(fill({ blankOnMatch: 'clear' }), entry(null, ['old']))).toBe('blank, so cleared');
  });

  it('tells that an existing record keeps its own', () => {
    expect(said(fill({ onlyNew: true }), entry('x', ['y']))).toContain('keeps its own');
    expect(said(fill({ onlyNew: true }), entry('x'))).toBe('Kind, after 1 step');
  });

  it('tells how a link was found', () => {
    const link = {
      by: 'name',
      with: [],
      also: [],
      ignoring: [],
      whenMissing: 'reject' as const,
      create: [],
    };
    expect(said(fill({ origin: { kind: 'link', column: 'Kind', link } }), entry('4'))).toBe(
      'Kind found by name',
    );
  });
});
