import { z } from 'zod';
import { isRightMark, keyedMark } from '../../security/marks';

/** So far apart the exchange's clock and ours may be. */
const TOLERANCE_MS = 5 * 60_000;

/** "<seconds>.<hex of HMAC-SHA256 of the seconds, a dot and the body>". */
export const isProved = (proof: string, word: string, body: Buffer, now: number): boolean => {
  const [, seconds = '', mark = ''] = /^(\d{1,12})\.([0-9a-f]{64})$/.exec(proof) ?? [];
  if (Math.abs(now - Number(seconds) * 1_000) > TOLERANCE_MS) return false;
  return isRightMark(Buffer.from(mark, 'hex'), keyedMark('sha256', word, `${seconds}.`, body));
};

const call = { call: z.string().min(1).max(200), from: z.string().max(40), at: z.number().int() };

/** What an exchange hands over of a call; `from` is '' for whoever keeps their number to themselves. */
export const EventSchema = z.union([
  /** Somebody calls: what is to be done with it? */
  z.object({ ...call, event: z.literal('calls') }),
  /** Nobody came to it, and nothing was spoken. */
  z.object({ ...call, event: z.literal('missed') }),
  /** Something was spoken after the tone. */
  z.object({
    ...call,
    event: z.literal('spoken'),
    seconds: z.number().int().nonnegative(),
    recording: z.url().max(2_000),
    /** What was said, where the exchange writes it down. */
    text: z.string().max(20_000).default(''),
  }),
  z.object({ ...call, event: z.string().max(40) }),
]);
export type CallEvent = z.infer<typeof EventSchema>;

/** What is done with a call. */
export interface CallPlan {
  /** Whom to ring, all at once or one after the other, for so many seconds each. */
  ring: readonly string[];
  order: 'all' | 'in-order';
  seconds: number;
  /** What is said to whoever nobody comes to, before the tone. */
  say: string;
  record: boolean;
}
