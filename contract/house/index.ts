import { z } from 'zod';
import { DoorSchema, FormerDoorSchema, SightingSchema } from '../doors';
import { IdSchema, TimeSchema } from '../entries';
import { MemberSchema, SignInWarningSchema, TeamMemberSchema } from '../people';
import { ShortTextSchema, TypedEmailSchema } from '../typed';

export const PictureShapeSchema = z.enum(['round', 'square']);
export type PictureShape = z.infer<typeof PictureShapeSchema>;

/** Where of a picture the square lies that is kept, in its own pixels. */
export const CropSchema = z.object({
  left: z.coerce.number().int().min(0).max(20_000),
  top: z.coerce.number().int().min(0).max(20_000),
  side: z.coerce.number().int().min(1).max(20_000),
});
export type Crop = z.infer<typeof CropSchema>;

export const walkSteps = ['business', 'hours', 'website', 'snippet', 'test', 'done'] as const;

export const WalkStepSchema = z.enum(walkSteps);
export type WalkStep = z.infer<typeof WalkStepSchema>;

export const BusinessSchema = z.object({
  name: z.string(),
  zone: z.string(),
  /** ISO 3166-1; phone numbers without a country code belong there. Empty: not said. */
  country: z.string(),
  /** Where visitors may write by mail; empty: nowhere. */
  address: z.string(),
  pictureId: IdSchema.nullable(),
  pictureShape: PictureShapeSchema,
  walkStep: WalkStepSchema,
});
export type Business = z.infer<typeof BusinessSchema>;

export const BusinessChangeSchema = z.object({
  name: ShortTextSchema.optional(),
  zone: z.string().max(64).optional(),
  country: z.string().max(2).optional(),
  address: TypedEmailSchema.optional(),
  pictureShape: PictureShapeSchema.optional(),
  walkStep: WalkStepSchema.optional(),
});
export type BusinessChange = z.infer<typeof BusinessChangeSchema>;

/** What is done of what makes a house ready, as the house itself has seen it. */
export const ChecklistSchema = z.object({
  sightings: z.array(SightingSchema),
  phone: z.boolean(),
  /** The app was opened from a home screen. */
  homeScreen: z.boolean(),
  /** A device of whoever asks was rung, and nothing went wrong since. */
  rings: z.boolean(),
  /** Opening hours are set. */
  hours: z.boolean(),
  /** Mails go out, and answers to them come in. */
  mail: z.boolean(),
  answered: z.boolean(),
  dressed: z.boolean(),
  darkTexts: z.boolean(),
  team: z.boolean(),
});
export type Checklist = z.infer<typeof ChecklistSchema>;

export const TickSchema = z.object({ tick: z.enum(['dark-texts', 'team', 'home-screen']) });

export const ColoursSchema = z.object({ ground: z.string(), accent: z.string() });

/** What the house has found wrong with its own data, or with how it is reached. */
export const FindingSchema = z.object({
  kind: z.enum(['log-damaged', 'secrets-sealed', 'proxy-not-trusted']),
  at: TimeSchema,
  /** For whoever looks after the server. */
  detail: z.string(),
});
export type Finding = z.infer<typeof FindingSchema>;

/** Who is asking, and whether there is a house at all yet. */
export const HouseSchema = z.object({
  isSetUp: z.boolean(),
  me: MemberSchema.nullable(),
  business: BusinessSchema.nullable(),
  team: z.array(TeamMemberSchema),
  doors: z.array(DoorSchema),
  /** Those that were taken away. */
  formerDoors: z.array(FormerDoorSchema),
  /** For owners. */
  checklist: ChecklistSchema.nullable(),
  warning: SignInWarningSchema.nullable(),
  /** For owners. */
  findings: z.array(FindingSchema),
  /** For owners: how many things had to happen and were given up. */
  deadJobs: z.number().int().nonnegative(),
  /** Whether an answer can go out by mail to somebody who has gone, and be answered. */
  canMail: z.boolean(),
  /** False while nothing can be written: a full disk, or one that may only be read. */
  canWrite: z.boolean(),
  now: TimeSchema,
});
export type House = z.infer<typeof HouseSchema>;
