import { z } from 'zod';
import { isRightMark, keyedMark } from '../../security/marks';
import { readable } from '../network-parts';

/** So far apart the network's clock and ours may be. */
const TOLERANCE_MS = 5 * 60_000;

/** HMAC-SHA512 of when it was made, a line's end and the body, in base64; and when, as RFC 3339 has it. */
export const isMarked = (
  { time, mark }: { time: string; mark: string },
  word: string,
  body: Buffer,
  now: number,
): boolean => {
  const agoMs = Math.abs(now - Date.parse(time));
  if (!(agoMs <= TOLERANCE_MS)) return false;
  return isRightMark(Buffer.from(mark, 'base64'), keyedMark('sha512', word, `${time}\n`, body));
};

const Moment = z.iso.datetime({ offset: true });
const Who = z.object({
  id: z.string(),
  name: z.string().default(''),
  handle: z.string().default(''),
});

const event = { id: z.string(), who: Who, at: Moment };

/** What happened on the network. */
const EventSchema = z.union([
  z.object({
    ...event,
    type: z.literal('direct'),
    text: z.string().default(''),
    pictures: z.array(z.url()).max(30).default([]),
  }),
  z.object({ ...event, type: z.literal('heart'), of: z.string() }),
  z.object({ ...event, type: z.literal('unsent'), of: z.string() }),
  z.object({
    type: z.literal('reached'),
    of: z.string(),
    how: z.enum(['delivered', 'opened', 'failed']),
  }),
  z.object({ ...event, type: z.string().max(60) }),
]);
export type TintypeEvent = z.infer<typeof EventSchema>;

export const EventsSchema = z.object({ events: readable(EventSchema) });

/** RFC 6749, 5.1: a token, and for how many seconds it is good. */
export const TokenSchema = z.object({
  access_token: z.string().min(1).max(2_000),
  expires_in: z.number().positive().max(86_400),
});

export const TakenSchema = z.object({ direct: z.string().min(1) });
