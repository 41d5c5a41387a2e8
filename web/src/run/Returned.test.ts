import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../api/client';
import type { Returned as Answer } from '../api/types';
import Returned from './Returned.svelte';

describe('rows that a run rejected and that came back', () => {
  beforeEach(() => {
    vi.restoreAllMocks();
  });

  const answer = (data: Answer) => vi.spyOn(api, 'GET').mockResolvedValue({ data } as never);

  it('tells what they came to, and of each where it stands now', async () => {
    answer({
      rejected: 5,
      back: 3,
      outcomes: { new: 2, rejected: 1 },
      fates: [{ line: 88, outcome: 'new', run: 9, number: '2026-0009', lineThere: 4 }],
    });
    render(Returned, { run: 7 });
    expect(await screen.findByText('3 of 5 rejected rows')).toBeInTheDocument();
    expect(document.body).toHaveTextContent(/New 2\s*Rejected 1\s*not yet 2/);
    await userEvent.click(screen.getByRole('button', { name: 'each row' }));
    expect(screen.getByText('line 4 of 2026-0009').closest('tr')).toHaveTextContent('88');
  });

  it('is silent while none has come back', async () => {
    const get = answer({ rejected: 5, back: 0, outcomes: {}, fates: [] });
    render(Returned, { run: 7 });
    await vi.waitFor(() => expect(get).toHaveBeenCalled());
    expect(screen.queryByText('Brought back')).toBeNull();
  });
});
