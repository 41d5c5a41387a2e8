import createClient, { type Middleware } from 'openapi-fetch';
import { session } from '../account/session.svelte';
import type { paths } from './schema';
import type { Peek, Source } from './types';

/** An answer of the server that says what went wrong, in the user's words. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
  ) {
    super(message);
  }
}

function csrfToken(): string {
  const found = /(?:^|; )XSRF-TOKEN=([^;]*)/.exec(document.cookie);
  return found ? decodeURIComponent(found[1] ?? '') : '';
}

async function toError(response: Response): Promise<ApiError> {
  const body = await response.json().catch(() => ({}));
  return new ApiError(
    response.status,
    String(body.code ?? 'unknown'),
    String(body.detail ?? 'The server gave no reason. Try again.'),
  );
}

/** Asks who is signed in, so that a lost token is renewed or signing in is asked for. */
async function ask() {
  const answer = await fetch('/api/session');
  if (answer.status === 401) session.expire();
}

const guard: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-XSRF-TOKEN', csrfToken());
    return request;
  },
  async onResponse({ response, request }) {
    if (response.ok) return undefined;
    const error = await toError(response);
    if (response.status === 401 && !request.url.endsWith('/api/session')) session.expire();
    if (response.status === 403) await ask();
    throw error;
  },
  onError({ error }) {
    return error instanceof ApiError
      ? error
      : new ApiError(
          0,
          'offline',
          'The server does not answer. What you edited is kept; try again.',
        );
  },
};

export const api = createClient<paths>({
  baseUrl: typeof location === 'undefined' ? 'http://localhost' : location.origin,
});
api.use(guard);

/** The data of an answer; errors are thrown as {@link ApiError}. */
export async function got<T>(answer: Promise<{ data?: T }>): Promise<T> {
  return (await answer).data as T;
}

/** Sends a file as it is, telling how much of it has gone (0 to 1). */
export function bring(file: File, progress: (share: number) => void): Promise<Source> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', `/api/sources?name=${encodeURIComponent(file.name)}`);
    request.setRequestHeader('Content-Type', 'application/octet-stream');
    request.setRequestHeader('X-XSRF-TOKEN', csrfToken());
    request.upload.onprogress = (e) => progress(e.total ? e.loaded / e.total : 0);
    request.onerror = () =>
      reject(new ApiError(0, 'offline', 'The file did not arrive: the server does not answer.'));
    request.onload = () => {
      const body = JSON.parse(request.responseText || '{}');
      if (request.status === 201) resolve(body);
      else {
        if (request.status === 401) session.expire();
        reject(
          new ApiError(request.status, body.code ?? 'unknown', body.detail ?? 'It was refused.'),
        );
      }
    };
    request.send(file);
  });
}

const PEEKED_BYTES = 256 * 1024;

/** The first rows of a file that is still on its way; null if its beginning alone tells nothing. */
export async function peekAt(file: File): Promise<Peek | null> {
  const answer = await fetch('/api/sources/peek', {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream', 'X-XSRF-TOKEN': csrfToken() },
    body: file.slice(0, PEEKED_BYTES),
  });
  return answer.ok ? ((await answer.json()) as Peek) : null;
}
