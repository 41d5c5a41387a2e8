import type { FieldInfo, Fill, Origin } from '../api/types';
import { columnsOf } from '../ui/words';
import { step } from './repairs';

export type OriginKind = Origin['kind'];
type Link = NonNullable<Origin['link']>;

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
  const column = fill?.origin.column ?? columnsOf(fill)[0] ?? columns[0];
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
          link: base.origin.link ?? {
            by: by?.name ?? 'id',
            with: [],
            also: [],
            ignoring: ['case', 'spaces'],
            whenMissing: 'ask',
            create: [],
          },
        },
        steps: [step('trim')],
      };
    }
    case 'joined':
      return {
        ...base,
        origin: {
          kind,
          template:
            base.origin.template ?? (fill?.origin.column ? bracket(fill.origin.column) : ''),
        },
        steps: base.origin.kind === 'column' ? base.steps : [],
      };
    case 'formula':
      return {
        ...base,
        origin: {
          kind,
          formula: base.origin.formula ?? (fill?.origin.column ? bracket(fill.origin.column) : ''),
        },
        steps: [],
      };
    case 'fixed':
      return {
        ...base,
        origin: { kind, value: allowedWords(field)[0] ?? '' },
        steps: fixedSteps(field),
      };
    case 'generated':
      return { ...base, origin: { kind, generator: 'who' }, steps: [] };
    default:
      return { ...base, origin: { kind: 'database' }, steps: [] };
  }
}

/** A column's name as it stands in templates and formulas. */
export function bracket(column: string): string {
  return `[${column.replaceAll(']', ']]')}]`;
}

/** The values that a field takes, where it says which; none if it takes any. */
export function allowedWords(field: FieldInfo): string[] {
  return field.choices ?? (field.type === 'boolean' ? ['yes', 'no'] : []);
}

function fixedSteps(field: FieldInfo): Fill['steps'] {
  return field.type === 'text' ? [] : usualSteps(field);
}

/** True if a new record can't do without a value for a field. */
export const required = (f: FieldInfo) => !f.nullable && !f.hasDefault && !f.generated;

/** Fields that a new record of a linked table needs, and nothing gives yet. */
export function lacking(linked: FieldInfo[], link: Link): FieldInfo[] {
  const isOpen = ({ origin }: Fill) => origin.kind === 'fixed' && !origin.value?.trim();
  const made = link.create.filter((c) => !isOpen(c)).map((c) => c.field);
  const given = [...lookedUp(link), ...made];
  return linked.filter((f) => needs(f, link) && !given.includes(f.name));
}

/** The fields of a new record that what it is looked up by gives; a whole name gives none. */
export const lookedUp = (link: Link) => [
  ...(link.with.length ? [] : [link.by]),
  ...link.also.map((a) => a.field),
];

/** True if a new record can't be without a value of its own in a field. */
export const needs = (f: FieldInfo, link: Link) =>
  required(f) || (link.with.length > 0 && [link.by, ...link.with].includes(f.name));
