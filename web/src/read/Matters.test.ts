import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { SourceView, Warning } from '../api/types';
import { anOpenPlan, aView, savesInto } from '../plan/fixtures';
import Matters from './Matters.svelte';

function opened(change: Partial<SourceView>) {
  return anOpenPlan({ source: { ...aView().source, ...change } });
}

function asked(code: Warning['code'], column?: string) {
  return { row: 4, code, message: `About ${code}.`, column, rows: 2, confirm: true };
}

describe('what a person has to settle', () => {
  beforeEach(() => {
    vi.restoreAllMocks();
    savesInto();
  });

  it('asks for the century and leaves the order of dates open', async () => {
    const open = opened({ warnings: [asked('short-years', 'Insured')] });
    render(Matters, { open });
    await userEvent.click(screen.getByRole('button', { name: '19..' }));
    expect(open.plan.reading).toEqual({ century: '19' });
  });

  it('lets short years be problems, and does not ask again', async () => {
    const open = opened({ warnings: [asked('short-years', 'Insured')] });
    render(Matters, { open });
    await userEvent.click(screen.getByRole('button', { name: 'They are problems' }));
    expect(open.plan.reading.confirmed).toEqual(['short-years:Insured']);
  });

  it('asks which sign stands before decimals', async () => {
    const open = opened({ warnings: [asked('ambiguous-decimals')] });
    render(Matters, { open });
    await userEvent.click(screen.getByRole('button', { name: 'Comma' }));
    expect(open.plan.reading.locale?.decimal).toBe(',');
  });

  it('lets a warning stand once it is seen', async () => {
    const open = opened({ warnings: [asked('dates-among-codes', 'Code')] });
    render(Matters, { open });
    expect(screen.getByText('About dates-among-codes.')).toBeInTheDocument();
    await userEvent.click(screen.getByRole('button', { name: 'Seen, let it stand' }));
    expect(open.plan.reading.confirmed).toEqual(['dates-among-codes:Code']);
  });

  it('says nothing of what only is to be known', () => {
    render(Matters, {
      open: opened({ warnings: [{ ...asked('leading-zeros'), confirm: false }] }),
    });
    expect(screen.queryByText('About leading-zeros.')).toBeNull();
  });

  const changes: SourceView['changes'] = [
    {
      kind: 'renamed',
      before: { name: 'Vessel', letter: 'B', type: 'text' },
      now: { name: 'Boat name', letter: 'B', type: 'text' },
      because: 'the titles are alike',
    },
    { kind: 'gone', before: { name: 'Reg No', letter: 'D', type: 'text' }, because: 'no column' },
  ];

  it('tells how a file differs, and which fields that concerns', async () => {
    const open = opened({ changes });
    render(Matters, { open });
    expect(screen.getByText('2 columns unlike last time')).toBeInTheDocument();
    expect(screen.getByText('“Vessel” is now “Boat name”')).toBeInTheDocument();
    expect(screen.getByText(/no column; fills registration/)).toBeInTheDocument();
    await userEvent.click(
      screen.getByRole('button', { name: 'Take the new names, keep the fills' }),
    );
    expect(open.plan.reading.renamed).toEqual({ 'Boat name': 'Vessel' });
  });

  it('believes a renaming only if the person does', async () => {
    const open = opened({ changes });
    render(Matters, { open });
    await userEvent.click(screen.getByRole('checkbox'));
    await userEvent.click(screen.getByRole('button', { name: 'Go on with these columns' }));
    expect(open.plan.reading.renamed).toBeUndefined();
    expect(open.plan.reading.columns?.map((c) => c.name)).toContain('Boat name');
  });
});
