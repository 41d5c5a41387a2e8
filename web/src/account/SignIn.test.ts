import { render, screen } from '@testing-library/svelte';
import userEvent from '@testing-library/user-event';
import { beforeEach, expect, it, vi } from 'vitest';
import { api, ApiError } from '../api/client';
import { session } from './session.svelte';
import SignIn from './SignIn.svelte';

beforeEach(() => {
  vi.restoreAllMocks();
  session.nobody();
});

async function signIn(password: string) {
  await userEvent.type(screen.getByLabelText('Name'), 'odile');
  await userEvent.type(screen.getByLabelText('Password'), password);
  await userEvent.click(screen.getByRole('button', { name: 'Sign in' }));
}

it('says what is wrong and empties the password', async () => {
  vi.spyOn(api, 'POST').mockRejectedValue(
    new ApiError(401, 'wrong-password', 'The name or the password is not right.'),
  );
  render(SignIn);
  await signIn('guess');
  expect(screen.getByRole('alert')).toHaveTextContent('not right');
  expect(screen.getByLabelText('Password')).toHaveValue('');
  expect(screen.getByLabelText('Name')).toHaveValue('odile');
  expect(session.person).toBeNull();
});

it('lets the person in', async () => {
  const post = vi
    .spyOn(api, 'POST')
    .mockResolvedValue({ data: { name: 'odile', shownName: 'Odile Brask' } } as never);
  render(SignIn);
  await signIn('right');
  expect(post.mock.calls[0]?.[1]).toMatchObject({ body: { name: 'odile', password: 'right' } });
  expect(session.person?.shownName).toBe('Odile Brask');
});

it('promises that nothing edited is lost when a session has ended', () => {
  session.enter({ name: 'odile', shownName: 'Odile' });
  render(SignIn, { again: true });
  expect(screen.getByText(/nothing you edited is lost/)).toBeInTheDocument();
  expect(screen.getByLabelText('Name')).toHaveValue('odile');
});
