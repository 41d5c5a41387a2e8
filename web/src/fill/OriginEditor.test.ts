import { createRawSnippet } from 'svelte';
import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import type { Fill } from '../api/types';
import { aField, aFill, anOpenPlan } from '../plan/fixtures';
import { columnsOf } from '../ui/words';
import OriginEditor from './OriginEditor.svelte';
import { exchange } from './offers.svelte';
import { changeOrigin } from './origins';
import { step } from './repairs';

const head = createRawSnippet(() => ({ render: () => '<h2>On its way</h2>' }));
const town = aField('town_id', {
  type: 'whole',
  link: { table: 'town', keyField: 'id', declared: true },
});
const linked = [
  aField('id', { type: 'whole', generated: true, nullable: false }),
  aField('name', { unique: true, nullable: false }),
  aField('land', { nullable: false }),
];

function show(fill: Fill | undefined, field = aField('name')) {
  vi.spyOn(api, 'GET').mockResolvedValue({ data: { fields: linked } } as never);
  const put = vi.fn();
  render(OriginEditor, { open: anOpenPlan(), field, fill, put, children: head });
  return put;
}

async function choose(label: string, option: string) {
  await userEvent.selectOptions(await screen.findByLabelText(label), option);
}

describe('where the value comes from', () => {
  beforeEach(() => vi.restoreAllMocks());

  it('is changed in one list', async () => {
    const put = show(aFill('name', 'Boat name'));
    await choose('Where the value comes from', 'Formula');
    expect(put.mock.lastCall?.[0].origin).toEqual({ kind: 'formula', formula: '[Boat name]' });
    await choose('Where the value comes from', 'Joined columns');
    expect(put.mock.lastCall?.[0].origin).toEqual({ kind: 'joined', template: '[Boat name]' });
  });

  it('puts columns into a template', async () => {
    const fill = {
      ...aFill('name', ''),
      origin: { kind: 'joined' as const, template: '[Reg No]' },
    };
    const put = show(fill);
    await choose('Put a column into the template', 'Colour');
    expect(put.mock.lastCall?.[0].origin.template).toBe('[Reg No] [Colour]');
  });

  it('gives all records one of the values that the field allows', async () => {
    const kind = aField('kind', { choices: ['postal', 'summer', 'winter'] });
    const put = show(changeOrigin(undefined, kind, 'fixed', [], []), kind);
    expect(screen.getByLabelText<HTMLSelectElement>('Fixed value').value).toBe('postal');
    await choose('Fixed value', 'summer');
    expect(put.mock.lastCall?.[0].origin).toEqual({ kind: 'fixed', value: 'summer' });
  });

  it('keeps in sight what a plan gives that the field does not allow', async () => {
    const paid = aField('paid', { type: 'boolean' });
    const fill = { ...aFill('paid', ''), origin: { kind: 'fixed' as const, value: 'perhaps' } };
    const put = show(fill, paid);
    const all = screen.getByLabelText<HTMLSelectElement>('Fixed value');
    expect(all.value).toBe('perhaps');
    expect([...all.options].map((o) => o.value)).toEqual(['perhaps', 'yes', 'no']);
    await choose('Fixed value', 'no');
    expect(put.mock.lastCall?.[0].origin.value).toBe('no');
  });

  it('lets a record be looked up by any fixed value', async () => {
    const fill = changeOrigin(aFill('town_id', 'Boat name'), town, 'link', ['Boat name'], linked);
    fill.origin = { ...fill.origin, column: undefined, value: 'Quillhaven' };
    const put = show(fill, { ...town, choices: ['1', '2'] });
    const typed = screen.getByLabelText<HTMLInputElement>('Fixed value');
    await userEvent.clear(typed);
    await userEvent.type(typed, 'Saltmere{Enter}');
    typed.blur();
    expect(put.mock.lastCall?.[0].origin.value).toBe('Saltmere');
  });

  it('says how numbers go on', async () => {
    const origin = {
      kind: 'generated' as const,
      generator: 'series' as const,
      series: { start: 1 },
    };
    const put = show({ ...aFill('name', ''), origin });
    const first = screen.getByLabelText('First number');
    await userEvent.clear(first);
    await userEvent.tab();
    expect(put.mock.lastCall?.[0].origin.series).toEqual({ start: undefined });
    await userEvent.type(screen.getByLabelText('Prefix'), 'Q-{Tab}');
    expect(put.mock.lastCall?.[0].origin.series.prefix).toBe('Q-');
    await userEvent.type(screen.getByLabelText('Fewest digits'), '4{Tab}');
    expect(put.mock.lastCall?.[0].origin.series.width).toBe(4);
    await choose('What is generated', 'a random identifier');
    expect(put.mock.lastCall?.[0].origin).toEqual({ kind: 'generated', generator: 'uuid' });
  });

  it('looks a link up by what is wanted, in as many fields as are wanted', async () => {
    const fill = changeOrigin(aFill('town_id', 'Boat name'), town, 'link', ['Boat name'], linked);
    expect(fill.origin.link).toMatchObject({ by: 'name', whenMissing: 'ask' });
    const put = show(fill, town);
    await choose('Looked up by', 'by a formula');
    expect(put.mock.lastCall?.[0].origin).toMatchObject({ kind: 'link', formula: '[Boat name]' });
    await userEvent.click(await screen.findByText('look in one more field of town'));
    expect(put.mock.lastCall?.[0].origin.link.also).toEqual([{ field: 'id', column: 'Reg No' }]);
    await userEvent.click(screen.getByLabelText('accents don’t matter'));
    expect(put.mock.lastCall?.[0].origin.link.ignoring).toEqual(['case', 'spaces', 'accents']);
    await choose('When missing', 'missing: create');
    expect(put.mock.lastCall?.[0].origin.link.whenMissing).toBe('create');
  });

  it('fills the other fields of a record that is made', async () => {
    const made = changeOrigin(aFill('town_id', 'Boat name'), town, 'link', ['Boat name'], linked);
    made.origin.link!.whenMissing = 'create';
    const put = show(made, town);
    expect(await screen.findByText('its record needs 1 more value')).toBeTruthy();
    await choose('New town: land', 'Colour');
    expect(put.mock.lastCall?.[0].origin.link.create).toEqual([
      expect.objectContaining({
        field: 'land',
        origin: { kind: 'column', column: 'Colour' },
        steps: [step('trim')],
        whenBlank: 'reject',
      }),
    ]);
    await choose('New town: land', 'always…');
    expect(put.mock.lastCall?.[0].origin.link.create[0].origin.kind).toBe('fixed');
  });

  it('says what a record gets of which somebody may have it added', async () => {
    const asked = changeOrigin(aFill('town_id', 'Boat name'), town, 'link', ['Boat name'], linked);
    show(asked, town);
    await screen.findByLabelText('When missing');
    expect(screen.queryByText(/^if added/)).toBeNull();
    asked.origin.link!.create = [aFill('land', 'Colour')];
    show(asked, town);
    expect(await screen.findByText('if added: 1 more value')).toBeTruthy();
    expect(columnsOf(asked)).toEqual(['Boat name', 'Colour']);
  });

  const offer = (column: string, steps: Fill['steps']) => ({
    column,
    fill: { ...aFill('name', column), steps },
    because: '',
    sure: 'likely' as const,
    samples: [],
    passes: 1,
    rows: 1,
  });

  it('looks for two fields that stand together in a cell', async () => {
    const fill = changeOrigin(aFill('town_id', 'Boat name'), town, 'link', ['Boat name'], linked);
    const put = show(fill, town);
    await choose('Beside it in the cell', 'land');
    expect(put.mock.lastCall?.[0].origin.link).toMatchObject({ by: 'name', with: ['land'] });
  });

  it('asks for each part of a record that is made of what stands together', async () => {
    const made = changeOrigin(aFill('town_id', 'Boat name'), town, 'link', ['Boat name'], linked);
    Object.assign(made.origin.link!, { whenMissing: 'create', with: ['land'] });
    const put = show(made, town);
    expect(await screen.findByText('its record needs 2 more values')).toBeTruthy();
    expect(screen.queryByText('what it is looked up by')).toBeNull();
    await choose('New town: name', 'Colour');
    expect(put.mock.lastCall?.[0].origin.link.create).toEqual([
      expect.objectContaining({ field: 'name', origin: { kind: 'column', column: 'Colour' } }),
    ]);
  });

  it('takes another column as a draft would, unless a person chose the steps', async () => {
    vi.spyOn(api, 'GET').mockImplementation((async (
      _: string,
      { params }: { params: { query: { column: string } } },
    ) => {
      const column = params.query.column;
      return { data: [offer(column, [step(column === 'Colour' ? 'case' : 'trim')])] };
    }) as never);
    const drafted = { ...aFill('name', 'Boat name'), steps: [step('trim')] };
    const open = anOpenPlan();
    await exchange(open, drafted, 'Colour');
    expect(open.fill('name')).toMatchObject({
      origin: { column: 'Colour' },
      steps: [step('case')],
    });
    const own = { ...drafted, steps: [step('trim'), step('cut')] };
    await exchange(open, own, 'Colour');
    expect(open.fill('name')).toMatchObject({ origin: { column: 'Colour' }, steps: own.steps });
  });

  it('begins with the likeliest column where nothing filled the field', async () => {
    const open = anOpenPlan();
    vi.spyOn(api, 'GET').mockResolvedValue({
      data: [offer('Colour', [step('trim')]), offer('Reg No', [])],
    } as never);
    render(OriginEditor, {
      open,
      field: aField('name'),
      fill: undefined,
      put: vi.fn(),
      children: head,
    });
    await choose('Where the value comes from', 'Column');
    await vi.waitFor(() => expect(open.fill('name')?.origin.column).toBe('Colour'));
  });

  it('tells how many rows each field of the other table knows', async () => {
    const link = changeOrigin(aFill('town_id', 'Boat name'), town, 'link', ['Boat name'], linked);
    vi.spyOn(api, 'GET').mockImplementation((async (path: string) =>
      path.endsWith('/lookups')
        ? {
            data: [
              { field: 'name', with: ['land'], found: 40, rows: 61 },
              { field: 'name', with: [], found: 16, rows: 61 },
            ],
          }
        : { data: { fields: linked } }) as never);
    const open = anOpenPlan();
    open.putFill(link);
    const put = vi.fn();
    render(OriginEditor, { open, field: town, fill: link, put, children: head });
    expect(await screen.findByRole('option', { name: 'in name: 16 of 61' })).toBeTruthy();
    await choose('Look in', 'in name and land: 40 of 61');
    expect(put.mock.lastCall?.[0].origin.link).toMatchObject({ by: 'name', with: ['land'] });
    expect(screen.getByRole('option', { name: 'in land' })).toBeTruthy();
  });
});
