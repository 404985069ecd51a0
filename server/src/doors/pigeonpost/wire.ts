import { z } from 'zod';
import { isRightMark, keyedMark } from '../../security/marks';
import { readable } from '../network-parts';

/** "sha256=3f…": HMAC-SHA256 of the body. */
export const isSealed = (seal: string, word: string, body: Buffer): boolean => {
  const [, mark = ''] = /^sha256=([0-9a-f]{64})$/.exec(seal) ?? [];
  return isRightMark(Buffer.from(mark, 'hex'), keyedMark('sha256', word, body));
};

const Millis = z.number().int().nonnegative();
const Media = z.object({ id: z.string().regex(/^[\w-]{1,100}$/), name: z.string().default('') });

const letter = { id: z.string(), from: z.string(), at: Millis };

/** A letter, of one of these kinds; of any other only its kind is read. */
const LetterSchema = z.union([
  z.object({ ...letter, kind: z.literal('text'), text: z.string() }),
  z.object({
    ...letter,
    kind: z.enum(['picture', 'file']),
    media: z.array(Media).max(30),
    text: z.string().default(''),
  }),
  z.object({
    ...letter,
    kind: z.literal('place'),
    latitude: z.number(),
    longitude: z.number(),
    called: z.string().default(''),
  }),
  z.object({
    ...letter,
    kind: z.literal('card'),
    name: z.string(),
    number: z.string().default(''),
  }),
  z.object({ ...letter, kind: z.literal('sticker'), shows: z.string().default('') }),
  z.object({ ...letter, kind: z.literal('edit'), of: z.string(), text: z.string() }),
  z.object({ ...letter, kind: z.literal('recall'), of: z.string() }),
  z.object({ ...letter, kind: z.string().max(60) }),
]);
export type Letter = z.infer<typeof LetterSchema>;

/** What the network hands over at a time. */
export const BagSchema = z.object({
  letters: readable(LetterSchema).default([]),
  /** What people call themselves, by their numbers. */
  people: z.record(z.string(), z.string()).default({}),
  ticks: z
    .array(
      z.object({
        letter: z.string(),
        state: z.enum(['sent', 'delivered', 'seen', 'failed']),
        reason: z.string().optional(),
      }),
    )
    .default([]),
  typing: z.array(z.string()).default([]),
});
export type Bag = z.infer<typeof BagSchema>;

export const TakenSchema = z.object({ letter: z.string().min(1) });
