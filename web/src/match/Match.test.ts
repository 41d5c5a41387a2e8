import { render, screen, within } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api, ApiError } from '../api/client';
import type { KeyHints, MatchClasses } from '../api/types';
import { anEntry, anOpenPlan, savesInto } from '../plan/fixtures';
import { keyboard } from '../ui/keys.svelte';
import Match from './Match.svelte';

const classes: MatchClasses = {
  one: 611,
  none: 511,
  several: 0,
  similar: 0,
  repeats: 12,
  decided: 0,
  troubled: 70,
  looked: 611,
  keys: [{ one: 611, several: 0, similar: 0, comparesRows: true }],
  of: 'one',
  candidates: [[]],
  others: [[]],
  further: [],
  fields: ['registration', 'name'],
  pairs: [
    anEntry(10, {
      outcome: 'changed',
      matchedBy: 1,
      recordKey: '931',
      before: ['QH-10', 'Old name'],
      changed: [1],
    }),
  ],
};

const hints: KeyHints = { suggested: [], unindexed: [] };

describe('the Match stop', () => {
  beforeEach(() => {
    vi.restoreAllMocks();
    vi.spyOn(api, 'GET').mockImplementation(((path: string) =>
      Promise.resolve({ data: path.endsWith('/keys') ? hints : classes })) as never);
    savesInto();
  });

  it('shows the classes and a pair with its difference', async () => {
    render(Match, { open: anOpenPlan() });
    expect(await screen.findByText('match none', { selector: '.line span' })).toBeInTheDocument();
    expect(screen.getByRole('img')).toHaveAttribute(
      'aria-label',
      '611 match one record, 511 none, 0 several',
    );
    const name = screen.getByRole('cell', { name: 'name' }).closest('tr')!;
    expect(within(name).getByText('Boat 10').closest('td')).toHaveClass('was');
    expect(within(name).getByText('Old name').closest('td')).toHaveClass('was');
    const registration = screen.getByRole('cell', { name: 'registration' }).closest('tr')!;
    expect(registration.querySelector('.was')).toBeNull();
  });

  it('tells how many rows of a large class were looked at', async () => {
    const large = { ...classes, one: 500_000, looked: 5_120 };
    vi.spyOn(api, 'GET').mockImplementation(((path: string) =>
      Promise.resolve({ data: path.endsWith('/keys') ? hints : large })) as never);
    render(Match, { open: anOpenPlan() });
    expect(
      await screen.findByText('most changed first, of 5,120 rows from all over the file'),
    ).toBeInTheDocument();
  });

  it('tries keys once it is known what the own ones find', async () => {
    let answer: (found: unknown) => void = () => {};
    const get = vi
      .spyOn(api, 'GET')
      .mockImplementation(((path: string) =>
        path.endsWith('/keys')
          ? Promise.resolve({ data: hints })
          : new Promise((resolve) => (answer = resolve))) as never);
    render(Match, { open: anOpenPlan() });
    const tried = () => get.mock.calls.filter((c) => String(c[0]).endsWith('/keys')).length;
    await vi.waitFor(() => expect(get).toHaveBeenCalled());
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(tried()).toBe(0);
    answer({ data: classes });
    await vi.waitFor(() => expect(tried()).toBe(1));
  });

  it('changes what a class becomes', async () => {
    const open = anOpenPlan();
    render(Match, { open });
    const group = await screen.findByRole('radiogroup', { name: 'Rows that match one record' });
    await userEvent.click(within(group).getByRole('radio', { name: 'Skip' }));
    expect(open.destination.policies.onMatch).toBe('skip');
    expect(open.destination.policies.onNone).toBe('add');
    expect(within(group).getByRole('radio', { name: 'Skip' })).toBeChecked();
  });

  it('shows what is much like a record, to be decided side by side', async () => {
    const open = anOpenPlan();
    open.matchClass = 'similar';
    const asked = anEntry(10, {
      outcome: 'rejected',
      matchedBy: 1,
      notes: [
        {
          code: 'similar',
          field: 'name',
          value: '931',
          reason: 'much like record 931: name Old name',
          softened: false,
          question: true,
        },
      ],
    });
    const records = { fields: ['registration', 'name'], records: [], more: false };
    vi.spyOn(api, 'GET').mockImplementation(((path: string) =>
      Promise.resolve({
        data: path.endsWith('/keys')
          ? hints
          : path.endsWith('/records')
            ? records
            : { ...classes, similar: 1, of: 'similar', pairs: [asked], candidates: [['931']] },
      })) as never);
    render(Match, { open });
    expect(
      await screen.findByText('Line 10 is much like record 931: name Old name.'),
    ).toBeInTheDocument();
    expect(screen.getByText('asked, never taken by itself')).toBeInTheDocument();
    await userEvent.click(screen.getByRole('button', { name: 'A record of its own' }));
    expect(open.destination.decisions).toEqual([
      { of: { registration: 'QH-10' }, act: 'other', not: [['931']] },
    ]);
    await userEvent.click(screen.getByRole('button', { name: /This one/ }));
    expect(open.destination.decisions).toEqual([
      { of: { registration: 'QH-10' }, act: 'take', record: ['931'] },
    ]);
    // the letters go on behind the records
    keyboard.handle(new KeyboardEvent('keydown', { key: 'b' }));
    expect(open.destination.decisions).toEqual([
      { of: { registration: 'QH-10' }, act: 'other', not: [['931']] },
    ]);
    keyboard.handle(new KeyboardEvent('keydown', { key: 'c' }));
    expect(open.destination.decisions).toEqual([{ of: { registration: 'QH-10' }, act: 'skip' }]);
  });

  it('shows what is much like an earlier row beside that row', async () => {
    const open = anOpenPlan();
    open.matchClass = 'similar';
    const note = {
      code: 'similar-row',
      field: 'registration',
      value: '4',
      reason: 'much like line 4: registration QH-4',
      softened: false,
      question: true,
    };
    const asked = anEntry(10, { outcome: 'rejected', matchedBy: 1, notes: [note as never] });
    vi.spyOn(api, 'GET').mockImplementation(((path: string) =>
      Promise.resolve({
        data: path.endsWith('/keys')
          ? hints
          : {
              ...classes,
              similar: 30,
              of: 'similar',
              pairs: [asked, { ...asked, line: 11 }],
              candidates: [[], []],
              others: [[anEntry(4)], []],
            },
      })) as never);
    render(Match, { open });
    expect(
      await screen.findByText('Line 10 is much like line 4: registration QH-4.'),
    ).toBeInTheDocument();
    expect(screen.getByText('Line 4')).toBeInTheDocument();
    expect(screen.getByText('QH-4').closest('td')).toHaveClass('was');
    expect(screen.getByText('of 30')).toBeInTheDocument();
    expect(screen.queryByText(/Which is right/)).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Leave it out' }));
    expect(open.destination.decisions).toEqual([{ of: { registration: 'QH-10' }, act: 'skip' }]);
  });

  it('says where rows are too many to be compared with each other', async () => {
    const open = anOpenPlan();
    open.editDestination((d) => ({
      ...d,
      keys: [{ ...d.keys[0]!, nearIn: { registration: 'spelling' } }],
    }));
    const keys = [{ one: 0, several: 0, similar: 3, comparesRows: false }];
    vi.spyOn(api, 'GET').mockImplementation(((path: string) =>
      Promise.resolve({ data: path.endsWith('/keys') ? hints : { ...classes, keys } })) as never);
    render(Match, { open });
    expect(await screen.findByText(/too many rows for them/)).toBeInTheDocument();
  });

  it('asks which of contradicting lines is right', async () => {
    const open = anOpenPlan();
    open.matchClass = 'repeats';
    open.editDestination((d) => ({ ...d, policies: { ...d.policies, onRepeat: 'ask' } }));
    const line = (n: number, name: string) =>
      anEntry(n, { outcome: 'rejected', matchedBy: 1, after: ['QH-10', name] });
    vi.spyOn(api, 'GET').mockImplementation(((path: string) =>
      Promise.resolve({
        data: path.endsWith('/keys')
          ? hints
          : {
              ...classes,
              of: 'repeats',
              pairs: [line(10, 'Wren')],
              others: [[line(40, 'Wren II')]],
            },
      })) as never);
    render(Match, { open });
    expect(await screen.findByText('Line 40')).toBeInTheDocument();
    expect(screen.getByText('Wren II').closest('td')).toHaveClass('was');
    expect(screen.getAllByText('QH-10')[0]!.closest('td')).not.toHaveClass('was');
    await userEvent.click(screen.getByRole('button', { name: 'The last line' }));
    expect(open.destination.decisions).toEqual([{ of: { registration: 'QH-10' }, act: 'last' }]);
    await userEvent.click(screen.getByRole('button', { name: 'Merge them' }));
    expect(open.destination.decisions).toEqual([{ of: { registration: 'QH-10' }, act: 'merge' }]);
  });

  it('lets a field of the key be near', async () => {
    const open = anOpenPlan();
    render(Match, { open });
    const how = await screen.findByLabelText('How registration is compared');
    const exact = open.destination.keys[0];
    await userEvent.selectOptions(how, 'spelt alike');
    expect(open.destination.keys).toEqual([
      exact,
      { ...exact, ignoringIn: {}, nearIn: { registration: 'spelling' } },
    ]);
    expect(screen.getByText(/What\s+it finds is asked about/)).toBeInTheDocument();
    // back to the same, and near again: one that compares the same stands there already
    const again = screen.getByLabelText('How registration is compared');
    await userEvent.selectOptions(again, 'exactly');
    await userEvent.selectOptions(again, 'spelt alike');
    expect(open.destination.keys).toHaveLength(2);
  });

  it('edits the key and warns when there is none left', async () => {
    const open = anOpenPlan();
    render(Match, { open });
    await userEvent.click(screen.getByLabelText('punctuation'));
    expect(open.destination.keys[0]?.ignoring).toEqual(['case', 'punctuation']);
    await userEvent.click(screen.getByLabelText('capitals'));
    expect(open.destination.keys[0]?.ignoring).toEqual(['punctuation']);
    await userEvent.click(screen.getByLabelText(/^name/));
    expect(open.destination.keys[0]?.fields).toEqual(['registration', 'name']);
    await userEvent.click(screen.getByLabelText(/^registration/));
    await userEvent.click(screen.getByLabelText(/^name/));
    expect(open.destination.keys).toEqual([]);
    expect(screen.getByText('No match key')).toBeInTheDocument();
  });

  it('says why nothing can be matched yet', async () => {
    vi.spyOn(api, 'GET').mockRejectedValue(
      new ApiError(422, 'plan-incomplete', 'name is required.'),
    );
    render(Match, { open: anOpenPlan() });
    expect(await screen.findByText('name is required.')).toBeInTheDocument();
  });

  it('tries several keys in an order', async () => {
    const open = anOpenPlan();
    render(Match, { open });
    await screen.findByText('match none', { selector: '.line span' });
    await userEvent.click(screen.getByRole('button', { name: '+ Key' }));
    expect(open.destination.keys.map((k) => k.fields)).toEqual([['registration'], ['name']]);
    await userEvent.click(screen.getByRole('button', { name: 'earlier' }));
    expect(open.destination.keys.map((k) => k.fields)).toEqual([['name'], ['registration']]);
    await userEvent.click(screen.getByRole('button', { name: 'Remove key 1' }));
    expect(open.destination.keys.map((k) => k.fields)).toEqual([['registration']]);
  });

  it('asks which of several records is meant, side by side', async () => {
    const severals: MatchClasses = {
      ...classes,
      several: 1,
      of: 'several',
      candidates: [['12', '57']],
      further: [{ key: 1, field: 'name', settles: 1, of: 1 }],
      pairs: [anEntry(10, { outcome: 'rejected', matchedBy: 1, before: undefined })],
    };
    const page = {
      fields: ['registration', 'name'],
      total: 2,
      records: [
        { key: '12', values: ['QH-10', 'Boat 10'] },
        { key: '57', values: ['QH-10', 'Other'] },
      ],
    };
    vi.spyOn(api, 'GET').mockImplementation(((path: string, options: never) => {
      const query = (options as { params: { query?: { of?: string } } }).params.query ?? {};
      if (path.endsWith('/keys')) return Promise.resolve({ data: hints });
      const data = path.endsWith('/records') ? page : query.of === 'several' ? severals : classes;
      return Promise.resolve({ data });
    }) as never);
    const open = anOpenPlan();
    render(Match, { open });
    await userEvent.click(await screen.findByRole('button', { name: /match several/ }));
    const other = await screen.findByText('Other');
    expect(other.closest('td')).toHaveClass('was');
    expect(await screen.findByText('2 records agree in', { exact: false })).toBeInTheDocument();
    await userEvent.click(screen.getByRole('button', { name: 'name' }));
    expect(open.destination.keys[0]?.fields).toEqual(['registration', 'name']);
    open.unmake();
    await userEvent.click(screen.getAllByRole('button', { name: /This one/ })[1]!);
    expect(open.destination.decisions).toEqual([
      { of: { registration: 'QH-10' }, act: 'take', record: ['57'] },
    ]);
    expect(screen.getByText('QH-10: record 57')).toBeInTheDocument();
    await userEvent.click(screen.getByRole('button', { name: 'Forget QH-10: record 57' }));
    expect(open.destination.decisions).toEqual([]);
  });

  it('asks by what the latest is told', async () => {
    const open = anOpenPlan();
    render(Match, { open });
    const group = await screen.findByRole('radiogroup', {
      name: 'Rows that match several records',
    });
    await userEvent.click(within(group).getByRole('radio', { name: 'Take the latest' }));
    expect(open.destination.policies.onSeveral).toBe('latest');
    expect(open.destination.policies.latestBy).toBeTruthy();
    expect(screen.getByLabelText('Field that tells the latest')).toBeInTheDocument();
  });

  it('offers keys with what they would find, and tells of a missing index', async () => {
    const said: KeyHints = {
      suggested: [
        {
          key: { fields: ['name'], ignoring: ['case', 'spaces'] },
          unique: false,
          values: 1198,
          rows: 1204,
          one: 431,
          several: 7,
        },
      ],
      unindexed: [{ key: 1, records: 512_000, statement: 'CREATE INDEX x ON vessel (name)' }],
    };
    vi.spyOn(api, 'GET').mockImplementation(((path: string) =>
      Promise.resolve({ data: path.endsWith('/keys') ? said : classes })) as never);
    const open = anOpenPlan();
    render(Match, { open });
    expect(
      await screen.findByText(
        '1,198 values in 1,204 rows, alone finds a record for 431, several for 7',
      ),
    ).toBeInTheDocument();
    expect(screen.getByText(/512,000 are read each time/)).toBeInTheDocument();
    expect(screen.getByText('CREATE INDEX x ON vessel (name)')).toBeInTheDocument();
    await userEvent.click(screen.getByRole('button', { name: 'name' }));
    expect(open.destination.keys).toEqual([
      open.destination.keys[0],
      { fields: ['name'], ignoring: ['case', 'spaces'] },
    ]);
  });
});
