import { z } from 'zod';
import { TimeSchema } from '../entries';

/** What the house does later or outside; each has its words in the app. */
export const jobNames = [
  'return',
  'remind',
  'deliver',
  'push',
  'ring-on',
  'alert-mail',
  'visitor-mail',
  'refusal-mail',
  'held-mail',
  'fetch-file',
  'fetch-files',
  'window-closes',
  'pull',
  'listing',
] as const;
export type JobName = (typeof jobNames)[number];

/** Something that had to happen and was given up. */
export const DeadJobSchema = z.object({
  id: z.number().int().positive(),
  kind: z.string(),
  /** What went wrong, by its code. */
  why: z.string(),
  tries: z.number().int().nonnegative(),
  madeAt: TimeSchema,
  diedAt: TimeSchema,
});
export type DeadJob = z.infer<typeof DeadJobSchema>;

export const DeadJobsSchema = z.object({
  /** The newest first; those before the last one's id are had by asking for them. */
  jobs: z.array(DeadJobSchema),
  count: z.number().int().nonnegative(),
});
export type DeadJobs = z.infer<typeof DeadJobsSchema>;
