import { render, screen } from '@testing-library/svelte';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import type { MatchClasses, MatchKey } from '../api/types';
import { anEntry, aFill, anOpenPlan, savesInto } from '../plan/fixtures';
import type { OpenPlan } from '../plan/plan.svelte';
import { keyboard } from '../ui/keys.svelte';
import { spelt } from './alike';
import Match from './Match.svelte';

const exact: MatchKey = { fields: ['name'], ignoring: [], ignoringIn: {}, nearIn: {} };
const near: MatchKey = { ...exact, nearIn: { name: 'spelling' } };

const note = {
  code: 'similar-row',
  field: 'name',
  value: '4',
  reason: 'much like line 4: name Marigold',
  softened: false,
  question: true,
};
const asked = anEntry(10, { outcome: 'rejected', matchedBy: 2, row: 8, notes: [note as never] });
const classes = {
  one: 0,
  none: 0,
  several: 0,
  similar: 1,
  repeats: 0,
  decided: 0,
  troubled: 0,
  looked: 1,
  keys: [
    { one: 0, several: 0, similar: 0, comparesRows: true },
    { one: 0, several: 0, similar: 1, comparesRows: true },
  ],
  of: 'similar',
  candidates: [[]],
  others: [[anEntry(4, { row: 2 })]],
  further: [],
  fields: ['registration', 'name'],
  pairs: [asked],
} as MatchClasses;

function planWith(...keys: MatchKey[]): OpenPlan {
  const open = anOpenPlan();
  open.matchClass = 'similar';
  open.editDestination((d) => ({ ...d, keys }));
  open.putFill(aFill('name', 'Boat name'));
  return open;
}

describe('rows that are much alike', () => {
  beforeEach(() => {
    vi.restoreAllMocks();
    savesInto();
    vi.spyOn(api, 'GET').mockImplementation(((
      path: string,
      { params }: { params: { query: { from: number } } },
    ) => {
      const name = params?.query?.from === 8 ? 'Marigolde' : 'Marigold';
      const cells = anOpenPlan().view.source.columns.map((c) => ({
        kind: 'text',
        text: c.name === 'Boat name' ? name : `${params?.query?.from}`,
      }));
      const data = path.endsWith('/keys')
        ? { suggested: [], unindexed: [] }
        : path.endsWith('/window')
          ? [{ row: 0, line: 0, cells, values: [] }]
          : classes;
      return Promise.resolve({ data });
    }) as never);
  });

  it('are spelt alike where somebody says that they are the same', async () => {
    const open = planWith(exact, near);
    render(Match, { open });
    expect(await screen.findByText('The same as line 4')).toBeInTheDocument();
    keyboard.handle(new KeyboardEvent('keydown', { key: 'a' }));
    await vi.waitFor(() =>
      expect(open.plan.corrections).toEqual([
        { line: 10, column: 'Boat name', was: 'Marigolde', now: 'Marigold' },
      ]),
    );
    expect(open.destination.decisions).toEqual([]);
  });

  it('are not, where their key would find no repeat, or no cell holds it', async () => {
    expect(spelt(planWith(exact, near))).toEqual({ name: 'Boat name' });
    expect(spelt(planWith(near))).toBeNull();
    expect(spelt(planWith(exact))).toBeNull();
    const open = planWith(exact, near);
    open.putFill({ ...aFill('name', ''), origin: { kind: 'joined', template: '[Boat name]' } });
    expect(spelt(open)).toBeNull();
    render(Match, { open });
    expect(await screen.findByText('A record of its own')).toBeInTheDocument();
    expect(screen.queryByText('The same as line 4')).toBeNull();
  });
});
