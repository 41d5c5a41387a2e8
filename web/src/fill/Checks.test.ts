import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { api, ApiError } from '../api/client';
import type { TableCheck } from '../api/types';
import { anOpenPlan } from '../plan/fixtures';
import Checks from './Checks.svelte';
import Corrections from './Corrections.svelte';

const check: TableCheck = {
  name: 'insured',
  formula: '[insured_until] >= [arrived_on]',
  message: 'not insured',
};

describe('the checks of a table', () => {
  beforeEach(() => {
    vi.restoreAllMocks();
    HTMLDialogElement.prototype.showModal = function () {
      this.open = true;
    };
    HTMLDialogElement.prototype.close = vi.fn();
  });

  function show(checks: TableCheck[]) {
    const open = anOpenPlan({ checks });
    vi.spyOn(open, 'refresh').mockResolvedValue();
    render(Checks, { open, shown: true });
    return open;
  }

  it('are switched off for this plan alone', async () => {
    const open = show([check]);
    const tick = screen.getByRole<HTMLInputElement>('checkbox');
    expect(tick.checked).toBe(true);
    await userEvent.click(tick);
    expect(open.destination.checksOff).toEqual(['insured']);
    await userEvent.click(tick);
    expect(open.destination.checksOff).toEqual([]);
  });

  it('are kept with the connection, and refused with the reason', async () => {
    const put = vi.spyOn(api, 'PUT').mockResolvedValue({ data: [check] } as never);
    const open = show([]);
    await userEvent.type(screen.getByLabelText('Name of the check'), 'insured');
    await userEvent.type(
      screen.getByLabelText('Formula of the check'),
      '[[insured_until] >= [[arrived_on]',
    );
    await userEvent.click(screen.getByRole('button', { name: 'Keep the check' }));
    // a plan may be saved meanwhile
    const calls = put.mock.calls as unknown as [string, unknown][];
    const kept = calls.find(([path]) => path.includes('/checks'));
    expect(kept?.[1]).toMatchObject({
      params: { path: { name: 'marina', table: 'vessel' } },
      body: { name: 'insured', formula: '[insured_until] >= [arrived_on]', message: undefined },
    });
    await vi.waitFor(() => expect(open.refresh).toHaveBeenCalled());
    expect(screen.getByText('not insured')).toBeTruthy();

    put.mockRejectedValue(new ApiError(422, 'check', 'A check must say true or false.'));
    await userEvent.type(screen.getByLabelText('Name of the check'), 'x');
    await userEvent.type(screen.getByLabelText('Formula of the check'), '1');
    await userEvent.click(screen.getByRole('button', { name: 'Keep the check' }));
    expect((await screen.findByRole('alert')).textContent).toBe('A check must say true or false.');
  });

  it('are removed', async () => {
    const removed = vi.spyOn(api, 'DELETE').mockResolvedValue({ data: [] } as never);
    show([check]);
    await userEvent.click(screen.getByLabelText('Remove insured'));
    expect(removed.mock.lastCall?.[1]).toMatchObject({ params: { query: { check: 'insured' } } });
    expect(await screen.findByText(/There is none yet/)).toBeTruthy();
  });
});

describe('corrected cells', () => {
  beforeEach(() => {
    HTMLDialogElement.prototype.showModal = function () {
      this.open = true;
    };
    HTMLDialogElement.prototype.close = vi.fn();
  });

  it('say what they were, whether they lapsed, and can be taken back', async () => {
    const one = { line: 12, column: 'LOA', was: 'tbc', now: '32' };
    const two = { line: 14, column: 'LOA', was: '410', now: '' };
    const open = anOpenPlan({ lapsed: [two] });
    open.correct(one);
    open.correct(two);
    open.correct({ ...one, now: '33' });
    expect(open.plan.corrections).toHaveLength(2);
    render(Corrections, { open, shown: true });
    expect(screen.getByText('33')).toBeTruthy();
    expect(screen.getByText('blank')).toBeTruthy();
    expect(screen.getByText(/^lapsed/)).toBeTruthy();
    await userEvent.click(screen.getByLabelText('Take back line 14'));
    expect(open.plan.corrections.map((c) => c.line)).toEqual([12]);
  });
});
