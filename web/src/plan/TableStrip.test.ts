import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import { keyboard } from '../ui/keys.svelte';
import { aField, aFill, anOpenPlan, aView, savesInto } from './fixtures';
import TableStrip from './TableStrip.svelte';

const get = vi.fn();
beforeEach(() => {
  vi.restoreAllMocks();
  get.mockReset();
  vi.spyOn(api, 'GET').mockImplementation(get as never);
});

function show() {
  const view = aView();
  const [first] = view.plan.destinations;
  const coat = { ...first!, table: 'coat', fills: [aFill('shade', 'Colour')] };
  const plan = { ...view.plan, destinations: [first!, coat] };
  const tables = [
    { ...view.tables[0]!, troubled: 40, questions: 12 },
    { ...view.tables[0]!, name: 'coat', table: 'coat', parent: 0, rows: 9 },
  ];
  const open = anOpenPlan({ plan, tables });
  const fields = [aField('id'), aField('shade')];
  get.mockImplementation(
    (_: string, { params }: { params: { query: { destination: number } } }) => {
      const shown = params.query.destination;
      const table = shown ? { ...view.table, name: 'coat', fields } : view.table;
      return Promise.resolve({ data: { ...open.view, shown, table } });
    },
  );
  savesInto();
  render(TableStrip, { open });
  return open;
}

it('tells of each table where it hangs and what is open in it', () => {
  show();
  const [vessel, coat] = screen.getAllByRole('button');
  expect(vessel).toHaveTextContent(/vessel 1,?\d* rows\s+12\s+28/);
  expect(coat).toHaveTextContent('coat 9 rows');
  expect(coat).toHaveAttribute('title', 'coat: 9 rows, each under its vessel');
  expect(vessel).toHaveAttribute('aria-current', 'true');
});

it('shows another table, whose fills are edited from then on', async () => {
  const open = show();
  await userEvent.click(screen.getByRole('button', { name: /coat/ }));
  await vi.waitFor(() => expect(open.view.table.name).toBe('coat'));
  expect(open.field).toBe('shade');
  expect(open.into).toEqual({ destination: 1 });
  open.putFill(aFill('shade', 'Boat name'));
  expect(open.plan.destinations.map((d) => d.fills.at(-1)?.origin.column)).toEqual([
    aView().plan.destinations[0]!.fills.at(-1)!.origin.column,
    'Boat name',
  ]);
  // what is saved comes back with the same table shown
  await open.save();
  const [, { params }] = vi.mocked(api.PUT).mock.calls.at(-1)! as never as [
    string,
    { params: { query: object } },
  ];
  expect(params.query).toEqual({ destination: 1 });
});

it('is walked by keys, from the last to the first', async () => {
  const open = show();
  for (const shown of [1, 0]) {
    keyboard.handle(new KeyboardEvent('keydown', { key: '.' }));
    await vi.waitFor(() => expect(open.view.shown).toBe(shown));
  }
  keyboard.handle(new KeyboardEvent('keydown', { key: ',' }));
  await vi.waitFor(() => expect(open.view.shown).toBe(1));
});
