import type { HolidayChoice, OpeningHours, Span } from '@porch/core/hours/opening';
import { DAY_MINUTES, dayAfter, isDay, SPELL_LONGEST_DAYS } from '@porch/core/hours/opening';
import { z } from 'zod';
import { IdSchema } from '../entries';

/** How many spans a day may have, and how many days of their own there may be. */
export const SPANS_MOST = 12;
export const SPELLS_MOST = 100;
export { SPELL_LONGEST_DAYS };

export const SpanSchema = z
  .object({
    from: z
      .number()
      .int()
      .min(0)
      .max(DAY_MINUTES - 1),
    to: z
      .number()
      .int()
      .min(1)
      .max(2 * DAY_MINUTES),
  })
  .refine(
    ({ from, to }) => from < to && to <= from + DAY_MINUTES,
    'no longer than a day',
  ) satisfies z.ZodType<Span>;
const SpansSchema = z.array(SpanSchema).max(SPANS_MOST).readonly();

export const WeekSchema = z.array(SpansSchema).length(7).readonly();

export const DaySchema = z.string().refine(isDay, 'a day: 2026-12-24');

const HolidayChoiceSchema = z.union([
  z.enum(['closed', 'usual']),
  SpansSchema,
]) satisfies z.ZodType<HolidayChoice>;

const RegionSchema = z.string().regex(/^[A-Za-z0-9-]{0,20}$/);

export const OpeningHoursSchema = z.object({
  week: WeekSchema,
  holidays: z
    .object({
      country: z.string().regex(/^[A-Z]{2}$/),
      region: RegionSchema,
      others: HolidayChoiceSchema,
      choices: z
        .record(z.string().max(200), HolidayChoiceSchema)
        .refine((choices) => Object.keys(choices).length <= SPELLS_MOST, 'too many'),
    })
    .nullable(),
  spells: z
    .array(
      z
        .object({ from: DaySchema, to: DaySchema, spans: SpansSchema, why: z.string().max(200) })
        .refine(({ from, to }) => from <= to, 'ends before it begins')
        .refine(
          ({ from, to }) => isDay(from) && to < dayAfter(from, SPELL_LONGEST_DAYS),
          'longer than a year',
        ),
    )
    .max(SPELLS_MOST)
    .readonly(),
}) satisfies z.ZodType<OpeningHours>;

export const HolidaySchema = z.object({ day: z.string(), key: z.string(), name: z.string() });

/** The holidays of a place, and into which parts it is divided. */
export const HolidaysAskedSchema = z.object({
  country: z.string().regex(/^[A-Z]{2}$/),
  region: RegionSchema.default(''),
});
export const HolidaysSchema = z.object({
  /** Those of this year and the next. */
  holidays: z.array(HolidaySchema),
  regions: z.array(z.object({ code: z.string(), name: z.string() })),
});
export type Holidays = z.infer<typeof HolidaysSchema>;

/** When the business is open, as its team sets it. */
export const HoursSchema = z.object({
  /** Null: nothing was said; it is always open. */
  house: OpeningHoursSchema.nullable(),
  /** Weeks of the doors that keep their own. */
  doors: z.record(IdSchema, WeekSchema),
  zone: z.string(),
  /** Today, in the business's zone. */
  today: z.string(),
  holidays: z.array(HolidaySchema),
});
export type Hours = z.infer<typeof HoursSchema>;

export const HoursChangeSchema = z.object({ hours: OpeningHoursSchema.nullable() });
export const DoorHoursChangeSchema = z.object({ week: WeekSchema.nullable() });
