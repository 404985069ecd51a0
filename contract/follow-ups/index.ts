import type { FollowUp } from '@porch/core/promises';
import { owings } from '@porch/core/promises';
import { z } from 'zod';
import { IdSchema, RowSchema, TimeSchema } from '../entries';

export const FollowUpSchema = z.object({
  id: IdSchema,
  conversationId: IdSchema,
  why: z.enum(owings),
  what: z.string(),
  dueAt: TimeSchema,
  remindAt: TimeSchema.nullable(),
  whose: IdSchema.nullable(),
  madeAt: TimeSchema,
  doneAt: TimeSchema.nullable(),
  doneBy: IdSchema.nullable(),
}) satisfies z.ZodType<FollowUp>;

/** One of them with the conversation in which it stands now. */
export const OwedSchema = z.object({ followUp: FollowUpSchema, row: RowSchema });
export type OwedShown = z.infer<typeof OwedSchema>;

export const FollowUpsPageSchema = z.object({
  owed: z.array(OwedSchema),
  /** Ask for the next page with this; null at the end. */
  next: z.string().nullable(),
  /** How many are late, up to a hundred. */
  late: z.number().int().nonnegative(),
  /** How many left in thirty days without an answer and without a way to be reached, up to a hundred. */
  missed: z.number().int().nonnegative(),
  now: TimeSchema,
});
export type FollowUpsPage = z.infer<typeof FollowUpsPageSchema>;

/** The address by which a calendar program reads one's follow-ups. It is told once, when it is made. */
export const FeedSchema = z.object({ madeAt: TimeSchema.nullable() });
export type Feed = z.infer<typeof FeedSchema>;
/** Whoever asks for one proves who they are: it is read by whoever has it, without signing in. */
export const MakeFeedSchema = z.object({ password: z.string().max(200) });
export const NewFeedSchema = z.object({ address: z.string() });
export type NewFeed = z.infer<typeof NewFeedSchema>;
