import type { Entry } from '@porch/core/conversation';
import type { LampSetting } from '@porch/core/lamp';
import { EMAIL_LONGEST, NAME_LONGEST } from '@porch/core/text';
import { z } from 'zod';
import {
  type Counts,
  CountsSchema,
  EntrySchema,
  FILES_MOST,
  IdSchema,
  type Row,
  RowSchema,
  SeqSchema,
  TimeSchema,
  TypedTextSchema,
} from '../entries';
import { PASSWORD_LONGEST } from '../limits';

const password = z.string().max(PASSWORD_LONGEST);
const email = z.string().max(EMAIL_LONGEST * 2);
const line = z.string().max(NAME_LONGEST * 2);

export const SetUpSchema = z.object({
  business: line,
  zone: z.string().max(64),
  name: line,
  email,
  password,
});
export type SetUp = z.infer<typeof SetUpSchema>;

export const SignInSchema = z.object({ email, password });
export type SignIn = z.infer<typeof SignInSchema>;

export const RoleSchema = z.enum(['owner', 'helper']);

export const MemberSchema = z.object({
  id: IdSchema,
  name: z.string(),
  role: RoleSchema,
});
export type Member = z.infer<typeof MemberSchema>;

export const LampSchema = z.discriminatedUnion('state', [
  z.object({ state: z.literal('lit'), until: z.null() }),
  z.object({ state: z.literal('back-soon'), until: TimeSchema }),
  z.object({ state: z.literal('dark'), until: z.null() }),
]) satisfies z.ZodType<LampSetting>;

export const DoorSchema = z.object({
  id: IdSchema,
  /** Public: it stands in the snippet on the business's website. */
  publicId: IdSchema,
  name: z.string(),
  sites: z.array(z.string()),
  snippet: z.string(),
  link: z.string(),
});
export type Door = z.infer<typeof DoorSchema>;

export const SITES_MOST = 20;

export const DoorChangeSchema = z.object({ sites: z.array(z.string().max(400)).max(SITES_MOST) });

export const BusinessSchema = z.object({ name: z.string(), zone: z.string() });
export type Business = z.infer<typeof BusinessSchema>;

export const BusinessChangeSchema = z.object({ name: line, zone: z.string().max(64) });

/** Who is asking, and whether there is a house at all yet. */
export const HouseSchema = z.object({
  isSetUp: z.boolean(),
  me: MemberSchema.nullable(),
  business: BusinessSchema.nullable(),
  team: z.array(MemberSchema),
  doors: z.array(DoorSchema),
  now: TimeSchema,
});
export type House = z.infer<typeof HouseSchema>;

export const LinePageSchema = z.object({
  rows: z.array(RowSchema),
  /** Ask for the next page with this; null at the end. */
  next: z.string().nullable(),
  counts: CountsSchema,
  seq: SeqSchema,
  now: TimeSchema,
});
export type LinePage = z.infer<typeof LinePageSchema>;

export const RollPageSchema = z.object({
  row: RowSchema,
  /** Oldest first. */
  entries: z.array(EntrySchema),
  hasOlder: z.boolean(),
});
export type RollPage = z.infer<typeof RollPageSchema>;

/** What a member may do in a conversation. Each carries an id made on the device. */
export const DeedSchema = z.discriminatedUnion('do', [
  z.object({
    do: z.literal('say'),
    id: IdSchema,
    text: TypedTextSchema,
    fileIds: z.array(IdSchema).max(FILES_MOST),
  }),
  z.object({ do: z.literal('read'), id: IdSchema, upTo: SeqSchema }),
  z.object({ do: z.literal('wrap-up'), id: IdSchema }),
  z.object({ do: z.literal('put-by'), id: IdSchema, until: TimeSchema }),
  z.object({ do: z.literal('take-back'), id: IdSchema }),
]);
export type Deed = z.infer<typeof DeedSchema>;

export const DeedDoneSchema = z.object({ entries: z.array(EntrySchema), row: RowSchema });
export type DeedDone = z.infer<typeof DeedDoneSchema>;

export const SINCE_MOST = 500;

/** Exactly what a client missed. `isTooMuch`: it missed more than is worth replaying; read anew. */
export const SinceSchema = z.object({
  entries: z.array(EntrySchema),
  rows: z.array(RowSchema),
  counts: CountsSchema,
  seq: SeqSchema,
  isTooMuch: z.boolean(),
});
export type Since = z.infer<typeof SinceSchema>;

export const FoundSchema = z.object({
  row: RowSchema,
  entry: EntrySchema,
});

export const SearchPageSchema = z.object({
  found: z.array(FoundSchema),
  next: z.number().int().nullable(),
});
export type SearchPage = z.infer<typeof SearchPageSchema>;

/** Everything that a team's device may send over its socket. */
export const FromTeamSchema = z.discriminatedUnion('do', [
  z.object({ do: z.literal('hello'), since: SeqSchema }),
  z.object({ do: z.literal('typing'), conversationId: IdSchema }),
  z.object({ do: z.literal('has'), seq: SeqSchema }),
  z.object({ do: z.literal('pulse') }),
]);
export type FromTeam = z.infer<typeof FromTeamSchema>;

/** Everything that a team's device may be sent. */
export type ToTeam =
  | ({ say: 'welcome'; now: number; lamp: LampSetting } & Since)
  | { say: 'entries'; entries: Entry[]; rows: Row[]; counts: Counts; seq: number }
  | { say: 'lamp'; lamp: LampSetting; now: number }
  | { say: 'typing'; conversationId: string }
  | { say: 'pulse' }
  | { say: 'signed-out' };
