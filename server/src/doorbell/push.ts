import { createHash } from 'node:crypto';
import { bareOf, LOAD_LARGEST_BYTES, type PushLoad } from '@porch/core/ringing';
import webPush from 'web-push';
import { createOutside, LeadsInside, type Resolve } from '../security/outside';
import { retryAfterMs } from '../security/retry-after';
import { mayRing } from './endpoints';
import type { Vapid } from './vapid';

/** RFC 8030, 5.3: how soon a device should be woken for it. */
export type Urgency = 'high' | 'normal' | 'low';

export interface Push {
  endpoint: string;
  keys: { p256dh: string; auth: string };
  load: PushLoad;
  /** How long the push service keeps it for a device that is off (RFC 8030, 5.2). */
  lastsSeconds: number;
  urgency: Urgency;
  /** What takes the place of what; null: nothing does (RFC 8030, 5.4). */
  topic: string | null;
}

/** What a push service made of it. */
export type Pushed =
  | { is: 'taken' }
  /** The device has gone, or does not want to be rung any more. */
  | { is: 'gone' }
  | { is: 'too-large' }
  /** Later, after so long at least. */
  | { is: 'later'; why: string; afterMs: number }
  | { is: 'refused'; why: string };

export const PUSH_LONGEST_MS = 10_000;
/** Nobody reads what a push service says beside its status. */
const ANSWER_LARGEST_BYTES = 4_096;

/** RFC 8030, 5.4: at most 32 letters of base64url. Says nothing of whose conversation it is. */
export const topicOf = (conversationId: string): string =>
  createHash('sha256').update(conversationId).digest('base64url').slice(0, 32);

/** What a status of a push service means (RFC 8030, 5 and 7.3; RFC 8292, 4.2). */
export const meaningOf = (status: number, retryAfter: string | undefined, now: number): Pushed => {
  if (status >= 200 && status < 300) return { is: 'taken' };
  if (status === 404 || status === 410) return { is: 'gone' };
  if (status === 413) return { is: 'too-large' };
  if (status === 429 || status >= 500) {
    const why = status === 429 ? 'push-too-many' : 'push-broken';
    return { is: 'later', why, afterMs: retryAfterMs(retryAfter, now) };
  }
  return { is: 'refused', why: 'push-refused' };
};

/** A request as it will be sent; nothing has been sent yet. */
export const toRequest = ({ endpoint, keys, load, ...how }: Push, authorization: string) => {
  const whole = JSON.stringify(load);
  const isTooLarge = Buffer.byteLength(whole) > LOAD_LARGEST_BYTES;
  const { method, headers, body } = webPush.generateRequestDetails(
    { endpoint, keys },
    isTooLarge ? JSON.stringify(bareOf(load)) : whole,
    {
      TTL: how.lastsSeconds,
      urgency: how.urgency,
      ...(how.topic === null ? {} : { topic: how.topic }),
      contentEncoding: 'aes128gcm',
      // The token is ours to keep: one a push service, not one a ring.
      headers: { Authorization: authorization },
    },
  );
  return { method, headers, body: body ?? Buffer.alloc(0), endpoint };
};

/** Hands rings to push services. */
export const createPusher = (services: {
  vapid: Vapid;
  /** Origins that may be sent to though they are not on the open internet: the street's. */
  allowed: readonly string[];
  now: () => number;
  resolve?: Resolve;
}) => {
  const { vapid, allowed, now, resolve } = services;
  const outside = createOutside({ allowed, resolve });

  return {
    /** Sends one; also where nobody answers it comes back, with what to do next. */
    send: async (push: Push, outer: AbortSignal): Promise<Pushed> => {
      // Names and rules change: what was allowed when a device was added is looked at again.
      if (!mayRing(push.endpoint, allowed)) return { is: 'refused', why: 'push-refused' };
      const authorization = vapid.authorization(new URL(push.endpoint).origin);
      if (authorization === null) return { is: 'refused', why: 'secret-sealed' };
      const signal = AbortSignal.any([outer, AbortSignal.timeout(PUSH_LONGEST_MS)]);
      try {
        const { endpoint: address, ...asked } = toRequest(push, authorization);
        const { status, headers } = await outside.ask({
          ...asked,
          address,
          signal,
          largestBytes: ANSWER_LARGEST_BYTES,
        });
        return meaningOf(status, headers['retry-after'], now());
      } catch (error) {
        if (error instanceof LeadsInside) return { is: 'refused', why: 'push-refused' };
        return {
          is: 'later',
          why: signal.aborted ? 'push-too-slow' : 'push-unreachable',
          afterMs: 0,
        };
      }
    },
    end: outside.end,
  };
};

export type Pusher = ReturnType<typeof createPusher>;
