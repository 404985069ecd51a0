import { z } from 'zod';
import { isRightMark, keyedMark } from '../../security/marks';

/** So far apart the gateway's clock and ours may be. */
const TOLERANCE_MS = 5 * 60_000;

/** "t=1764259200,v1=3f…": when it was signed, in seconds, and by HMAC-SHA256 of that, a dot and the body. */
export const isProved = (proof: string, key: string, body: Buffer, now: number): boolean => {
  const [, seconds = '', mark = ''] = /^t=(\d{1,12}),v1=([0-9a-f]{64})$/.exec(proof) ?? [];
  if (Math.abs(now - Number(seconds) * 1_000) > TOLERANCE_MS) return false;
  return isRightMark(Buffer.from(mark, 'hex'), keyedMark('sha256', key, `${seconds}.`, body));
};

const Seconds = z.coerce.number().int().nonnegative();

/** What a gateway hands over, as the fields of a form: a text, or what became of one of ours. */
export const HandedSchema = z.discriminatedUnion('event', [
  z.object({
    event: z.literal('text'),
    id: z.string(),
    from: z.string(),
    text: z.string().default(''),
    at: Seconds,
    /** By what the gateway counts what comes from one number, where it does: its clock knows seconds only. */
    nth: z.coerce.number().int().nonnegative().optional(),
    /** Addresses of pictures, a blank between each two. */
    media: z.string().default(''),
  }),
  z.object({
    event: z.literal('report'),
    id: z.string(),
    status: z.enum(['queued', 'sent', 'delivered', 'failed']),
    reason: z.string().optional(),
  }),
]);

/** What a gateway answers that has taken a text. */
export const TakenSchema = z.object({ id: z.string().min(1) });

export const fieldsOf = (form: string): Record<string, string> =>
  Object.fromEntries(new URLSearchParams(form));

const refusals: Readonly<Record<string, string>> = {
  stopped: 'person-stopped',
  unknown: 'person-unknown',
};

/** What a gateway has against a text, as it says in a form: "error=stopped". */
export const refusalIn = (said: string): string | null =>
  refusals[fieldsOf(said).error ?? ''] ?? null;

/** Words by which somebody says that they want no more texts, or some again, alone in a text (common practice). */
const stopWords = new Set(['stop', 'stopall', 'unsubscribe', 'cancel', 'end', 'quit']);
const startWords = new Set(['start', 'unstop']);

/** Whether a text says to stop, or to start again; null: it says something else. "Stop." → true */
export const stopsBy = (text: string): boolean | null => {
  const word = text
    .trim()
    .replace(/[.!]+$/, '')
    .toLowerCase();
  if (stopWords.has(word)) return true;
  return startWords.has(word) ? false : null;
};
