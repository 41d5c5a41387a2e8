import { beforeEach, describe, expect, it, vi } from 'vitest';
import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { api } from '../api/client';
import RemovalDialog from './RemovalDialog.svelte';
import { Removal } from './removal.svelte';

describe('deleting', () => {
  const done = vi.fn();
  let meaning: { goes: string[]; affected: string[]; refused?: string };

  beforeEach(() => {
    done.mockReset();
    meaning = { goes: ['2 runs with ledger and books'], affected: [] };
    vi.spyOn(api, 'GET').mockImplementation((async () => ({ data: meaning })) as never);
    vi.spyOn(api, 'DELETE').mockImplementation((async () => ({})) as never);
  });

  async function show() {
    const removal = new Removal('plan', '7', 'Arrivals', done);
    await removal.ask();
    render(RemovalDialog, { removal });
  }

  it('says what goes with it before it is done', async () => {
    await show();
    expect(await screen.findByText('Delete the plan “Arrivals”?')).toBeInTheDocument();
    expect(screen.getByText('2 runs with ledger and books')).toBeInTheDocument();
    expect(api.DELETE).not.toHaveBeenCalled();
    await userEvent.click(screen.getByRole('button', { name: 'Delete' }));
    expect(api.DELETE).toHaveBeenCalledWith('/api/plans/{id}', {
      params: { path: { id: 7, name: '7' } },
    });
    expect(done).toHaveBeenCalled();
  });

  it('offers nothing where it is refused', async () => {
    meaning = { goes: [], affected: [], refused: 'It is still going. Stop it first.' };
    await show();
    expect(await screen.findByText('It is still going. Stop it first.')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Delete' })).toBeNull();
  });

  it('tells why it did not come about', async () => {
    vi.spyOn(api, 'DELETE').mockRejectedValue(new Error('The file is read by the plan “B”.'));
    await show();
    await userEvent.click(await screen.findByRole('button', { name: 'Delete' }));
    expect(await screen.findByText('The file is read by the plan “B”.')).toBeInTheDocument();
    expect(done).not.toHaveBeenCalled();
  });
});
