import type { LampSetting, Light, LightReason } from '@porch/core/lamp';
import { z } from 'zod';
import { IdSchema, TimeSchema } from '../entries';

/** What the team sets by hand. */
export const LampSchema = z.discriminatedUnion('state', [
  z.object({ state: z.literal('by-hours'), until: z.null() }),
  z.object({ state: z.literal('back-soon'), until: TimeSchema }),
  z.object({ state: z.enum(['lit', 'dark']), until: TimeSchema.nullable() }),
]) satisfies z.ZodType<LampSetting>;

export const LampStateSchema = z.enum(['lit', 'back-soon', 'dark']);

export const LightSchema = z.object({
  state: LampStateSchema,
  until: TimeSchema.nullable(),
}) satisfies z.ZodType<Light>;

const reasons = [
  'hours',
  'hand',
  'nobody-in',
  'nobody-here',
  'no-hours',
] as const satisfies readonly LightReason[];

/** The house's light as the team sees it. */
export const TeamLampSchema = LightSchema.extend({
  why: z.enum(reasons),
  setting: LampSchema,
  /** Opening hours are set; without them only a hand lights it. */
  hasHours: z.boolean(),
  /** Whether it is open by the hours; without any it is not. */
  isOpen: z.boolean(),
  /** When the open time that is now ends; null: it is shut, or no end is in sight. */
  shutsNext: TimeSchema.nullable(),
  /** When it opens next after what is now, and when first from tomorrow on; null: not in sight. */
  opensNext: TimeSchema.nullable(),
  opensTomorrow: TimeSchema.nullable(),
  /** Somebody waits past their patience since then and nobody has looked: should it say "back soon"? */
  ask: z.object({ conversationId: IdSchema, since: TimeSchema }).nullable(),
  /** What was set by hand and has just ended by itself. */
  ended: z.object({ state: z.enum(['lit', 'back-soon', 'dark']), at: TimeSchema }).nullable(),
});
export type TeamLamp = z.infer<typeof TeamLampSchema>;
