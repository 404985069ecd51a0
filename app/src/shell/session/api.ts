import { isErrorCode, type Refusal } from '@porch/contract/errors';
import type { FileMention } from '@porch/core/conversation';
import { session } from './gone';
import { ApiError } from './refused';

/** An answer that has not come by then went into a tunnel; it is better asked anew. Not for uploads. */
const ANSWER_LONGEST_MS = 20_000;
const refusalOf = async (response: Response): Promise<Refusal> => {
  const body = (await response.json().catch(() => null)) as Refusal | null;
  if (body && isErrorCode(body.code)) return body;
  // Something between us and the house has answered in its own words: its status is what counts.
  return { code: response.status === 413 ? 'too-large' : 'our-fault' };
};

const ask = async (path: string, init: RequestInit): Promise<Response> => {
  const response = await fetch(path, { credentials: 'same-origin', ...init }).catch(() => null);
  if (!response) throw new ApiError(0, { code: 'our-fault' });
  if (!response.ok) {
    const refusal = await refusalOf(response);
    if (refusal.code === 'sign-in-needed') session.dispatchEvent(new Event('gone'));
    throw new ApiError(response.status, refusal);
  }
  return response;
};

const askSoon = async (path: string, init: RequestInit): Promise<Response> => {
  const patience = new AbortController();
  const timer = setTimeout(() => patience.abort(), ANSWER_LONGEST_MS);
  try {
    return await ask(path, { ...init, signal: patience.signal });
  } finally {
    clearTimeout(timer);
  }
};

const octetHeaders = { 'content-type': 'application/octet-stream' };
const jsonHeaders = { 'content-type': 'application/json' };

/** The server's HTTP interface; throws `ApiError`. What it answers is typed by the contract. */
export const api = {
  get: async <Answer>(path: string): Promise<Answer> => (await askSoon(path, {})).json(),
  send: async <Answer>(method: 'POST' | 'PUT', path: string, body: unknown): Promise<Answer> => {
    const said = { method, headers: jsonHeaders, body: JSON.stringify(body) };
    const response = await askSoon(path, said);
    return (response.status === 204 ? null : await response.json()) as Answer;
  },
  drop: async (path: string): Promise<void> => {
    await askSoon(path, { method: 'DELETE' });
  },
  /** Sends bytes as they are. */
  put: async <Answer>(path: string, bytes: Blob): Promise<Answer> =>
    (await ask(path, { method: 'PUT', headers: octetHeaders, body: bytes })).json(),
  post: async <Answer>(path: string, bytes: Blob): Promise<Answer> =>
    (await ask(path, { method: 'POST', headers: octetHeaders, body: bytes })).json(),
  upload: async (id: string, name: string, bytes: Blob): Promise<FileMention> => {
    const headers = { ...octetHeaders, 'x-file-name': encodeURIComponent(name) };
    return (await ask(`/api/files/${id}`, { method: 'PUT', headers, body: bytes })).json();
  },
};
