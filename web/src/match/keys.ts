// Edits of match keys and of what somebody decided about rows.
import type {
  Decision,
  Destination,
  LedgerEntry,
  MatchClasses,
  MatchKey,
  TableInfo,
} from '../api/types';

export type Ignored = MatchKey['ignoring'][number];
export type MatchClass = MatchClasses['of'];

export const IGNORED: { value: Ignored; text: string }[] = [
  { value: 'case', text: 'capitals' },
  { value: 'spaces', text: 'spaces' },
  { value: 'punctuation', text: 'punctuation' },
  { value: 'accents', text: 'accents' },
  { value: 'leading-zeros', text: 'leading zeros' },
];

/** What is ignored, in words. */
export function ignoredInWords(ignoring: Ignored[]): string {
  const words = IGNORED.filter((i) => ignoring.includes(i.value)).map((i) => i.text);
  return words.length ? `ignoring ${words.join(', ')}` : 'letter for letter';
}

function toggled<T>(list: T[], item: T): T[] {
  return list.includes(item) ? list.filter((i) => i !== item) : [...list, item];
}

/** The keys with one of them changed; a key without fields is none. */
export function withKey(keys: MatchKey[], at: number, change: (key: MatchKey) => MatchKey) {
  const next = keys.map((k, i) => (i === at ? change(k) : k));
  return next.filter((k) => k.fields.length);
}

export function withField(key: MatchKey, field: string): MatchKey {
  const fields = toggled(key.fields, field);
  const ignoringIn = { ...key.ignoringIn };
  const nearIn = { ...key.nearIn };
  if (!fields.includes(field)) {
    delete ignoringIn[field];
    delete nearIn[field];
  }
  return { ...key, fields, ignoringIn, nearIn };
}

/** The key with something ignored or not, in all fields or in one that has its own way. */
export function withIgnored(key: MatchKey, ignored: Ignored, field?: string): MatchKey {
  return field === undefined
    ? { ...key, ignoring: toggled(key.ignoring, ignored) }
    : {
        ...key,
        ignoringIn: {
          ...key.ignoringIn,
          [field]: toggled(key.ignoringIn?.[field] ?? key.ignoring, ignored),
        },
      };
}

/** How a field of a key is compared: as the others, letter for letter, or by being near. */
export type Compared = 'as above' | 'exactly' | 'spelt alike' | 'within';

/** How values may be near that are spelt alike. */
export const SPELLING = 'spelling';

export function compared(key: MatchKey, field: string): Compared {
  const near = key.nearIn?.[field];
  if (near) return near === SPELLING ? 'spelt alike' : 'within';
  return key.ignoringIn?.[field] || !key.ignoring.length ? 'exactly' : 'as above';
}

/** A field of the key compared in another way. */
export function withCompared(key: MatchKey, field: string, how: Compared): MatchKey {
  const ignoringIn = { ...key.ignoringIn };
  const nearIn = { ...key.nearIn };
  delete ignoringIn[field];
  delete nearIn[field];
  if (how === 'exactly' && key.ignoring.length) ignoringIn[field] = [];
  if (how === 'spelt alike') nearIn[field] = SPELLING;
  if (how === 'within') nearIn[field] = '1';
  return { ...key, ignoringIn, nearIn };
}

/** True if one of some keys compares the same fields as another, and none of them nearly. */
export function hasExact(keys: MatchKey[], key: MatchKey): boolean {
  const isExact = (k: MatchKey) =>
    !isNear(k) &&
    k.fields.length === key.fields.length &&
    k.fields.every((f) => key.fields.includes(f));
  return keys.some(isExact);
}

/**
 * The keys with a field of one compared otherwise. Where it becomes near, the key as it was stays
 * in front: what is the same is found by that, and need not be asked about each time.
 */
export function withNear(keys: MatchKey[], at: number, field: string, how: Compared): MatchKey[] {
  const key = keys[at]!;
  const next = withCompared(key, field, how);
  const [front, behind] = [keys.slice(0, at), keys.slice(at + 1)];
  const stays = isNear(next) && !isNear(key) && !hasExact([...front, ...behind], key);
  return [...front, ...(stays ? [key] : []), next, ...behind];
}

/** The keys and another one behind them; in front of a near one the same that compares exactly. */
export function withAdded(keys: MatchKey[], key: MatchKey): MatchKey[] {
  const exact = isNear(key) && !hasExact(keys, key) ? [{ ...key, nearIn: {} }] : [];
  return [...keys, ...exact, key];
}

export function withDistance(key: MatchKey, field: string, within: string): MatchKey {
  return { ...key, nearIn: { ...key.nearIn, [field]: within } };
}

/** How a key compares, in words. */
export function comparedInWords(key: MatchKey): string {
  const near = Object.entries(key.nearIn ?? {}).map(([field, how]) =>
    how === SPELLING ? `${field} spelt alike` : `${field} within ${how}`,
  );
  const own = Object.entries(key.ignoringIn ?? {})
    .filter(([field]) => !key.nearIn?.[field])
    .map(([field, ignoring]) => `${field} ${ignoredInWords(ignoring)}`);
  const all = near.length === key.fields.length ? [] : [ignoredInWords(key.ignoring)];
  return [...all, ...own, ...near].join('; ');
}

export function isNear(key: MatchKey): boolean {
  return Object.keys(key.nearIn ?? {}).length > 0;
}

/** The key with one field more, tried before it: it tells apart what the key can't. */
export function withFiner(keys: MatchKey[], at: number, field: string): MatchKey[] {
  const key = keys[at]!;
  return [...keys.slice(0, at), { ...key, fields: [...key.fields, field] }, ...keys.slice(at)];
}

export function moved(keys: MatchKey[], at: number, by: number): MatchKey[] {
  const to = at + by;
  if (to < 0 || to >= keys.length) return keys;
  const next = [...keys];
  [next[at], next[to]] = [next[to]!, next[at]!];
  return next;
}

/** The values of a key's fields in a row; null if one is blank or not filled. */
export function keyValues(
  key: MatchKey,
  fields: string[],
  entry: LedgerEntry,
): Record<string, string> | null {
  const values: Record<string, string> = {};
  for (const field of key.fields) {
    const value = entry.after[fields.indexOf(field)];
    if (value == null) return null;
    values[field] = value;
  }
  return values;
}

/**
 * The values by which a row is decided about: those of the key that found records for it, or of the
 * first one that it has values for.
 */
export function decidedBy(
  destination: Destination,
  fields: string[],
  entry: LedgerEntry,
): Record<string, string> | null {
  const found = destination.keys[entry.matchedBy - 1];
  if (found) return keyValues(found, fields, entry);
  for (const key of destination.keys) {
    const values = keyValues(key, fields, entry);
    if (values) return values;
  }
  return null;
}

/** What is said of lines with the same key, not of the record that they mean. */
const ofRepeats = (act: Decision['act']) => ['first', 'last', 'merge'].includes(act);

const same = (a: Decision['of'], b: Decision['of']) =>
  JSON.stringify(Object.entries(a).sort()) === JSON.stringify(Object.entries(b).sort());

/** The destination with a decision, in the place of any other about the same values. */
export function withDecision(destination: Destination, decision: Decision): Destination {
  return {
    ...destination,
    decisions: [
      ...destination.decisions.filter(
        (d) => !same(d.of, decision.of) || ofRepeats(d.act) !== ofRepeats(decision.act),
      ),
      decision,
    ],
  };
}

/**
 * The parts of a record's key, as a decision names them. Several are joined by a comma, and a
 * backslash stands before one that is part of a value.
 */
export function partsOf(key: string, table: TableInfo): string[] {
  if (table.primaryKey.length === 1) return [key];
  const parts = [''];
  for (const [sign] of key.matchAll(/\\?./gsu)) {
    if (sign === ',') parts.push('');
    else parts.push(parts.pop()! + sign.replace(/^\\(?=.)/su, ''));
  }
  return parts;
}

/** A decision in words. */
export function decisionInWords(decision: Decision): string {
  const act = {
    take: `record ${decision.record?.join(', ')}`,
    other: 'another one',
    skip: 'left out',
    reject: 'rejected',
    first: 'the first line is right',
    last: 'the last line is right',
    merge: 'its lines are merged',
  }[decision.act];
  return `${Object.values(decision.of).join(', ')}: ${act}`;
}
