import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, expect, it, vi } from 'vitest';
import { api, ApiError } from '../api/client';
import type { Destination, PlanView } from '../api/types';
import AddTable from './AddTable.svelte';
import { aField, aFill, anOpenPlan, aView, tablesOf } from './fixtures';
import type { OpenPlan } from './plan.svelte';

const get = vi.fn();
let open: OpenPlan;

const destination = (change: Partial<Destination>): Destination => ({
  ...aView().plan.destinations[0]!,
  keys: [],
  ...change,
});
const coat = destination({
  table: 'coat',
  parent: { destination: 'vessel' },
  fills: [aFill('shade', 'Colour')],
});

/** The view of a plan as the server gives it, of one of its tables. */
function viewOf(shown: number): PlanView {
  const view = { ...open.view, plan: open.plan, shown };
  const table = { ...view.table, name: open.plan.destinations[shown]!.table };
  return { ...view, table, tables: tablesOf({ ...view, table }) };
}

beforeEach(() => {
  vi.restoreAllMocks();
  HTMLDialogElement.prototype.showModal ??= vi.fn();
  HTMLDialogElement.prototype.close ??= vi.fn();
  open = anOpenPlan();
  const view = open.view;
  const kind = aField('kind_id', { link: { table: 'kind', field: 'id' } as never });
  open.view = { ...view, table: { ...view.table, fields: [...view.table.fields, kind] } };
  get.mockReset().mockImplementation((path: string, asked) => {
    const evidence = [{ field: 'shade', column: 'Colour', because: '', sure: 'plain' }];
    if (path.endsWith('/further'))
      return Promise.resolve({ data: [{ destination: coat, evidence }] });
    if (path.endsWith('/tables'))
      return Promise.resolve({ data: [{ name: 'kind' }, { name: 'coat' }] });
    if (path.endsWith('/further/{table}')) {
      const keys = [{ fields: ['name'], ignoring: [] }];
      const kinds = destination({ table: asked.params.path.table, keys });
      return Promise.resolve({ data: { destination: kinds, evidence: [] } });
    }
    return Promise.resolve({ data: viewOf(asked.params.query.destination) });
  });
  vi.spyOn(api, 'GET').mockImplementation(get as never);
  vi.spyOn(api, 'PUT').mockImplementation(((_: string, asked: { params: never }) => {
    const { query } = asked.params as { query: { destination: number } };
    return Promise.resolve({ data: viewOf(query.destination) });
  }) as never);
});

const names = () => open.plan.destinations.map((d) => d.table);

it('adds a table that takes what is left, and shows it', async () => {
  render(AddTable, { open, shown: true });
  expect(await screen.findByText('shade from Colour')).toBeInTheDocument();
  await userEvent.click(
    (await screen.findAllByRole('button', { name: 'Add it', hidden: true }))[0]!,
  );
  await vi.waitFor(() => expect(open.view.shown).toBe(1));
  expect(names()).toEqual(['vessel', 'coat']);
  expect(open.name).toBe('coat');
});

it('writes a table before the one that links to it, once for each key', async () => {
  render(AddTable, { open, shown: true });
  await screen.findByText('shade from Colour');
  await userEvent.selectOptions(screen.getByLabelText('Any other'), 'kind');
  await userEvent.click(
    (await screen.findAllByRole('button', { name: 'Add it', hidden: true }))[1]!,
  );
  await vi.waitFor(() => expect(names()).toEqual(['kind', 'vessel']));
  expect(open.plan.destinations[0]!.distinct).toBe(true);
  await vi.waitFor(() => expect(open.saving).toBe('saved'));
  expect(open.view.shown).toBe(0);
});

it('offers a table that rows belong to, writes it before, and puts them under it', async () => {
  const keys = [{ fields: ['name'], ignoring: [] }];
  const kinds = destination({ table: 'kind', keys, name: 'kind 2' });
  const evidence = [{ field: 'name', column: 'Kind', because: '', sure: 'plain' }];
  get.mockImplementationOnce(() =>
    Promise.resolve({ data: [{ destination: kinds, evidence, above: 'vessel' }] }),
  );
  render(AddTable, { open, shown: true });
  expect(await screen.findByText('name from Kind')).toBeInTheDocument();
  expect(screen.getByText('above')).toBeInTheDocument();
  await userEvent.click(
    (await screen.findAllByRole('button', { name: 'Add it', hidden: true }))[0]!,
  );
  await vi.waitFor(() => expect(names()).toEqual(['kind', 'vessel']));
  expect(open.plan.destinations[0]!.distinct).toBe(true);
  expect(open.plan.destinations[1]!.parent).toEqual({ destination: 'kind 2' });
  await vi.waitFor(() => expect(open.saving).toBe('saved'));
  expect(open.view.shown).toBe(0);
});

it('is unmade like any other change, though its table was in hand', async () => {
  await open.addTable({ destination: coat });
  expect(open.view.shown).toBe(1);
  open.unmake();
  await open.save();
  expect([names(), open.view.shown, open.saving]).toEqual([['vessel'], 0, 'saved']);
});

it('says why a table can’t be added', async () => {
  render(AddTable, { open, shown: true });
  await screen.findByText('shade from Colour');
  await userEvent.selectOptions(screen.getByLabelText('Any other'), 'kind');
  get.mockRejectedValueOnce(
    new ApiError(404, 'no-such-table', 'There is no table “kind” any more.'),
  );
  await userEvent.click(
    (await screen.findAllByRole('button', { name: 'Add it', hidden: true }))[1]!,
  );
  expect(await screen.findByText(/no table “kind” any more/)).toBeInTheDocument();
  expect(names()).toEqual(['vessel']);
});

it('leaves a table out again, whichever is in hand', async () => {
  await open.addTable({ destination: coat });
  await open.addTable({ destination: destination({ table: 'mast' }) });
  expect(names()).toEqual(['vessel', 'coat', 'mast']);
  await open.dropTable();
  expect([names(), open.view.shown]).toEqual([['vessel', 'coat'], 0]);
  await open.dropTable();
  expect([names(), open.view.shown, open.destination.table]).toEqual([['coat'], 0, 'coat']);
});
