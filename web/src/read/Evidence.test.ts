import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { anOpenPlan, aView, savesInto } from '../plan/fixtures';
import Evidence from './Evidence.svelte';

describe('how the file is read', () => {
  beforeEach(() => {
    vi.restoreAllMocks();
    savesInto();
  });

  it('gives the evidence beside what was found', () => {
    render(Evidence, { open: anOpenPlan() });
    expect(screen.getByLabelText('Delimiter')).toHaveValue(';');
    expect(screen.getByText('9 of 9 lines part into 3 cells')).toBeInTheDocument();
    expect(screen.getByText('in lines 2 to 1,205')).toBeInTheDocument();
  });

  it('fixes only what the person changes', async () => {
    const open = anOpenPlan();
    render(Evidence, { open });
    await userEvent.selectOptions(screen.getByLabelText('Delimiter'), '|');
    expect(open.plan.reading).toEqual({ delimiter: '|' });
    await userEvent.selectOptions(screen.getByLabelText('Decimal sign'), '.');
    expect(open.plan.reading).toEqual({
      delimiter: '|',
      locale: { decimal: '.', dateOrder: 'day-month-year' },
    });
  });

  it('puts dates that cannot be told to the person', async () => {
    const source = {
      ...aView().source,
      warnings: [
        {
          row: 0,
          code: 'ambiguous-dates' as const,
          message: 'No date tells day from month.',
          rows: 3,
          confirm: true,
        },
      ],
    };
    const open = anOpenPlan({ source });
    render(Evidence, { open });
    await userEvent.click(screen.getByRole('button', { name: 'Month first' }));
    expect(open.plan.reading.locale?.dateOrder).toBe('month-day-year');
  });

  it('asks about titles that were not found until it is told', async () => {
    const source = { ...aView().source, reading: { ...aView().source.reading, titleRows: [] } };
    const open = anOpenPlan({ source });
    render(Evidence, { open });
    await userEvent.click(screen.getByRole('button', { name: 'There are none' }));
    expect(open.plan.reading.titleRows).toEqual([]);
    expect(screen.queryByText('No titles')).toBeNull();
  });

  it('shows the values that do not fit a column', () => {
    const source = { ...aView().source };
    source.columns = [
      {
        ...source.columns[0]!,
        type: 'decimal',
        misfits: [{ text: 'tbc', rows: 2, line: 9 }],
      },
    ];
    render(Evidence, { open: anOpenPlan({ source }) });
    expect(screen.getByText(/“tbc” is no number/)).toBeInTheDocument();
  });

  it('tells sections, which can be named or be records', async () => {
    const view = aView().source;
    const source = { ...view, reading: { ...view.reading, section: 'Steg' } };
    const open = anOpenPlan({ source });
    render(Evidence, { open });
    const name = screen.getByLabelText('Name of the column that sections make');
    await userEvent.clear(name);
    await userEvent.type(name, 'Pier{Tab}');
    expect(open.plan.reading.section).toBe('Pier');
    await userEvent.click(screen.getByRole('button', { name: 'they are records' }));
    expect(open.plan.reading.section).toBe('');
  });

  it('reads another table of the sheet', async () => {
    const view = aView().source;
    const others = [{ titles: 19, words: ['Part', 'Colour'], lines: 2 }];
    const source = { ...view, proposals: { ...view.proposals, others } };
    const open = anOpenPlan({ source });
    open.putReading({ ...open.plan.reading, lastRow: 16 });
    render(Evidence, { open });
    await userEvent.click(screen.getByRole('button', { name: 'Read the table in line 19' }));
    expect(open.plan.reading).toMatchObject({ titleRows: [19] });
    expect(open.plan.reading.lastRow).toBeUndefined();
  });

  it('reads what lies beside the table instead of it', async () => {
    const view = aView().source;
    const omit = ['Reg', 'Kind'];
    const others = [{ titles: 1, words: ['Code', 'Meaning'], lines: 3, omit }];
    const source = { ...view, proposals: { ...view.proposals, others } };
    const open = anOpenPlan({ source });
    const before = open.plan.reading.titleRows;
    render(Evidence, { open });
    await userEvent.click(
      screen.getByRole('button', { name: 'Read the table beside it, from Code' }),
    );
    expect(open.plan.reading.omit).toEqual(omit);
    expect(open.plan.reading.titleRows).toEqual(before);
  });
});
