import { render, screen, within } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api, ApiError } from '../api/client';
import type { MatchClasses } from '../api/types';
import { anEntry, anOpenPlan } from '../plan/fixtures';
import Match from './Match.svelte';

const classes: MatchClasses = {
  one: 611,
  none: 511,
  several: 0,
  repeats: 12,
  troubled: 70,
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

describe('the Match stop', () => {
  beforeEach(() => {
    vi.restoreAllMocks();
    vi.spyOn(api, 'GET').mockResolvedValue({ data: classes } as never);
    vi.spyOn(api, 'PUT').mockResolvedValue({ data: anOpenPlan().view } as never);
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

  it('changes what a class becomes', async () => {
    const open = anOpenPlan();
    render(Match, { open });
    const group = await screen.findByRole('radiogroup', { name: 'Rows that match one record' });
    await userEvent.click(within(group).getByRole('radio', { name: 'Skip' }));
    expect(open.destination.policies.onMatch).toBe('skip');
    expect(open.destination.policies.onNone).toBe('add');
    expect(within(group).getByRole('radio', { name: 'Skip' })).toBeChecked();
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
});
