import { render, screen, within } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { anOpenPlan } from '../plan/fixtures';
import FieldList from './FieldList.svelte';

const rows = [
  {
    row: 0,
    line: 2,
    cells: [],
    records: 1,
    values: [{ field: 'registration', value: 'QH-0931', softened: false, question: false }],
  },
];

describe('the list of fields', () => {
  it('tells how each field is filled and what is in trouble', () => {
    const open = anOpenPlan({
      troubles: [{ field: 'name', distinct: 9, troubled: 2, rows: 37, questions: 0, noted: 0 }],
      matters: [{ code: 'required-field' as const, field: 'notes', message: 'notes is required' }],
    });
    render(FieldList, { open, rows });
    const registration = screen.getByRole('button', { name: /registration/ });
    expect(registration).toHaveTextContent('text, 10, required, unique');
    expect(registration).toHaveTextContent('Reg No');
    expect(registration).toHaveTextContent('QH-0931');
    expect(screen.getByRole('button', { name: /^name/ })).toHaveTextContent('37');
    expect(screen.getByRole('button', { name: /notes/ })).toHaveTextContent('to fill');
    expect(screen.getByRole('button', { name: /^id/ })).toHaveTextContent(
      'the database numbers it',
    );
    expect(screen.getByText('2 of 4 filled')).toBeInTheDocument();
  });

  it('opens with a field that nothing fills, else with one in trouble', () => {
    const matters = [{ code: 'required-field' as const, field: 'notes', message: '' }];
    const troubles = [
      { field: 'name', distinct: 9, troubled: 2, rows: 37, questions: 0, noted: 0 },
    ];
    expect(anOpenPlan({ matters, troubles }).field).toBe('notes');
    expect(anOpenPlan({ troubles }).field).toBe('name');
    expect(anOpenPlan().field).toBe('registration');
  });

  it('marks what is to be confirmed', () => {
    const open = anOpenPlan();
    open.editDestination((d) => ({ ...d, fills: d.fills.map((f) => ({ ...f, guess: true })) }));
    render(FieldList, { open, rows });
    expect(screen.getByRole('button', { name: /registration/ })).toHaveTextContent('to confirm');
  });

  it('names the columns that go nowhere', () => {
    render(FieldList, { open: anOpenPlan(), rows });
    const unused = screen.getByText('Not used:').parentElement!;
    expect(within(unused).getByText('Colour')).toBeInTheDocument();
    expect(within(unused).queryByText('Reg No')).toBeNull();
  });

  it('counts what other tables take of the file as used', () => {
    const open = anOpenPlan();
    const [first] = open.plan.destinations;
    const fill = { ...first!.fills[0]!, origin: { kind: 'column' as const, column: 'Colour' } };
    const coat = { ...first!, table: 'coat', fills: [fill] };
    open.plan = { ...open.plan, destinations: [first!, coat] };
    render(FieldList, { open, rows });
    expect(screen.getByText('Not used:').parentElement).not.toHaveTextContent('Colour');
  });

  it('finds a field by part of its name and takes it with Enter', async () => {
    const open = anOpenPlan();
    render(FieldList, { open, rows });
    const find = screen.getByLabelText('Find a field');
    await userEvent.type(find, 'not');
    expect(screen.queryByRole('button', { name: /registration/ })).toBeNull();
    await userEvent.type(find, '{Enter}');
    expect(open.field).toBe('notes');
    expect(screen.getByRole('button', { name: /registration/ })).toBeInTheDocument();
  });
});
