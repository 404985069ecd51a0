import type { AlertDeed } from '@porch/core/ringing';
import type { AlertData } from './alerts';

const QUARTER_MS = 15 * 60_000;
const HOUR_MS = 60 * 60_000;

/** A request that does what a button of an alert says; done twice it is done once. */
export interface DeedRequest {
  method: 'POST' | 'PUT';
  path: string;
  body: Record<string, unknown>;
  /** In whose line it waits where it cannot go out now; null: it means something only now. */
  lane: string | null;
}

/** What a button asks the server for; null for one that only opens. */
export const requestFor = (
  deed: AlertDeed,
  { ring, talk, whom, shortReply }: AlertData,
  now: number,
): DeedRequest | null => {
  if (deed === 'back-soon') {
    const body = { state: 'back-soon', until: now + QUARTER_MS };
    return { method: 'PUT', path: '/api/lamp', body, lane: null };
  }
  if (talk === null || ring === '') return null;
  const path = `/api/conversations/${talk}/deeds`;
  if (deed === 'short-reply' && shortReply) {
    // The same ring is answered once, however often the button is tapped, on whichever device.
    const to = whom ? { threadId: whom } : {};
    const body = { do: 'say', id: `say-${ring}`, text: shortReply, fileIds: [], ...to };
    return { method: 'POST', path, body, lane: talk };
  }
  if (deed === 'put-by') {
    const body = { do: 'put-by', id: `put-${ring}`, until: now + HOUR_MS };
    return { method: 'POST', path, body, lane: talk };
  }
  return null;
};
