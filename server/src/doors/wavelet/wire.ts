import { z } from 'zod';
import { isRightMark, keyedMark } from '../../security/marks';
import { readable } from '../network-parts';

/** HMAC-SHA256 of the body, in base64. */
export const isProved = (proof: string, word: string, body: Buffer): boolean =>
  isRightMark(Buffer.from(proof, 'base64'), keyedMark('sha256', word, body));

/** The network says only that there is something; what it is, is asked for. */
export const NudgeSchema = z.object({ page: z.string().max(200) });

const Moment = z.iso.datetime({ offset: true });
const item = { id: z.string(), at: Moment };
const Writer = z.object({ id: z.string(), name: z.string().default('') });

const ItemSchema = z.union([
  z.object({
    ...item,
    kind: z.literal('message'),
    by: Writer,
    text: z.string().default(''),
    pictures: z.array(z.url()).max(30).default([]),
  }),
  z.object({ ...item, kind: z.literal('rewritten'), of: z.string(), by: Writer, text: z.string() }),
  z.object({ ...item, kind: z.literal('removed'), of: z.string(), by: Writer }),
  z.object({
    ...item,
    kind: z.literal('state'),
    of: z.string(),
    state: z.enum(['delivered', 'seen', 'failed']),
  }),
  // Of a kind that nobody here knows.
  z.object({ ...item, kind: z.string().max(60), by: Writer.optional() }),
]);
export type Item = z.infer<typeof ItemSchema>;

/** One page of what a page of the network has got, oldest first. */
export const FeedSchema = z.object({
  items: readable(ItemSchema),
  next: z.string().max(400),
  more: z.boolean(),
});

export const TakenSchema = z.object({ id: z.string().min(1) });
