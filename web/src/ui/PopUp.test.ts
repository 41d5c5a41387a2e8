import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { createRawSnippet } from 'svelte';
import { describe, expect, it, vi } from 'vitest';
import PopUp from './PopUp.svelte';

describe('a pop-up', () => {
  const children = createRawSnippet(() => ({ render: () => '<p>what is in it</p>' }));
  const isOpen = () => screen.getByText('to the letter').closest('details')!.open;

  it('is put away by Escape, which gives the words their focus back, or by a click elsewhere', async () => {
    render(PopUp, { words: 'to the letter', children });
    expect(isOpen()).toBe(false);
    await userEvent.click(screen.getByText('to the letter'));
    expect(isOpen()).toBe(true);
    await userEvent.click(screen.getByText('what is in it'));
    expect(isOpen()).toBe(true);
    await userEvent.keyboard('{Escape}');
    expect(isOpen()).toBe(false);
    await userEvent.click(screen.getByText('to the letter'));
    await userEvent.click(document.body);
    expect(isOpen()).toBe(false);
    await userEvent.click(screen.getByText('to the letter'));
    const elsewhere = document.body.appendChild(document.createElement('button'));
    elsewhere.focus();
    await vi.waitFor(() => expect(isOpen()).toBe(false));
    elsewhere.remove();
  });
});
