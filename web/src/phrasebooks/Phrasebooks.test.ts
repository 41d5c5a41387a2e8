import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import type { BookSummary } from '../api/types';
import Book from './Book.svelte';

const book: BookSummary = {
  id: 3,
  name: 'Kinds',
  phrases: 1,
  used: 22,
  savedBy: 'odile',
  savedAt: '2026-11-23T09:00:00',
};
const phrase = {
  from: 'Ketch rig',
  to: 'ketch',
  learntBy: 'odile',
  learntAt: '2026-11-23T09:00:00',
  used: 22,
};

function answers(uses: unknown[] = []) {
  vi.spyOn(api, 'GET').mockImplementation((async (path: string) => ({
    data: path.includes('uses') ? uses : { book, phrases: [phrase] },
  })) as never);
}

describe('a phrasebook', () => {
  beforeEach(() => vi.restoreAllMocks());

  it('shows what each word means and how many rows it translated', async () => {
    answers([{ plan: 7, name: 'Winter arrivals', table: 'vessel', field: 'type_id' }]);
    render(Book, { id: 3, changed: vi.fn(), gone: vi.fn() });
    const meaning = (await screen.findByLabelText('Ketch rig means')) as HTMLInputElement;
    expect(meaning.value).toBe('ketch');
    expect(screen.getByText('22')).toBeTruthy();
    expect((await screen.findByText('Winter arrivals')).getAttribute('href')).toBe('/plans/7/fill');
    expect(screen.queryByText('Remove this phrasebook')).toBeNull();
  });

  it('remembers a word, and one that means nothing', async () => {
    answers();
    const put = vi
      .spyOn(api, 'PUT')
      .mockResolvedValue({ data: { book, phrases: [phrase] } } as never);
    render(Book, { id: 3, changed: vi.fn(async () => undefined), gone: vi.fn() });
    await userEvent.type(await screen.findByLabelText('Word in the file'), 'mtr');
    await userEvent.type(screen.getByLabelText('Value in the application'), 'motor{Enter}');
    expect(put.mock.lastCall?.[1]).toMatchObject({ body: { from: 'mtr', to: 'motor' } });
    await userEvent.type(screen.getByLabelText('Word in the file'), 'n/a{Enter}');
    expect(put.mock.lastCall?.[1]).toMatchObject({ body: { from: 'n/a', to: undefined } });
  });

  it('is removed only when nobody uses it, and only when one is sure', async () => {
    answers();
    const gone = vi.fn(async () => undefined);
    const removed = vi.spyOn(api, 'DELETE').mockResolvedValue({} as never);
    render(Book, { id: 3, changed: vi.fn(), gone });
    await userEvent.click(await screen.findByText('Remove this phrasebook'));
    expect(removed).not.toHaveBeenCalled();
    await userEvent.click(screen.getByText('Yes, remove it'));
    expect(gone).toHaveBeenCalledOnce();
  });
});
