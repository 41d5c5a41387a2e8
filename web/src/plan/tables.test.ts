import { expect, it } from 'vitest';
import type { Destination } from '../api/types';
import { aField, aFill, aView } from './fixtures';
import { above, labelOf, partings, putUnder, renamed, signIn } from './tables';

const [first] = aView().plan.destinations;

function one(table: string, change: Partial<Destination> = {}): Destination {
  return { ...first!, table, fills: [aFill('owner_id', 'Owner')], ...change };
}

function link(name: string, table: string) {
  return aField(name, { link: { table, keyField: 'id', declared: true } });
}

it('offers what the fields of a table point at, once for each field', () => {
  const all = [one('owner', { name: 'keeper' }), one('vessel'), one('pontoon')];
  const fields = [link('owner_id', 'owner'), link('skipper_id', 'owner'), link('berth', 'berth')];
  expect(above(all, 1, fields)).toEqual([
    { at: 0, name: 'keeper', field: 'owner_id' },
    { at: 0, name: 'keeper', field: 'skipper_id' },
  ]);
});

it('offers nothing that makes several records of a row, or belongs to the one in hand', () => {
  const parent = { destination: 'vessel' };
  const all = [
    one('owner', { split: { column: 'Owners', at: [';'] } }),
    one('vessel'),
    one('berth', { parent }),
    one('contract', { parent: { destination: 'berth' } }),
  ];
  const fields = ['owner', 'berth', 'contract', 'vessel'].map((t) => link(`${t}_id`, t));
  expect(above(all, 1, fields)).toEqual([]);
  expect(above(all, 3, fields).map((a) => a.name)).toEqual(['vessel', 'berth']);
});

it('is not led round in circles by a document that goes so', () => {
  const all = [
    one('a', { parent: { destination: 'b' } }),
    one('b', { parent: { destination: 'a' } }),
    one('c'),
  ];
  expect(above(all, 2, [link('a_id', 'a')]).map((a) => a.at)).toEqual([0]);
});

it('lets the field that takes the key be filled by nothing else', () => {
  const all = [
    one('owner'),
    one('vessel', { fills: [aFill('owner_id', 'O'), aFill('name', 'N')] }),
  ];
  const put = putUnder(all, 1, { at: 0, name: 'owner', field: 'owner_id' });
  expect(put.at).toBe(1);
  expect(put.destinations[1]!.parent).toEqual({ destination: 'owner', field: 'owner_id' });
  expect(put.destinations[1]!.fills.map((f) => f.field)).toEqual(['name']);
  expect(put.destinations[0]).toBe(all[0]);
  const freed = putUnder(put.destinations, 1, undefined);
  expect(freed.destinations[1]!.parent).toBeUndefined();
});

it('writes what records belong to before them', () => {
  const all = [one('pontoon'), one('vessel'), one('tariff'), one('owner')];
  const put = putUnder(all, 1, { at: 3, name: 'owner', field: 'owner_id' });
  expect(put.destinations.map(labelOf)).toEqual(['pontoon', 'owner', 'vessel', 'tariff']);
  expect(put.at).toBe(2);
  expect(put.destinations[2]!.parent?.destination).toBe('owner');
});

it('brings along what that belongs to itself, if it stands further down too', () => {
  const all = [
    one('vessel'),
    one('tariff'),
    one('harbour'),
    one('owner', { parent: { destination: 'harbour', field: 'harbour_id' } }),
    one('keeper', { parent: { destination: 'owner', field: 'owner_id' } }),
  ];
  const put = putUnder(all, 0, { at: 4, name: 'keeper', field: 'keeper_id' });
  expect(put.destinations.map(labelOf)).toEqual(['harbour', 'owner', 'keeper', 'vessel', 'tariff']);
  expect(put.at).toBe(3);
  const late = putUnder(all, 2, { at: 0, name: 'vessel', field: 'vessel_id' });
  expect(late.destinations.map(labelOf)).toEqual(all.map(labelOf));
});

it('calls a table otherwise, and so do those that belong to it', () => {
  const all = [
    one('owner'),
    one('vessel', { parent: { destination: 'owner', field: 'owner_id' } }),
  ];
  const named = renamed(all, 0, ' keeper ');
  expect(named.map(labelOf)).toEqual(['keeper', 'vessel']);
  expect(named[1]!.parent).toEqual({ destination: 'keeper', field: 'owner_id' });
  const back = renamed(named, 0, '');
  expect(back[0]!.name).toBeUndefined();
  expect(back[1]!.parent?.destination).toBe('owner');
});

it('leaves those alone that belong to the first of two of the same name', () => {
  const all = [one('owner'), one('owner'), one('vessel', { parent: { destination: 'owner' } })];
  expect(renamed(all, 1, 'second')[2]!.parent?.destination).toBe('owner');
});

it('finds the sign that most cells hold between their values', () => {
  expect(signIn(['red; blue', 'green', 'grey, light; blue'])).toBe(';');
  expect(signIn(['red\nblue', ' \nred'])).toBe('\n');
  expect(signIn(['red', '; blue', ''])).toBeUndefined();
});

it('offers what the plan says about signs, if it says something else', () => {
  expect(partings([',']).map((p) => p.text)).toEqual(
    partings([])
      .slice(0, -1)
      .map((p) => p.text),
  );
  expect(partings([' - ']).at(-1)).toEqual({ at: [' - '], text: '“ - ”' });
});
