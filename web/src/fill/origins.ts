import type { FieldInfo, Fill, Origin } from '../api/types';
import { step } from './repairs';

export type OriginKind = Origin['kind'];

/** The steps that a column's text needs to become a value of the field. */
export function usualSteps(field: FieldInfo): Fill['steps'] {
  switch (field.type) {
    case 'whole':
    case 'decimal':
      return [step('read-number')];
    case 'date':
    case 'datetime':
      return [step('read-date')];
    case 'boolean':
      return [step('read-boolean')];
    default:
      return [step('trim')];
  }
}

/** A fill of another origin; the column and policies stay where they still make sense. */
export function changeOrigin(
  fill: Fill | undefined,
  field: FieldInfo,
  kind: OriginKind,
  columns: string[],
  linked: FieldInfo[],
): Fill {
  const column = fill?.origin.column ?? columns[0];
  const required = !field.nullable && !field.hasDefault && !field.generated;
  const base: Fill = fill ?? {
    field: field.name,
    origin: { kind },
    steps: [],
    whenBlank: required ? 'reject' : 'leave',
    blankOnMatch: 'keep',
    whenBad: 'reject',
    onlyNew: false,
  };
  switch (kind) {
    case 'column': {
      const known = base.origin.kind === 'column' && base.steps.length > 0;
      return { ...base, origin: { kind, column }, steps: known ? base.steps : usualSteps(field) };
    }
    case 'link': {
      const by = linked.find((f) => f.unique && f.type === 'text') ?? linked[0];
      return {
        ...base,
        origin: {
          kind,
          column,
          link: { by: by?.name ?? 'id', ignoring: ['case', 'spaces'], whenMissing: 'reject' },
        },
        steps: [step('trim')],
      };
    }
    case 'fixed':
      return {
        ...base,
        origin: { kind, value: field.choices?.[0] ?? '' },
        steps: fixedSteps(field),
      };
    case 'generated':
      return { ...base, origin: { kind, generator: 'who' }, steps: [] };
    default:
      return { ...base, origin: { kind: 'database' }, steps: [] };
  }
}

function fixedSteps(field: FieldInfo): Fill['steps'] {
  return field.type === 'text' ? [] : usualSteps(field);
}
