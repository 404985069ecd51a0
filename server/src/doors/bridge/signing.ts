import { randomBytes } from 'node:crypto';
import { z } from 'zod';
import { isRightMark, keyedMark } from '../../security/marks';

/** What signs and proves between the house and a bridge (Standard Webhooks specification, "Webhook signatures"). */
const PREFIX = 'whsec_';
/** The specification asks for 24 to 64 bytes. */
const SECRET_BYTES = 32;
/** So far apart the two clocks may be, and so old a thing that is handed over. */
const TOLERANCE_MS = 5 * 60_000;
/** So long the key before it is still good, for either side to change theirs without a gap. */
const CHANGING_MS = 24 * 3_600_000;
/** More signatures than this are of no use to anybody. */
const SIGNATURES_MOST = 10;

/** The keys of a door: the one that is good, and the one before it while both are. */
const KeysSchema = z.object({
  key: z.string(),
  before: z.object({ key: z.string(), until: z.number() }).nullable(),
});
export type Keys = z.infer<typeof KeysSchema>;

export const newKey = (): string => `${PREFIX}${randomBytes(SECRET_BYTES).toString('base64')}`;

export const keysToText = (keys: Keys): string => JSON.stringify(keys);

export const keysFrom = (text: string): Keys => KeysSchema.parse(JSON.parse(text));

/** The same keys with another one from now on; the one before it is good for a day. */
export const changedKeys = ({ key }: Keys, next: string, now: number): Keys => ({
  key: next,
  before: { key, until: now + CHANGING_MS },
});

const goodKeys = ({ key, before }: Keys, now: number): string[] =>
  before && before.until > now ? [key, before.key] : [key];

const bytesOf = (key: string): Buffer => Buffer.from(key.replace(PREFIX, ''), 'base64');

const markOf = (key: string, id: string, seconds: string, body: string | Buffer): Buffer =>
  keyedMark('sha256', bytesOf(key), `${id}.${seconds}.`, body);

export type SignedHeaders = Record<
  'webhook-id' | 'webhook-timestamp' | 'webhook-signature',
  string
>;

/** The headers by which whoever has the key knows that a body is ours: one signature for each key that is good. */
export const signed = (keys: Keys, id: string, body: string, now: number): SignedHeaders => {
  const seconds = String(Math.floor(now / 1_000));
  const marks = goodKeys(keys, now).map(
    (key) => `v1,${markOf(key, id, seconds, body).toString('base64')}`,
  );
  return {
    'webhook-id': id,
    'webhook-timestamp': seconds,
    'webhook-signature': marks.join(' '),
  };
};

type Given = Readonly<Record<string, string | string[] | undefined>>;

/**
 * By which id a body was handed over, where one of the signatures is by a key that is good and it was made just now;
 * null where it was not.
 */
export const provenId = (keys: Keys, headers: Given, body: Buffer, now: number): string | null => {
  const [id, seconds, marks] = ['id', 'timestamp', 'signature'].map(
    (name) => headers[`webhook-${name}`],
  );
  if (typeof id !== 'string' || typeof seconds !== 'string' || typeof marks !== 'string')
    return null;
  if (!/^\d{1,12}$/.test(seconds)) return null;
  if (Math.abs(now - Number(seconds) * 1_000) > TOLERANCE_MS) return null;
  const given = marks
    .split(' ', SIGNATURES_MOST)
    .flatMap((mark) => (mark.startsWith('v1,') ? [Buffer.from(mark.slice(3), 'base64')] : []));
  const isRight = goodKeys(keys, now).some((key) => {
    const right = markOf(key, id, seconds, body);
    return given.some((one) => isRightMark(one, right));
  });
  return isRight ? id : null;
};
