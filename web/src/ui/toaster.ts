import { createToaster } from '@skeletonlabs/skeleton-svelte';
import { ApiError } from '../api/client';

export const toaster = createToaster({ placement: 'bottom-end' });

/** Tells what went wrong; signing in again has a place of its own. */
export function tell(error: unknown) {
  if (error instanceof ApiError && (error.status === 401 || error.status === 403)) return;
  toaster.error({
    title: error instanceof Error ? error.message : 'Something went wrong.',
    duration: 12_000,
  });
}
