import { createHash } from 'node:crypto';
import { lookup } from 'node:dns';
import { Agent as HttpAgent, request as httpRequest, type IncomingMessage } from 'node:http';
import { Agent as HttpsAgent, request as httpsRequest } from 'node:https';
import { bareOf, LOAD_LARGEST_BYTES, type PushLoad } from '@porch/core/ringing';
import webPush from 'web-push';
import { mayRing, outsideOnly, type Resolve } from './endpoints';
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
const RETRY_AFTER_LONGEST_MS = 3_600_000;
const SOCKETS_OF_A_SERVICE = 16;
/** Nobody reads what a push service says beside its status. */
const ANSWER_LARGEST_BYTES = 4_096;

/** RFC 8030, 5.4: at most 32 letters of base64url. Says nothing of whose conversation it is. */
export const topicOf = (conversationId: string): string =>
  createHash('sha256').update(conversationId).digest('base64url').slice(0, 32);

/** `Retry-After` (RFC 9110, 10.2.3): seconds or a date → milliseconds from `now`; 0 for neither. */
export const retryAfterMs = (said: string | undefined, now: number): number => {
  if (!said) return 0;
  const ms = /^\d+$/.test(said.trim()) ? Number(said) * 1_000 : Date.parse(said) - now;
  return Number.isFinite(ms) ? Math.min(RETRY_AFTER_LONGEST_MS, Math.max(0, ms)) : 0;
};

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

const statusOf = async (answer: IncomingMessage): Promise<number> => {
  let bytes = 0;
  answer.on('error', () => undefined);
  for await (const chunk of answer) {
    bytes += (chunk as Buffer).length;
    if (bytes > ANSWER_LARGEST_BYTES) break;
  }
  return answer.statusCode ?? 0;
};

/** Hands rings to push services. Redirects are not followed: where to send is for the device to say. */
export const createPusher = (services: {
  vapid: Vapid;
  /** Origins that may be sent to though they are not on the open internet: the street's. */
  allowed: readonly string[];
  now: () => number;
  resolve?: Resolve;
}) => {
  const { vapid, allowed, now, resolve = lookup as Resolve } = services;
  const kept = { keepAlive: true, maxSockets: SOCKETS_OF_A_SERVICE, timeout: PUSH_LONGEST_MS };
  const outside = new HttpsAgent({ ...kept, lookup: outsideOnly(resolve) });
  const near = new HttpAgent(kept);

  const answerTo = (
    { method, headers, body, endpoint }: ReturnType<typeof toRequest>,
    signal: AbortSignal,
  ): Promise<IncomingMessage> =>
    new Promise((answered, failed) => {
      const isNear = allowed.includes(new URL(endpoint).origin);
      const isPlain = isNear && endpoint.startsWith('http:');
      const ask = isPlain ? httpRequest : httpsRequest;
      const agent = isPlain ? near : isNear ? undefined : outside;
      const asked = ask(endpoint, { method, headers, agent, signal }, answered);
      asked.on('error', failed);
      asked.end(body);
    });

  return {
    /** Sends one; also where nobody answers it comes back, with what to do next. */
    send: async (push: Push, outer: AbortSignal): Promise<Pushed> => {
      // Names and rules change: what was allowed when a device was added is looked at again.
      if (!mayRing(push.endpoint, allowed)) return { is: 'refused', why: 'push-refused' };
      const authorization = vapid.authorization(new URL(push.endpoint).origin);
      if (authorization === null) return { is: 'refused', why: 'secret-sealed' };
      const signal = AbortSignal.any([outer, AbortSignal.timeout(PUSH_LONGEST_MS)]);
      try {
        const answer = await answerTo(toRequest(push, authorization), signal);
        const retryAfter = answer.headers['retry-after'];
        return meaningOf(await statusOf(answer), retryAfter, now());
      } catch (error) {
        const isInside = (error as Error).message === 'leads-inside';
        if (isInside) return { is: 'refused', why: 'push-refused' };
        return {
          is: 'later',
          why: signal.aborted ? 'push-too-slow' : 'push-unreachable',
          afterMs: 0,
        };
      }
    },
    end: (): void => {
      outside.destroy();
      near.destroy();
    },
  };
};

export type Pusher = ReturnType<typeof createPusher>;
