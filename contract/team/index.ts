import { type Entry, THREADS_MOST } from '@porch/core/conversation';
import type { LampSetting } from '@porch/core/lamp';
import { EMAIL_LONGEST, NAME_LONGEST } from '@porch/core/text';
import { z } from 'zod';
import { DoorHealthSchema } from '../doors';
import {
  type Counts,
  CountsSchema,
  FILES_MOST,
  IdSchema,
  KeptEntrySchema,
  LastSchema,
  type Row,
  RowSchema,
  SeqSchema,
  StepSchema,
  TimeSchema,
  TypedTextSchema,
} from '../entries';
import { LETTER_MOST, PASSWORD_LONGEST } from '../limits';

const password = z.string().max(PASSWORD_LONGEST);
const email = z.string().max(EMAIL_LONGEST * 2);
const line = z.string().max(NAME_LONGEST * 2);

/** On what somebody signs in: the checklist waits for a phone. */
export const DeviceKindSchema = z.enum(['phone', 'computer']);
export type DeviceKind = z.infer<typeof DeviceKindSchema>;

const device = DeviceKindSchema.default('computer');

export const SetUpSchema = z.object({
  /** Printed where the server starts, while nobody has set it up. */
  code: z.string().max(40),
  business: line,
  zone: z.string().max(64),
  name: line,
  email,
  password,
  device,
});
export type SetUp = z.input<typeof SetUpSchema>;

export const SignInSchema = z.object({ email, password, device });
export type SignIn = z.input<typeof SignInSchema>;

export const RoleSchema = z.enum(['owner', 'helper']);
export type Role = z.infer<typeof RoleSchema>;

export const MemberSchema = z.object({
  id: IdSchema,
  name: z.string(),
  role: RoleSchema,
  /** As visitors see them; empty: as they are called. */
  publicName: z.string(),
  pictureId: IdSchema.nullable(),
});
export type Member = z.infer<typeof MemberSchema>;

/** Somebody of the team; who has left stays known for what they said. */
export const TeamMemberSchema = MemberSchema.extend({ email: z.string(), hasLeft: z.boolean() });
export type TeamMember = z.infer<typeof TeamMemberSchema>;

export const MeChangeSchema = z.object({ name: line, publicName: line });
export const PasswordChangeSchema = z.object({ old: password, new: password });
export const RoleChangeSchema = z.object({ role: RoleSchema });

export const LampSchema = z.discriminatedUnion('state', [
  z.object({ state: z.literal('lit'), until: z.null() }),
  z.object({ state: z.literal('back-soon'), until: TimeSchema }),
  z.object({ state: z.literal('dark'), until: z.null() }),
]) satisfies z.ZodType<LampSetting>;

export const DoorSchema = z.object({
  id: IdSchema,
  /** Public: it stands in the snippet on the business's website. */
  publicId: IdSchema,
  /** Of which kind: a website door, or one of a network. */
  kind: z.string(),
  name: z.string(),
  health: DoorHealthSchema,
  /** Of a website door: where it may stand. */
  sites: z.array(z.string()),
  snippet: z.string(),
  link: z.string(),
  /** Whom it concerns: they are shown there and hear its bell. Null: everybody. */
  memberIds: z.array(IdSchema).nullable(),
  isClosed: z.boolean(),
  isDressed: z.boolean(),
});
export type Door = z.infer<typeof DoorSchema>;

export const SITES_MOST = 20;
export const DOORS_MOST = 50;

export const DoorChangeSchema = z.object({
  name: line.optional(),
  sites: z.array(z.string().max(400)).max(SITES_MOST).optional(),
  memberIds: z.array(IdSchema).max(50).nullable().optional(),
  isClosed: z.boolean().optional(),
});
export type DoorChange = z.infer<typeof DoorChangeSchema>;

export const NewDoorSchema = z.object({
  name: line,
  language: z.string().regex(/^[a-z]{2,3}$/),
});

export const PictureShapeSchema = z.enum(['round', 'square']);
export type PictureShape = z.infer<typeof PictureShapeSchema>;

/** Where of a picture the square lies that is kept, in its own pixels. */
export const CropSchema = z.object({
  left: z.coerce.number().int().min(0).max(20_000),
  top: z.coerce.number().int().min(0).max(20_000),
  side: z.coerce.number().int().min(1).max(20_000),
});
export type Crop = z.infer<typeof CropSchema>;

export const walkSteps = ['business', 'website', 'snippet', 'test', 'done'] as const;
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
  name: line.optional(),
  zone: z.string().max(64).optional(),
  country: z.string().max(2).optional(),
  address: email.optional(),
  pictureShape: PictureShapeSchema.optional(),
  walkStep: WalkStepSchema.optional(),
});
export type BusinessChange = z.infer<typeof BusinessChangeSchema>;

/** A website on which a door's snippet was seen alive. */
export const SightingSchema = z.object({
  doorId: IdSchema,
  site: z.string(),
  /** The website's address, with its scheme. */
  origin: z.string(),
  /** The page's path; empty when the page did not say. */
  page: z.string(),
  at: TimeSchema,
  isListed: z.boolean(),
});
export type Sighting = z.infer<typeof SightingSchema>;

/** What is done of what makes a house ready, as the house itself has seen it. */
export const ChecklistSchema = z.object({
  sightings: z.array(SightingSchema),
  phone: z.boolean(),
  answered: z.boolean(),
  dressed: z.boolean(),
  darkTexts: z.boolean(),
  team: z.boolean(),
});
export type Checklist = z.infer<typeof ChecklistSchema>;

export const TickSchema = z.object({ tick: z.enum(['dark-texts', 'team']) });

/** A link by which somebody could still come in, without its secret. */
export const OpenLinkSchema = z.object({
  id: z.string(),
  kind: z.enum(['invite', 'new-password']),
  /** As what an invitation lets in; null for a way to a new password. */
  role: RoleSchema.nullable(),
  /** Whose new password; empty for an invitation. */
  name: z.string(),
  /** Who made it; empty: the command on the server. */
  madeBy: z.string(),
  expiresAt: TimeSchema,
});
export type OpenLink = z.infer<typeof OpenLinkSchema>;

/** One for oneself asks for the password. */
export const NewPasswordLinkSchema = z.object({ password: password.optional() });

/** A link that works once. It is told once, when it is made; only a hash is kept. */
export const OneTimeLinkSchema = z.object({ link: z.string(), expiresAt: TimeSchema });
export type OneTimeLink = z.infer<typeof OneTimeLinkSchema>;

const token = z.string().regex(/^[A-Za-z0-9_-]{20,60}$/);

export const LookAtLinkSchema = z.object({ token });
export const SeenLinkSchema = z.object({
  kind: z.enum(['invite', 'new-password']),
  business: z.string(),
  role: RoleSchema.nullable(),
  name: z.string(),
  expiresAt: TimeSchema,
});
export type SeenLink = z.infer<typeof SeenLinkSchema>;

export const JoinSchema = z.object({ token, name: line, email, password, device });
export type Join = z.input<typeof JoinSchema>;
export const NewPasswordSchema = z.object({ token, password, device });
export type NewPassword = z.input<typeof NewPasswordSchema>;

/** A phone that signs in by a code on a screen that is signed in. */
export const PairingSchema = z.object({
  id: IdSchema,
  state: z.enum(['waiting', 'asking', 'done', 'refused', 'stale']),
  /** What both screens show, once the phone has opened the code. */
  words: z.string(),
  expiresAt: TimeSchema,
});
export type Pairing = z.infer<typeof PairingSchema>;
export const NewPairingSchema = PairingSchema.extend({ link: z.string(), picture: z.string() });
export type NewPairing = z.infer<typeof NewPairingSchema>;
export const AnswerPairingSchema = z.object({ isSame: z.boolean() });
export const CollectSchema = z.object({ state: PairingSchema.shape.state });

export const ColoursSchema = z.object({ ground: z.string(), accent: z.string() });

/** Wrong tries at one's own account from devices that never signed in, since they were last seen. */
export const SignInWarningSchema = z.object({
  failures: z.number().int().positive(),
  lastAt: TimeSchema,
});
export type SignInWarning = z.infer<typeof SignInWarningSchema>;

/** So many wrong tries may be one's own typing; more are told. */
export const WARNED_FROM = 5;

/** What the house has found wrong with its own data. */
export const FindingSchema = z.object({
  kind: z.enum(['log-damaged', 'secrets-sealed']),
  at: TimeSchema,
  /** For whoever looks after the server. */
  detail: z.string(),
});
export type Finding = z.infer<typeof FindingSchema>;

/** What the house does later or outside; each has its words in the app. */
export const jobNames = ['return', 'deliver'] as const;
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

/** Who is asking, and whether there is a house at all yet. */
export const HouseSchema = z.object({
  isSetUp: z.boolean(),
  me: MemberSchema.nullable(),
  business: BusinessSchema.nullable(),
  team: z.array(TeamMemberSchema),
  doors: z.array(DoorSchema),
  /** For owners. */
  checklist: ChecklistSchema.nullable(),
  warning: SignInWarningSchema.nullable(),
  /** For owners. */
  findings: z.array(FindingSchema),
  /** For owners: how many things had to happen and were given up. */
  deadJobs: z.number().int().nonnegative(),
  /** False while nothing can be written: a full disk, or one that may only be read. */
  canWrite: z.boolean(),
  now: TimeSchema,
});
export type House = z.infer<typeof HouseSchema>;

export const LinePageSchema = z.object({
  rows: z.array(RowSchema),
  /** Ask for the next page with this; null at the end. */
  next: z.string().nullable(),
  counts: CountsSchema,
  seq: SeqSchema,
  /** The entry at `seq`; null before there is any. */
  last: IdSchema.nullable(),
  now: TimeSchema,
});
export type LinePage = z.infer<typeof LinePageSchema>;

/** How far an entry has come, as its network says. */
export const ReceiptSchema = z.object({
  seq: SeqSchema,
  step: StepSchema,
  why: z.string().nullable(),
});
export type Receipt = z.infer<typeof ReceiptSchema>;

export const RollPageSchema = z.object({
  row: RowSchema,
  /** Oldest first. */
  entries: z.array(KeptEntrySchema),
  hasOlder: z.boolean(),
  /** How far those of the entries have come that a network carries. */
  receipts: z.array(ReceiptSchema),
});
export type RollPage = z.infer<typeof RollPageSchema>;

/** What a member may do in a conversation. Each carries an id made on the device. */
export const DeedSchema = z.discriminatedUnion('do', [
  z.object({
    do: z.literal('say'),
    id: IdSchema,
    text: TypedTextSchema,
    fileIds: z.array(IdSchema).max(FILES_MOST),
    /** To which of the conversation's threads; absent: to the one that was written in last. */
    threadId: IdSchema.optional(),
  }),
  z.object({ do: z.literal('read'), id: IdSchema, upTo: SeqSchema }),
  z.object({ do: z.literal('wrap-up'), id: IdSchema }),
  z.object({ do: z.literal('put-by'), id: IdSchema, until: TimeSchema }),
  z.object({ do: z.literal('take-back'), id: IdSchema }),
  /** The person of another conversation is the one of this one. */
  z.object({ do: z.literal('join'), id: IdSchema, other: IdSchema }),
  /** Some of the threads are somebody else's. */
  z.object({
    do: z.literal('part'),
    id: IdSchema,
    threadIds: z.array(IdSchema).min(1).max(THREADS_MOST),
  }),
]);
export type Deed = z.infer<typeof DeedSchema>;

/** `rows`: those of other conversations that are others by it. */
export const DeedDoneSchema = z.object({
  entries: z.array(KeptEntrySchema),
  row: RowSchema,
  rows: z.array(RowSchema).optional(),
});
export type DeedDone = z.infer<typeof DeedDoneSchema>;

export const SINCE_MOST = 500;

/** Exactly what a client missed. `isTooMuch`: it missed more than is worth replaying; read anew. */
export const SinceSchema = z.object({
  entries: z.array(KeptEntrySchema),
  rows: z.array(RowSchema),
  counts: CountsSchema,
  seq: SeqSchema,
  /** The entry at `seq`; null before there is any. */
  last: IdSchema.nullable(),
  isTooMuch: z.boolean(),
});
export type Since = z.infer<typeof SinceSchema>;

export const FoundSchema = z.object({
  row: RowSchema,
  entry: KeptEntrySchema,
});

export const SearchPageSchema = z.object({
  found: z.array(FoundSchema),
  next: z.number().int().nullable(),
});
export type SearchPage = z.infer<typeof SearchPageSchema>;

/** Everything that a team's device may send over its socket. */
export const FromTeamSchema = z.discriminatedUnion('do', [
  /** `last` names the entry at `since`: after a restored backup another one may stand there. */
  z.object({ do: z.literal('hello'), since: SeqSchema, last: LastSchema }),
  z.object({ do: z.literal('typing'), conversationId: IdSchema }),
  z.object({ do: z.literal('has'), seq: SeqSchema }),
  z.object({ do: z.literal('pulse') }),
]);
export type FromTeam = z.infer<typeof FromTeamSchema>;

/** What a device says where no socket can be had; the answer is what it is told, in a letter as well. */
export const TeamLetterSchema = z.object({ says: z.array(FromTeamSchema).min(1).max(LETTER_MOST) });
export type TeamLetter = z.infer<typeof TeamLetterSchema>;

/** Everything that a team's device may be sent. */
export type ToTeam =
  | ({
      say: 'welcome';
      now: number;
      lamp: LampSetting;
      /** Another one when something about the house has changed since. */
      houseMark: string;
    } & Since)
  | {
      say: 'entries';
      entries: Entry[];
      rows: Row[];
      counts: Counts;
      seq: number;
      last: string | null;
    }
  | { say: 'lamp'; lamp: LampSetting; now: number }
  | { say: 'typing'; conversationId: string }
  /** Something about the house, its doors or its team is another; read it anew. */
  | { say: 'house' }
  | { say: 'pulse' }
  | { say: 'signed-out' };

export interface LetterToTeam {
  says: ToTeam[];
}
