import { render, screen, within } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { anOpenPlan, savesInto } from '../plan/fixtures';
import DatabaseSay from './DatabaseSay.svelte';

describe('how a plan runs', () => {
  beforeEach(() => {
    vi.restoreAllMocks();
    savesInto();
  });

  it('is said in a sentence, and changed in place', async () => {
    const open = anOpenPlan();
    render(DatabaseSay, { open });
    expect(
      screen.getByText('All is written or nothing; goes on if records change meanwhile.'),
    ).toBeInTheDocument();
    expect(screen.queryByRole('radiogroup')).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'change' }));
    const refuses = screen.getByRole('radiogroup', { name: 'If the database refuses a row' });
    await userEvent.click(within(refuses).getByText('it is set aside, in batches'));
    const batch = screen.getByLabelText('Rows of a batch');
    await userEvent.clear(batch);
    await userEvent.type(batch, '2,500{Enter}');
    await userEvent.tab();
    const bears = screen.getByLabelText(/^Rejected rows, or a share/);
    await userEvent.type(bears, '5 %');
    await userEvent.tab();
    await userEvent.click(screen.getAllByText('nothing is written').at(-1)!);
    expect(open.plan.run).toMatchObject({
      mode: 'batches',
      batchRows: 2500,
      stopAfterPercent: 5,
      whenDifferent: 'refuse',
    });
    await userEvent.click(screen.getByRole('button', { name: 'done' }));
    expect(
      screen.getByText(
        'In batches of 2,500, refused rows set aside; ends with more than 5 % rejected; nothing if records change meanwhile.',
      ),
    ).toBeInTheDocument();
  });

  it('takes no nonsense for the number of rejected rows', async () => {
    const open = anOpenPlan();
    render(DatabaseSay, { open });
    await userEvent.click(screen.getByRole('button', { name: 'change' }));
    const bears = screen.getByLabelText(/^Rejected rows, or a share/);
    await userEvent.type(bears, '250 %');
    await userEvent.tab();
    expect(bears).toHaveValue('');
    expect(open.plan.run.stopAfterPercent).toBeUndefined();
    await userEvent.type(bears, '12');
    await userEvent.tab();
    expect(open.plan.run.stopAfter).toBe(12);
  });

  it('offers to let the database try its own rules', async () => {
    const open = anOpenPlan();
    open.view = {
      ...open.view,
      table: { ...open.view.table, ownRules: ['trigger berth_free', 'check beam'] },
    };
    render(DatabaseSay, { open });
    await userEvent.click(screen.getByRole('checkbox', { name: /2 rules of/ }));
    expect(open.plan.run.tryInDatabase).toBe(true);
    expect(screen.getByText(/Everything is written and taken back/)).toBeInTheDocument();
  });
});
