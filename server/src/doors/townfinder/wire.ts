import type { Listed } from '@porch/core/listing';
import type { ListedQuestion } from '@porch/core/listing/questions';
import { z } from 'zod';
import { isRightMark, keyedMark } from '../../security/marks';

/** HMAC-SHA256 of the body, in hex. */
export const isProved = (proof: string, word: string, body: Buffer): boolean =>
  /^[0-9a-f]{64}$/.test(proof) &&
  isRightMark(Buffer.from(proof, 'hex'), keyedMark('sha256', word, body));

const Moment = z.iso.datetime({ offset: true });

/** What happened at a listing: somebody chats, its owner has changed it there, or something that nobody here knows. */
export const EventSchema = z.union([
  z.object({
    kind: z.literal('chat'),
    id: z.string(),
    who: z.object({ id: z.string(), name: z.string().default('') }),
    text: z.string(),
    at: Moment,
  }),
  z.object({ kind: z.literal('changed') }),
  z.object({ kind: z.string().max(60) }),
]);

/** A listing as the network shows it. */
export const ListingSchema = z.object({
  chat: z.boolean(),
  away_until: Moment.nullable(),
  opening_hours: z.string().max(4_000),
});

export const fromListing = (listing: z.infer<typeof ListingSchema>): Listed => ({
  isOn: listing.chat,
  awayUntil: listing.away_until === null ? null : Date.parse(listing.away_until),
  hours: listing.opening_hours,
});

export const toListing = ({ isOn, awayUntil, hours }: Listed): z.infer<typeof ListingSchema> => ({
  chat: isOn,
  away_until: awayUntil === null ? null : new Date(awayUntil).toISOString(),
  opening_hours: hours,
});

/** More than anybody reads; a listing with more is not understood. */
const QUESTIONS_MOST = 200;

/** The questions that a listing answers, in order. */
export const QuestionsSchema = z.object({
  questions: z
    .array(
      z.object({
        id: z.string().min(1).max(200),
        question: z.string().max(2_000),
        answer: z.string().max(20_000),
      }) satisfies z.ZodType<ListedQuestion>,
    )
    .max(QUESTIONS_MOST),
});

export const TakenSchema = z.object({ chat: z.string().min(1) });
