// What a plan that fills several tables says of them: which rows make a record, under which one.
import type { Destination, FieldInfo } from '../api/types';

/** What the others and the books call it. */
export function labelOf(destination: Destination): string {
  return destination.name?.trim() || destination.table;
}

/** A table that the records of another may belong to, and the field that takes its key. */
export interface Above {
  at: number;
  name: string;
  field: string;
}

/** Those to which the records of a destination may belong: its table points at theirs. */
export function above(destinations: Destination[], of: number, fields: FieldInfo[]): Above[] {
  return destinations.flatMap((other, at) =>
    at === of || other.split || lineOf(destinations, at).includes(of)
      ? []
      : fields
          .filter((f) => f.link?.table === other.table)
          .map((f) => ({ at, name: labelOf(other), field: f.name })),
  );
}

/** A destination and those that it belongs to, through others too, from the nearest on. */
function lineOf(destinations: Destination[], at: number): number[] {
  const line: number[] = [];
  for (let next = at; next >= 0 && !line.includes(next); next = parentOf(destinations, next)) {
    line.push(next);
  }
  return line;
}

function parentOf(destinations: Destination[], at: number): number {
  const wanted = destinations[at]?.parent?.destination;
  return wanted === undefined ? -1 : destinations.findIndex((d) => labelOf(d) === wanted);
}

/**
 * Lets the records of a destination belong to those of another, which is written before it, with
 * all that it belongs to itself; the field that takes its key is filled by nothing else.
 *
 * @returns the destinations, and where it is among them
 */
export function putUnder(destinations: Destination[], at: number, to: Above | undefined) {
  const child: Destination = {
    ...destinations[at]!,
    parent: to && { destination: to.name, field: to.field },
    fills: destinations[at]!.fills.filter((f) => f.field !== to?.field),
  };
  const line = to ? lineOf(destinations, to.at) : [];
  const isMoved = (i: number) => i > at && line.includes(i);
  const moved = destinations.filter((_, i) => isMoved(i));
  const others = destinations.with(at, child).filter((_, i) => !isMoved(i));
  return { destinations: others.toSpliced(at, 0, ...moved), at: at + moved.length };
}

/** Calls a destination otherwise; those that belong to it follow. */
export function renamed(destinations: Destination[], at: number, name: string): Destination[] {
  const one = destinations[at]!;
  const was = labelOf(one);
  const now = name.trim() || one.table;
  const isFirst = destinations.findIndex((d) => labelOf(d) === was) === at;
  return destinations.map((d, i) => {
    if (i === at) return { ...d, name: now === d.table ? undefined : now };
    return isFirst && d.parent?.destination === was
      ? { ...d, parent: { ...d.parent, destination: now } }
      : d;
  });
}

/** Signs that may stand between the values of a cell, and how they are called. */
const SIGNS: [string, string][] = [
  [';', 'semicolons'],
  ['|', 'bars'],
  ['\n', 'line breaks'],
  [',', 'commas'],
  ['/', 'slashes'],
  ['+', 'plus signs'],
  ['&', 'ampersands'],
];

/** The sign that most of some cells hold between other letters; none if hardly any does. */
export function signIn(cells: string[]): string | undefined {
  const held = SIGNS.map(([sign]) => ({
    sign,
    cells: cells.filter((c) => c.trim().indexOf(sign) > 0).length,
  }));
  const most = Math.max(0, ...held.map((h) => h.cells));
  return most ? held.find((h) => h.cells === most)!.sign : undefined;
}

/** Where cells may be parted, with what the plan says if it says something else. */
export function partings(said: string[]): { at: string[]; text: string }[] {
  const all = SIGNS.map(([sign, text]) => ({ at: [sign], text }));
  all.push({ at: [';', ',', '\n'], text: 'semicolons, commas or line breaks' });
  const known = all.some((one) => sameSigns(one.at, said));
  return known ? all : [...all, { at: said, text: said.map((s) => `“${s}”`).join(' or ') }];
}

export function sameSigns(one: string[], other: string[]): boolean {
  return one.length === other.length && one.every((sign) => other.includes(sign));
}
