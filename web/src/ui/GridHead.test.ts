import { fireEvent, render, screen } from '@testing-library/svelte';
import { describe, expect, it, vi } from 'vitest';
import GridHead from './GridHead.svelte';

/** What is dragged, as a browser tells it. */
function transfer(type: string, text: string) {
  return { types: [type], getData: (asked: string) => (asked === type ? text : '') };
}

describe('the titles of a grid', () => {
  const columns = [{ key: 'A', name: 'Reg No', width: 90 }];

  it('take what may be dropped on them, and nothing else', async () => {
    const dropped = vi.fn();
    render(GridHead, { columns, carries: 'col', accepts: 'field', dropped });
    const title = screen.getByText('Reg No');
    expect(title).toHaveAttribute('draggable', 'true');
    await fireEvent.drop(title, { dataTransfer: transfer('text/plain', 'x') });
    expect(dropped).not.toHaveBeenCalled();
    await fireEvent.drop(title, { dataTransfer: transfer('field', 'registration') });
    expect(dropped).toHaveBeenCalledWith('Reg No', 'registration');
  });

  it('can be dragged by what they carry', async () => {
    const setData = vi.fn();
    render(GridHead, { columns, carries: 'col' });
    await fireEvent.dragStart(screen.getByText('Reg No'), { dataTransfer: { setData } });
    expect(setData).toHaveBeenCalledWith('col', 'Reg No');
  });

  it('stay where they are if nothing is to be done with them', () => {
    render(GridHead, { columns });
    expect(screen.getByText('Reg No')).not.toHaveAttribute('draggable');
  });
});
