// Questions of tables besides the one that is shown.
import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import type { Question } from '../api/types';
import { aField, anOpenPlan, aReport, aRun, aView, savesInto } from '../plan/fixtures';
import Questions from './Questions.svelte';

const question = (change: Partial<Question>): Question => ({
  code: 'unknown-link',
  destination: 'berth',
  field: 'kind_id',
  value: 'swinging',
  rows: 3,
  ...change,
});
const post = vi.fn();
const get = vi.fn();

beforeEach(() => {
  vi.restoreAllMocks();
  const known = [
    { value: 'swing', near: true },
    { value: 'pontoon', near: false },
  ];
  post
    .mockReset()
    .mockImplementation((path: string) =>
      Promise.resolve({ data: path.endsWith('/suggestions') ? known : {} }),
    );
  vi.spyOn(api, 'POST').mockImplementation(post as never);
  get.mockReset();
  vi.spyOn(api, 'GET').mockImplementation(get as never);
});

/** A plan whose second table has a field that is called like one of its first. */
function show(...questions: Question[]) {
  const view = aView();
  const [first] = view.plan.destinations;
  const link = { by: 'name', with: [], also: [], create: [] };
  const kind = { ...first!.fills[0]!, field: 'kind_id', steps: [] };
  const fills = [{ ...kind, origin: { kind: 'link', column: 'Kind', link } }] as never;
  const berth = { ...first!, table: 'berth', fills };
  const destinations = [{ ...first!, fills: [...first!.fills, kind] }, berth];
  const vessel = { ...view.table, fields: [...view.table.fields, aField('kind_id')] };
  const open = anOpenPlan({ table: vessel, plan: { ...view.plan, destinations } });
  const kindOfBerth = aField('kind_id', { link: { table: 'berth_kind', field: 'id' } as never });
  const table = { ...view.table, name: 'berth', fields: [kindOfBerth] };
  get.mockImplementation((_: string, { params }: { params: { query?: object } }) => {
    const { query } = params;
    return Promise.resolve({ data: query ? { ...open.view, shown: 1, table } : { fields: [] } });
  });
  savesInto();
  vi.spyOn(open, 'rehearseSoon').mockReturnValue();
  const report = aReport({ questions });
  report.destinations = [...report.destinations, { ...report.destinations[0]!, table: 'berth' }];
  open.rehearsal = aRun({ report });
  const asked = { show: vi.fn(), decide: vi.fn(), mend: vi.fn() };
  render(Questions, { open, ...asked });
  return { open, ...asked };
}

it('are answered in place, into the fill of their own table', async () => {
  const { open } = show(question({}));
  expect(await screen.findByText(/is no berth_kind/)).toBeInTheDocument();
  const first = open.plan.destinations[0];
  await userEvent.click(await screen.findByRole('button', { name: /Use swing/ }));
  await userEvent.click(screen.getByRole('button', { name: 'Answer 3' }));
  await vi.waitFor(() => expect(open.plan.destinations[1]!.fills[0]!.steps).toHaveLength(1));
  expect(open.plan.destinations[0]).toEqual(first);
  const taught = post.mock.calls.find((c) => c[0] === '/api/phrasebooks/learn')![1].body;
  expect(taught).toMatchObject({ from: 'swinging', to: 'swing' });
  expect(taught.book).toMatchObject({ name: 'Words for berth.kind_id', table: 'berth_kind' });
  const sought = post.mock.calls.find((c) => c[0].endsWith('/suggestions'))![1];
  expect(sought.params.query).toEqual({ destination: 1 });
});

it('lead to their table where they are settled one by one, and to its rows', async () => {
  const several = question({ code: 'several-matches', field: 'number', value: '' });
  const { decide, show: see, mend } = show(several, question({ rows: 9 }));
  await userEvent.click(await screen.findByRole('button', { name: /Decide side by side/ }));
  expect(decide).toHaveBeenCalledWith('several', 1);
  await userEvent.click(screen.getByRole('button', { name: /berth.kind_id/ }));
  await userEvent.click(await screen.findByRole('button', { name: 'see its rows' }));
  expect(see).toHaveBeenCalledWith('kind_id', 'swinging', 1);
  await userEvent.click(screen.getByRole('button', { name: 'in Fill' }));
  expect(mend).toHaveBeenCalledWith('kind_id', 1);
});

it('change policies and guesses of their table only', async () => {
  const none = question({ code: 'no-match', field: 'number', value: '' });
  const { open } = show(none, question({ code: 'guess', value: 'Kind' }));
  open.edit((plan) => ({
    ...plan,
    destinations: plan.destinations.map((d) => ({
      ...d,
      fills: d.fills.map((f) => ({ ...f, guess: true })),
    })),
  }));
  const guesses = open.guesses.length;
  await userEvent.click(await screen.findByRole('button', { name: /Leave them out/ }));
  expect(open.plan.destinations.map((d) => d.policies.onNone)).toEqual(['add', 'skip']);
  await userEvent.click(await screen.findByRole('button', { name: /Confirm/ }));
  expect(open.guesses).toHaveLength(guesses - 1);
  expect(open.guesses.every((g) => g.at === 0)).toBe(true);
});
