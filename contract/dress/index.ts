import type { Cards } from '@porch/core/cards';
import { askedFields } from '@porch/core/conversation';
import {
  answerManners,
  closedManners,
  type Dress,
  linkGlyphs,
  panelSizes,
  phonePlates,
  plateShapes,
  textSizes,
  typefaces,
} from '@porch/core/dress';
import { z } from 'zod';
import { IdSchema, TimeSchema } from '../entries';
import { LampStateSchema } from '../lamp';

/** Wide bounds for the wire; what is too long for a screen is told field by field by the handler. */
const typed = z.string().max(20_000);
const short = z.string().max(2_000);
const many = <Schema extends z.ZodType>(schema: Schema) => z.array(schema).max(300);

const ChoosingSchema = z.object({
  mode: z.enum(['all', 'only', 'except']),
  these: many(short),
});

const GuestBookPageSchema = z.object({
  when: z.enum(['before', 'after', 'never']),
  asks: many(z.object({ field: short, isRequired: z.boolean() })),
});

const LeadsSchema = z.discriminatedUnion('to', [
  z.object({ to: z.literal('end') }),
  z.object({ to: z.literal('cards'), ids: many(IdSchema) }),
  z.object({
    to: z.literal('ask'),
    asks: z.object({ field: z.enum(askedFields), label: short }),
    next: IdSchema.nullable(),
  }),
  z.object({ to: z.literal('pass'), memberId: IdSchema }),
]);

export const CardSchema = z.object({
  id: IdSchema,
  language: z.string().regex(/^[a-z]{2,3}$/),
  question: short,
  answer: typed,
  link: short,
  pictureIds: z.array(IdSchema).max(20),
  leads: LeadsSchema,
});

/** Things that are known by an id, each once. */
const each = <Schema extends z.ZodType<{ id: string }>>(schema: Schema) =>
  many(schema).refine(
    (all) => new Set(all.map(({ id }) => id)).size === all.length,
    'one of them is there twice',
  );

const CardsSchema = z.object({
  cards: each(CardSchema),
  first: each(z.object({ id: IdSchema, states: z.array(LampStateSchema).max(3) })),
}) satisfies z.ZodType<Cards>;

export const DressSchema = z.object({
  look: z.object({
    ground: short,
    accent: short,
    side: z.enum(['left', 'right']),
    sidePx: z.number(),
    bottomPx: z.number(),
    plate: z.enum(plateShapes),
    face: z.enum(['picture', 'initials', 'none']),
    textSize: z.enum(textSizes),
    // What came later has a default: a page of before, still open somewhere, does not send it.
    type: z.enum(typefaces).default('plain'),
    panel: z.enum(panelSizes).default('usual'),
    onPhones: z.enum(phonePlates).default('small'),
  }),
  people: z.enum(['team', 'business']),
  fallback: z.string().regex(/^[a-z]{2,3}$/),
  texts: z.record(short, z.record(short, typed)),
  where: z.object({
    pages: ChoosingSchema,
    countries: ChoosingSchema,
    onSmallScreens: z.boolean(),
    manners: many(
      z.object({
        pattern: short,
        manner: z.enum(['quiet', 'peek', 'open']),
        afterSeconds: z.number(),
      }),
    ),
  }),
  guestBook: z.object({
    lit: GuestBookPageSchema,
    notLit: GuestBookPageSchema,
    own: many(
      z.object({
        id: IdSchema,
        kind: z.enum(['text', 'choice', 'tick']),
        label: short,
        choices: many(short),
      }),
    ),
  }),
  consent: z.object({ isAsked: z.boolean(), link: short }),
  links: many(
    z.object({ id: IdSchema, glyph: z.enum(linkGlyphs), label: short, url: short }),
  ).default([]),
  onAnswer: z.enum(answerManners).default('count'),
  whenNotLit: z.enum(closedManners).default('note'),
  callBack: z.boolean().default(false),
  hello: z
    .object({
      isOn: z.boolean(),
      days: z.array(z.number().int().min(0).max(6)).max(7),
      from: z.number().int().min(0).max(1_439),
      to: z.number().int().min(0).max(1_439),
    })
    .default({ isOn: false, days: [], from: 0, to: 0 }),
  asked: CardsSchema.default({ cards: [], first: [] }),
  greetings: each(
    z.object({
      id: IdSchema,
      isOn: z.boolean(),
      text: typed,
      language: z.string().regex(/^[a-z]{2,3}$/),
      memberId: IdSchema.nullable(),
      pages: many(short),
      afterSeconds: z.number(),
      visits: z.object({ least: z.number(), most: z.number().nullable() }),
      cameFrom: many(short),
      whileNotLit: z.boolean(),
    }),
  ).default([]),
}) satisfies z.ZodType<Dress>;

/** How a door is dressed, and what is being tried on it. */
export const DressedSchema = z.object({
  /** What is being worked on; the published one when nothing is. */
  draft: DressSchema,
  published: DressSchema,
  isDraft: z.boolean(),
  /** Grows with every change; a save says on which it builds. */
  revision: z.number().int(),
  version: z.number().int(),
  publishedAt: TimeSchema,
  changedBy: z.string(),
  canUndo: z.boolean(),
});
export type Dressed = z.infer<typeof DressedSchema>;

export const DraftSchema = z.object({
  revision: z.number().int().nonnegative(),
  dress: DressSchema,
});
export const RevisionSchema = DraftSchema.pick({ revision: true });

/** What is tried: the draft as it is, or one greeting of it, on or off. */
export const TrialAskedSchema = z.object({ greeting: IdSchema.optional() });

export const TrialSchema = z.object({ token: z.string(), url: z.string() });
export type Trial = z.infer<typeof TrialSchema>;
