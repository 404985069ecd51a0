import {
  GRACE_LONGEST_MINUTES,
  HERE_LONGEST_MINUTES,
  lateWays,
  MAIL_AFTER_LONGEST_MINUTES,
  type Promises,
} from '@porch/core/promises';
import { z } from 'zod';

export const PromisesSchema = z.object({
  graceMinutes: z.number().int().min(1).max(GRACE_LONGEST_MINUTES),
  showsUsual: z.boolean(),
  whenLate: z.enum(lateWays),
  mailAfterMinutes: z.number().int().min(0).max(MAIL_AFTER_LONGEST_MINUTES),
  hereMinutes: z.number().int().min(1).max(HERE_LONGEST_MINUTES),
}) satisfies z.ZodType<Promises>;

/** What is promised, and how well it is kept. */
export const PromisesShownSchema = z.object({
  promises: PromisesSchema,
  /** How long an answer usually takes; null: too few to tell. */
  usualMinutes: z.number().nullable(),
  /** Of how many first answers. */
  answers: z.number().int().nonnegative(),
});
export type PromisesShown = z.infer<typeof PromisesShownSchema>;
