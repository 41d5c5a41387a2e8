import { api, got } from '../api/client';
import type { Reached } from '../api/types';

const PAUSE = 400;

/** Follows the reading of a file until it is done; throws if the file turns out to be no table. */
export async function untilRead(
  id: number,
  tell: (reached: Reached) => void,
  pause = PAUSE,
): Promise<void> {
  for (;;) {
    const reached = await got(api.GET('/api/sources/{id}/progress', { params: { path: { id } } }));
    tell(reached);
    if (reached.state === 'ready') return;
    await new Promise((resolve) => setTimeout(resolve, pause));
  }
}

/** How far it is, in words; rows alone where the format does not tell bytes. */
export function reachedWords(reached: Reached): string {
  const rows = `${new Intl.NumberFormat('en-GB').format(reached.rows)} rows`;
  const share = reached.totalBytes ? reached.bytes / reached.totalBytes : 0;
  return share > 0 && share < 1 ? `${rows}, ${Math.floor(share * 100)} % of the file` : rows;
}
