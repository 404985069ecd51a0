import type { LampSetting } from '@porch/core/lamp';
import { z } from 'zod';
import { TimeSchema } from '../entries';

export const LampSchema = z.discriminatedUnion('state', [
  z.object({ state: z.literal('lit'), until: z.null() }),
  z.object({ state: z.literal('back-soon'), until: TimeSchema }),
  z.object({ state: z.literal('dark'), until: z.null() }),
]) satisfies z.ZodType<LampSetting>;
