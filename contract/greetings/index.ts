import { z } from 'zod';
import { IdSchema } from '../entries';

/** How often a greeting was seen, and how often whoever saw it wrote. */
export const GreetingCountSchema = z.object({
  greetingId: IdSchema,
  seen: z.number().int(),
  answered: z.number().int(),
});
export type GreetingCount = z.infer<typeof GreetingCountSchema>;

export const GreetingCountsSchema = z.object({ counts: z.array(GreetingCountSchema) });
export type GreetingCounts = z.infer<typeof GreetingCountsSchema>;
