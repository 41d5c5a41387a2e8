import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, expect, it, vi } from 'vitest';
import type { Destination } from '../api/types';
import { aField, aFill, anOpenPlan, aView, savesInto } from '../plan/fixtures';
import WhichRows from './WhichRows.svelte';

beforeEach(() => vi.restoreAllMocks());

/** A plan of owners and their vessels, with one of them in hand. */
function show(at: number, change: Partial<Destination> = {}) {
  const view = aView();
  const [vessel] = view.plan.destinations;
  const owner = { ...vessel!, table: 'owner', fills: [aFill('name', 'Boat name')] };
  const destinations = [owner, { ...vessel!, ...change }];
  const link = { table: 'owner', keyField: 'id', declared: true };
  const fields = [...view.table.fields, aField('owner_id', { link }), aField('agent_id', { link })];
  const told = view.tables[0]!;
  const open = anOpenPlan({
    shown: at,
    plan: { ...view.plan, destinations },
    table: { ...view.table, name: at ? 'vessel' : 'owner', fields },
    tables: [{ ...told, name: 'owner', table: 'owner' }, told],
  });
  savesInto();
  render(WhichRows, { open });
  return open;
}

const choose = (name: RegExp, option: string) =>
  userEvent.selectOptions(screen.getByRole('combobox', { name }), option);

it('lets records belong to those of another table, by the field that is chosen', async () => {
  const open = show(1);
  await choose(/belong to/, 'owner, by agent_id');
  expect(open.plan.destinations[1]!.parent).toEqual({ destination: 'owner', field: 'agent_id' });
  await choose(/belong to/, 'no other record');
  expect(open.plan.destinations[1]!.parent).toBeUndefined();
});

it('has each value of a cell make a record, parted where most cells are', async () => {
  const open = show(1);
  const columns = open.view.source.columns;
  columns[2]!.samples = ['red; blue', 'grey'].map((text) => ({ text, rows: 1, line: 2 }));
  await choose(/makes a record/, 'each value of Colour');
  expect(open.plan.destinations[1]!.split).toEqual({ column: 'Colour', at: [';'] });
  await choose(/are parted/, 'commas');
  expect(open.plan.destinations[1]!.split).toEqual({ column: 'Colour', at: [','] });
  await choose(/makes a record/, 'each row');
  expect(open.plan.destinations[1]!.split).toBeUndefined();
});

it('shows how cells are parted that the document parts otherwise', () => {
  show(1, { split: { column: 'Colour', at: [' - '] } });
  expect(screen.getByRole('combobox', { name: /are parted/ })).toHaveDisplayValue('“ - ”');
});

it('calls a table otherwise; a table that others belong to is not left out', async () => {
  const open = show(0, { parent: { destination: 'owner' } });
  await userEvent.type(screen.getByRole('textbox', { name: /calls/ }), 'keeper{Tab}');
  expect(open.plan.destinations.map((d) => d.name ?? d.parent?.destination)).toEqual([
    'keeper',
    'keeper',
  ]);
  expect(screen.getByRole('button', { name: /leave it out/ })).toBeDisabled();
});
