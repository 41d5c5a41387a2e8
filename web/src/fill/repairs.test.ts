import { describe, expect, it } from 'vitest';
import type { FieldInfo, Fill, Problem } from '../api/types';
import { changeOrigin } from './origins';
import { changeStep, moveStep, repairs, step, withoutStep, withStep } from './repairs';

const length: FieldInfo = {
  name: 'length_m',
  type: 'decimal',
  precision: 5,
  scale: 2,
  nullable: true,
  hasDefault: false,
  generated: false,
  unique: false,
  jdbcType: 2,
  typeName: 'numeric',
};

const fill: Fill = {
  field: 'length_m',
  origin: { kind: 'column', column: 'LOA (ft)' },
  steps: [step('read-number'), step('multiply', { by: '0.3048' })],
  whenBlank: 'leave',
  blankOnMatch: 'keep',
  whenBad: 'reject',
  onlyNew: false,
};

const problem = (code: Problem['code'], value = 'tbc', reason = ''): Problem => ({
  code,
  value,
  reason,
});

const texts = (p: Problem, f = fill, field = length, stopped = 0) =>
  repairs(p, f, field, stopped).map((r) => r.text);

describe('steps of a fill', () => {
  it('are added, moved, changed and removed without touching the old fill', () => {
    const added = withStep(fill, 1, step('round', { places: '1' }));
    expect(added.steps.map((s) => s.kind)).toEqual(['read-number', 'round', 'multiply']);
    expect(moveStep(added, 1, 1).steps.map((s) => s.kind)).toEqual([
      'read-number',
      'multiply',
      'round',
    ]);
    expect(moveStep(added, 0, -1)).toBe(added);
    expect(withoutStep(added, 0).steps.map((s) => s.kind)).toEqual(['round', 'multiply']);
    expect(changeStep(fill, 1, { off: true }).steps[1]?.off).toBe(true);
    expect(fill.steps).toHaveLength(2);
    expect(fill.steps[1]?.off).toBe(false);
  });
});

describe('repairs', () => {
  it('tell a step what a word means that it does not know as yes or no', () => {
    const reads = { ...fill, steps: [step('read-boolean', { no: 'nil' })] };
    const [yes, no] = repairs(problem('not-true-or-false', '×'), reads, length, 0);
    expect([yes?.text, no?.text]).toEqual(['Means yes', 'Means no']);
    expect(yes?.apply(reads, '').steps[0]?.with).toEqual({ no: 'nil', yes: '×' });
    expect(no?.apply(reads, '').steps[0]?.with).toEqual({ no: 'nil|×' });
    expect(texts(problem('not-true-or-false', 'a|b'), reads)).not.toContain('Means yes');
  });

  it('round what is too precise, to the places of the field', () => {
    const [first] = repairs(problem('too-precise', '9.7536'), fill, length, 2);
    expect(first?.text).toBe('+ Round');
    expect(first?.apply(fill, '').steps.at(-1)).toEqual(step('round', { places: '2' }));
  });

  it('cut what is too long only as a step of its own', () => {
    const name: FieldInfo = { ...length, type: 'text', length: 20 };
    const [first] = repairs(problem('too-long', 'a long name'), fill, name, 2);
    expect(first?.apply(fill, '').steps.at(-1)).toEqual(step('cut', { length: '20' }));
  });

  it('replace a value before the step at which it stops', () => {
    const replace = repairs(problem('not-a-number'), fill, length, 0).find((r) => r.asks);
    expect(replace?.apply(fill, '32').steps[0]).toEqual(step('replace', { from: 'tbc', to: '32' }));
    const late = repairs(problem('unknown-link', 'Ketch rig'), fill, length, 2).find(
      (r) => r.text === 'Replace it',
    );
    expect(late?.apply(fill, 'ketch').steps[2]?.kind).toBe('replace');
  });

  it('say the century where years have two figures', () => {
    const dated = { ...fill, steps: [step('read-date')] };
    const [first] = repairs(
      problem('not-a-date', '1.2.26', 'the year has two figures'),
      dated,
      { ...length, type: 'date' },
      0,
    );
    expect(first?.apply(dated, '').steps[0]?.with).toEqual({ century: '20' });
  });

  it('offer to leave blank only what may be blank', () => {
    expect(texts(problem('not-a-number'))).toContain('Leave blank');
    expect(texts(problem('not-a-number'), fill, { ...length, nullable: false })).not.toContain(
      'Leave blank',
    );
    expect(texts(problem('not-a-number'), { ...fill, whenBad: 'blank' })).not.toContain(
      'Leave blank',
    );
  });

  it('ask for a default where a value is required', () => {
    const [only, ...others] = repairs(problem('required', ''), fill, length, 2);
    expect(others).toHaveLength(0);
    expect(only?.apply(fill, '9.50')).toMatchObject({ whenBlank: 'default', defaultValue: '9.50' });
  });

  it('read text as what the field holds', () => {
    expect(texts(problem('wrong-type'))).toContain('+ Read as number');
    expect(texts(problem('wrong-type'), fill, { ...length, type: 'date' })).toContain(
      '+ Read as date',
    );
    expect(texts(problem('wrong-type'), fill, { ...length, type: 'boolean' })).toContain(
      '+ Read as yes or no',
    );
  });
});

describe('another origin', () => {
  const columns = ['LOA (ft)', 'Owner'];

  it('keeps the column and the steps where they still make sense', () => {
    const linked = [{ ...length, name: 'email', type: 'text' as const, unique: true }];
    const link = changeOrigin(fill, length, 'link', columns, linked);
    expect(link.origin).toMatchObject({ column: 'LOA (ft)', link: { by: 'email' } });
    expect(link.steps.map((s) => s.kind)).toEqual(['trim']);
    expect(changeOrigin(fill, length, 'column', columns, []).steps).toEqual(fill.steps);
  });

  it('begins with the steps that the type needs', () => {
    const begun = changeOrigin(undefined, { ...length, nullable: false }, 'column', columns, []);
    expect(begun.steps.map((s) => s.kind)).toEqual(['read-number']);
    expect(begun.whenBlank).toBe('reject');
    expect(begun.origin.column).toBe('LOA (ft)');
  });

  it('takes the first choice as fixed value', () => {
    const status = { ...length, type: 'text' as const, choices: ['afloat', 'ashore'] };
    expect(changeOrigin(undefined, status, 'fixed', columns, []).origin.value).toBe('afloat');
    expect(changeOrigin(fill, length, 'database', columns, []).origin).toEqual({
      kind: 'database',
    });
  });
});
