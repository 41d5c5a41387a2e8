import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import type { Offer } from '../api/types';
import { aField, aFill, anOpenPlan } from '../plan/fixtures';
import { keyboard } from '../ui/keys.svelte';
import { feed } from './offers.svelte';
import Offers from './Offers.svelte';

const field = aField('owner_id');
const offers: Offer[] = [
  {
    column: 'Eigner',
    fill: aFill('owner_id', 'Eigner', { origin: { kind: 'link', column: 'Eigner' } }),
    because: '41 of 61 values are found as owner.email',
    samples: ['a@b.example', 'c@d.example'],
    passes: 41,
    rows: 61,
  },
  {
    column: 'Steg',
    fill: aFill('owner_id', 'Steg'),
    because: '1 of 61 values are found as owner.name',
    samples: ['A'],
    passes: 61,
    rows: 61,
  },
];

describe('columns that are offered', () => {
  beforeEach(() => vi.restoreAllMocks());

  function show(answer: Offer[], letters = true) {
    vi.spyOn(api, 'GET').mockResolvedValue({ data: answer } as never);
    const open = anOpenPlan();
    const put = vi.spyOn(open, 'putFill').mockImplementation(() => undefined);
    const done = vi.fn();
    render(Offers, { open, field, letters, done });
    return { open, put, done };
  }

  const press = (key: string) => keyboard.handle(new KeyboardEvent('keydown', { key }));

  it('shows each with its reason, its values and how many rows pass', async () => {
    show(offers);
    expect(await screen.findByText('41 of 61 values are found as owner.email')).toBeInTheDocument();
    expect(screen.getByText('a@b.example · c@d.example')).toBeInTheDocument();
    expect(screen.getByText('41 of 61 rows pass')).toBeInTheDocument();
    expect(screen.getByText('all 61 rows pass')).toBeInTheDocument();
  });

  it('takes the first by Enter, another by its letter or by a click', async () => {
    const { put, done } = show(offers);
    await screen.findByText('Eigner');
    press('Enter');
    expect(put).toHaveBeenLastCalledWith(offers[0]!.fill);
    press('b');
    expect(put).toHaveBeenLastCalledWith(offers[1]!.fill);
    await userEvent.click(screen.getByText('Eigner'));
    expect(put).toHaveBeenLastCalledWith(offers[0]!.fill);
    press('Escape');
    expect(put).toHaveBeenCalledTimes(3);
    expect(done).toHaveBeenCalledTimes(4);
  });

  it('leaves letters and arrows to the screen where nobody asked for it', async () => {
    const { put } = show(offers, false);
    await screen.findByText('Eigner');
    press('b');
    press('ArrowDown');
    expect(put).not.toHaveBeenCalled();
    press('Enter');
    expect(put).toHaveBeenCalledWith(offers[0]!.fill);
  });

  it('says so where no column will do', async () => {
    show([]);
    expect(await screen.findByText(/^No column of the file/)).toBeInTheDocument();
  });

  it('feeds a field from a column as a draft would', async () => {
    const get = vi.spyOn(api, 'GET').mockResolvedValue({ data: [offers[0]] } as never);
    const open = anOpenPlan();
    const put = vi.spyOn(open, 'putFill').mockImplementation(() => undefined);
    await feed(open, 'owner_id', 'Eigner');
    expect(get.mock.calls[0]?.[1]).toMatchObject({
      params: { query: { field: 'owner_id', column: 'Eigner' } },
    });
    expect(put).toHaveBeenCalledWith(offers[0]!.fill);
    expect(open.field).toBe('owner_id');
  });

  it('lets rows make the records that a field links to, where no column finds them', async () => {
    vi.spyOn(api, 'GET').mockResolvedValue({ data: [] } as never);
    HTMLDialogElement.prototype.showModal ??= vi.fn();
    HTMLDialogElement.prototype.close ??= vi.fn();
    const open = anOpenPlan();
    const linked = aField('owner_id', { link: { table: 'owner', field: 'id' } as never });
    const fields = [...open.view.table.fields, linked];
    open.view = { ...open.view, table: { ...open.view.table, fields } };
    const put = vi.spyOn(open, 'putUnder').mockResolvedValue(undefined);
    const { unmount } = render(Offers, { open, field: linked, letters: true, done: vi.fn() });
    await userEvent.click(await screen.findByRole('button', { name: 'another table…' }));
    expect(screen.getByText('Another table')).toBeInTheDocument();
    unmount();
    // once they do, it is that of the same row
    const owners = { ...open.destination, table: 'owner' };
    open.plan = { ...open.plan, destinations: [open.destination, owners] };
    render(Offers, { open, field: linked, letters: true, done: vi.fn() });
    await userEvent.click(await screen.findByRole('button', { name: /of the same row/ }));
    expect(put).toHaveBeenCalledWith({ at: 1, name: 'owner', field: 'owner_id' });
  });
});
