import { createRawSnippet } from 'svelte';
import { cleanup, render, screen, waitFor } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import type { FieldInfo, Plan, ToldLink } from '../api/types';
import { aField, aFill, anOpenPlan, aView } from '../plan/fixtures';
import type { OpenPlan } from '../plan/plan.svelte';
import OriginEditor from './OriginEditor.svelte';

const head = createRawSnippet(() => ({ render: () => '<h2>On its way</h2>' }));
const buyer = aField('buyer', { type: 'whole' });
const people = [
  aField('id', { type: 'whole' }),
  aField('number', { type: 'whole' }),
  aField('name'),
];
const asked: string[] = [];
let saved: Plan[] = [];
let last: OpenPlan;

/** A plan whose field buyer is filled by a column; the server lets it point where it is told. */
function show(link?: FieldInfo['link'], links: ToldLink[] = [], isRefused = false) {
  const table = (to: FieldInfo['link']) => ({
    ...aView().table,
    fields: [{ ...buyer, link: to }],
  });
  const mine: Plan[] = [];
  saved = mine;
  const before = aView({ table: table(link) });
  const open = anOpenPlan({
    table: table(link),
    plan: {
      ...before.plan,
      links,
      destinations: [{ ...before.plan.destinations[0]!, fills: [aFill('buyer', 'Boat name')] }],
    },
  });
  last = open;
  vi.spyOn(api, 'GET').mockImplementation((async (path: string, options: never) => {
    asked.push(path + JSON.stringify(options));
    if (path === '/api/connections/{name}/tables')
      return { data: ['person', 'vessel'].map((name) => ({ name })) };
    if (path === '/api/plans/{id}/offers') {
      const origin = open.view.table.fields[0]!.link
        ? { kind: 'link', column: 'Boat name', link: { by: 'name', with: [] } }
        : { kind: 'column', column: 'Boat name' };
      return { data: [{ column: 'Boat name', fill: { ...aFill('buyer', 'Boat name'), origin } }] };
    }
    return path.startsWith('/api/connections') ? { data: { fields: people } } : { data: [] };
  }) as never);
  vi.spyOn(api, 'PUT').mockImplementation((async (_: string, options: never) => {
    const { plan } = (options as { body: { plan: Plan } }).body;
    mine.push(plan);
    const told = plan.links[0];
    const points = told &&
      !isRefused && { table: told.to, keyField: told.key ?? 'id', declared: true };
    const view = { ...open.view, revision: open.view.revision + 1, plan, followed: [] };
    return { data: { ...view, table: table(points || undefined) } };
  }) as never);
  const fill = open.fill('buyer');
  const field = open.view.table.fields[0]!;
  render(OriginEditor, { open, field, fill, put: vi.fn(), children: head });
  return open;
}

async function choose(label: string, option: string) {
  await waitFor(() => screen.getByRole('option', { name: option }));
  await userEvent.selectOptions(screen.getByLabelText(label), option);
}

describe('where a field points that the database does not tell', () => {
  beforeEach(() => {
    vi.restoreAllMocks();
    saved = [];
  });

  // what is saved a moment later would be saved in the next test
  afterEach(() => last.save());

  it('is told by a person, and its column is looked up there', async () => {
    const open = show();
    expect(screen.queryByLabelText('Table whose key it holds')).toBeNull();
    await choose('Where the value comes from', 'Key of another table…');
    await choose('Table whose key it holds', 'person');
    await waitFor(() => expect(open.fill('buyer')?.origin.kind).toBe('link'));
    expect(saved[0]!.links).toEqual([{ table: 'vessel', field: 'buyer', to: 'person' }]);
    expect(saved[0]!.destinations[0]!.fills[0]!.origin.kind).toBe('column');
    expect(open.fill('buyer')?.origin.link?.by).toBe('name');
    expect(asked.some((a) => a.includes('"counted":false'))).toBe(true);
  });

  it('is asked where nothing fills a number', async () => {
    const open = show();
    expect(screen.queryByText('does it hold the key of another table?')).toBeNull();
    cleanup();
    render(OriginEditor, {
      open,
      field: buyer,
      fill: undefined,
      put: vi.fn(),
      children: head,
    });
    await userEvent.click(screen.getByText('does it hold the key of another table?'));
    expect(screen.getByLabelText('Table whose key it holds')).toBeTruthy();
    expect(screen.queryByText('does it hold the key of another table?')).toBeNull();
  });

  it('may be another field than its key', async () => {
    const told = [{ table: 'VESSEL', field: 'Buyer', to: 'person' }];
    show({ table: 'person', keyField: 'id', declared: true }, told);
    await choose('Which field of the table it holds', 'number');
    await waitFor(() => expect(saved).not.toHaveLength(0));
    expect(saved[0]!.links).toEqual([
      { table: 'vessel', field: 'buyer', to: 'person', key: 'number' },
    ]);
    expect(screen.queryByRole('option', { name: 'name' })).toBeNull();
  });

  it('stays as it was filled where it can point at none', async () => {
    const open = show(undefined, [], true);
    await choose('Where the value comes from', 'Key of another table…');
    await choose('Table whose key it holds', 'person');
    await waitFor(() => expect(open.saving).toBe('saved'));
    expect(open.fill('buyer')?.origin.kind).toBe('column');
  });

  it('is untold, and its column feeds it again', async () => {
    const told = [{ table: 'vessel', field: 'buyer', to: 'person' }];
    const open = show({ table: 'person', keyField: 'id', declared: true }, told);
    open.putFill({
      ...open.fill('buyer')!,
      origin: { kind: 'link', column: 'Boat name', link: undefined },
    });
    await choose('Table whose key it holds', 'no other table');
    await waitFor(() => expect(open.fill('buyer')?.origin.kind).toBe('column'));
    expect(open.plan.links).toEqual([]);
  });

  it('is told otherwise where only its name told it', async () => {
    const open = show({ table: 'vessel', keyField: 'id', declared: false });
    await waitFor(() => screen.getByRole('option', { name: 'person' }));
    expect(screen.queryByRole('option', { name: 'no other table' })).toBeNull();
    await choose('Table whose key it holds', 'person');
    await waitFor(() => expect(open.fill('buyer')?.origin.kind).toBe('link'));
    expect(open.plan.links[0]?.to).toBe('person');
  });
});
