import type {
  CallBack,
  ConversationState,
  Entry,
  Group,
  ShelfSaid,
} from '@porch/core/conversation';
import {
  askedFields,
  groups,
  heldBackReasons,
  pickedKinds,
  setAsideReasons,
  steps,
  views,
} from '@porch/core/conversation';
import { FILE_LIMITS } from '@porch/core/files';
import { isId } from '@porch/core/ids';
import { owings } from '@porch/core/promises';
import { shelfKinds } from '@porch/core/shelf';
import { EMAIL_LONGEST, MESSAGE_LONGEST, NAME_LONGEST, PHONE_LONGEST } from '@porch/core/text';
import { z } from 'zod';

export const IdSchema = z.string().refine(isId, 'ten to forty letters, digits, - or _');
export const SeqSchema = z.number().int().nonnegative();
/** Which entry a client has last: its id, beside its seq. Null or absent: it has none, or does not know. */
export const LastSchema = IdSchema.nullable().optional();
export const TimeSchema = z.number().int().nonnegative();
export const GroupSchema = z.enum(groups as [Group, ...Group[]]);

export const PAGE_URL_LONGEST = 2_000;
export const PAGE_TITLE_LONGEST = 200;
export const FILES_MOST = FILE_LIMITS.most;
export const FILE_LARGEST_BYTES = FILE_LIMITS.largestBytes;
export const PICTURE_LONGEST_SIDE = FILE_LIMITS.longestSidePixels;

export const PageSchema = z.object({
  url: z.string().max(PAGE_URL_LONGEST),
  title: z.string().max(PAGE_TITLE_LONGEST),
});

export const FileMentionSchema = z.object({
  id: IdSchema,
  name: z.string(),
  type: z.string(),
  sizeBytes: z.number().int().nonnegative(),
  picture: z.object({ width: z.number().int(), height: z.number().int() }).optional(),
});

/** Twice the length is let through to the handler, so that its refusal can say by how much. */
export const TypedTextSchema = z.string().max(MESSAGE_LONGEST * 2);

export const DetailsSchema = z.object({
  name: z
    .string()
    .max(NAME_LONGEST * 2)
    .optional(),
  email: z
    .string()
    .max(EMAIL_LONGEST * 2)
    .optional(),
  phone: z
    .string()
    .max(PHONE_LONGEST * 2)
    .optional(),
});

const filed = {
  seq: SeqSchema,
  id: IdSchema,
  conversationId: IdSchema,
  threadId: IdSchema.nullable(),
  at: TimeSchema,
};

/** What is owed, by when, and whose it is. */
const owed = {
  what: z.string(),
  dueAt: TimeSchema,
  remindAt: TimeSchema.nullable(),
  whose: IdSchema.nullable(),
};

const said = { text: z.string(), files: z.array(FileMentionSchema) };

/** An answer to one of the owner's own questions, with the question as it was asked. */
const OwnAnswerSchema = z.object({ id: IdSchema, label: z.string(), value: z.string() });

export const StepSchema = z.enum(steps);
export const WaySchema = z.string().max(40);

export const PickedSchema = z.object({ kind: z.enum(pickedKinds), id: IdSchema });

/** Where somebody wants to be called, and when; null: as soon as somebody can. */
export const CallBackSchema = z.object({
  phone: z.string().max(PHONE_LONGEST * 2),
  at: TimeSchema.nullable(),
}) satisfies z.ZodType<CallBack>;

const GreetingSaidSchema = z.object({
  id: IdSchema,
  memberId: IdSchema.nullable(),
});

const TappedSchema = z.object({ card: IdSchema, passedTo: IdSchema.optional() });

const CardSaidSchema = z.object({
  id: IdSchema,
  link: z.string(),
  files: z.array(FileMentionSchema),
  offers: z.array(z.object({ id: IdSchema, question: z.string() })),
  asks: z.object({ field: z.enum(askedFields), label: z.string() }).nullable(),
});

export const ShelfSaidSchema = z.object({
  id: IdSchema,
  kind: z.enum(shelfKinds),
  name: z.string(),
  lines: z.array(z.string()),
  link: z.string(),
  linkWords: z.string(),
  files: z.array(FileMentionSchema),
}) satisfies z.ZodType<ShelfSaid>;

/** An entry in today's shape, exactly. */
export const EntrySchema = z.discriminatedUnion('kind', [
  z.object({
    ...filed,
    ...said,
    kind: z.literal('visitor-said'),
    note: z.boolean(),
    page: PageSchema.nullable(),
    zone: z.string().optional(),
    language: z.string().optional(),
    saidAt: TimeSchema.optional(),
    networkAt: TimeSchema.optional(),
    order: z.number().optional(),
    missing: z.array(z.string()).optional(),
    coming: z.array(z.string()).optional(),
    call: z.object({ seconds: z.number() }).optional(),
    callBack: CallBackSchema.optional(),
    isMail: z.boolean().optional(),
    hasRest: z.boolean().optional(),
    via: z.string().optional(),
    subject: z.string().optional(),
    pictures: z.number().int().optional(),
    setAside: z.enum(setAsideReasons).optional(),
    tapped: TappedSchema.optional(),
  }),
  z.object({
    ...filed,
    kind: z.literal('visitor-changed'),
    of: SeqSchema,
    saidAt: TimeSchema,
    text: z.string(),
  }),
  z.object({
    ...filed,
    kind: z.literal('file-came'),
    of: SeqSchema,
    place: z.number().int().nonnegative(),
    file: FileMentionSchema.nullable(),
    canRetry: z.boolean().optional(),
  }),
  z.object({ ...filed, kind: z.literal('visitor-withdrew'), of: SeqSchema, saidAt: TimeSchema }),
  z.object({
    ...filed,
    ...said,
    kind: z.literal('team-said'),
    memberId: IdSchema,
    way: WaySchema,
    picked: PickedSchema.optional(),
    shelf: z.array(ShelfSaidSchema).optional(),
  }),
  z.object({
    ...filed,
    ...DetailsSchema.shape,
    own: z.array(OwnAnswerSchema).optional(),
    kind: z.literal('details'),
  }),
  z.object({ ...filed, kind: z.literal('waypoint'), page: PageSchema }),
  z.object({ ...filed, kind: z.literal('consented'), text: z.string(), link: z.string() }),
  z.object({ ...filed, kind: z.literal('here') }),
  z.object({ ...filed, kind: z.literal('gone') }),
  z.object({ ...filed, kind: z.literal('visitor-has'), upTo: SeqSchema }),
  z.object({ ...filed, kind: z.literal('visitor-read'), upTo: SeqSchema }),
  z.object({ ...filed, kind: z.literal('team-read'), memberId: IdSchema, upTo: SeqSchema }),
  z.object({ ...filed, kind: z.literal('wrapped-up'), memberId: IdSchema.nullable() }),
  z.object({ ...filed, kind: z.literal('put-by'), memberId: IdSchema, until: TimeSchema }),
  z.object({ ...filed, kind: z.literal('taken-back'), memberId: IdSchema }),
  z.object({ ...filed, kind: z.literal('returned') }),
  z.object({
    ...filed,
    kind: z.literal('joined'),
    memberId: IdSchema.nullable(),
    threadIds: z.array(IdSchema),
    from: IdSchema,
    byCode: z.literal(true).optional(),
  }),
  z.object({
    ...filed,
    kind: z.literal('parted'),
    memberId: IdSchema.nullable(),
    threadIds: z.array(IdSchema),
    other: IdSchema,
    side: z.enum(['stays', 'goes']),
  }),
  z.object({
    ...filed,
    kind: z.literal('receipt'),
    of: SeqSchema,
    step: StepSchema,
    why: z.string().optional(),
  }),
  z.object({
    ...filed,
    kind: z.literal('rang'),
    memberId: IdSchema,
    by: z.enum(['push', 'mail']),
    failed: z.string().optional(),
  }),
  z.object({ ...filed, kind: z.literal('looked'), memberId: IdSchema }),
  z.object({ ...filed, kind: z.literal('turned-soon'), until: TimeSchema }),
  z.object({
    ...filed,
    kind: z.literal('mailed'),
    of: z.array(SeqSchema),
    to: z.string(),
    failed: z.string().optional(),
  }),
  z.object({
    ...filed,
    kind: z.literal('stopped'),
    isStopped: z.boolean(),
    word: z.string(),
  }),
  z.object({ ...filed, kind: z.literal('mail-stopped'), address: z.string() }),
  z.object({
    ...filed,
    kind: z.literal('owed'),
    memberId: IdSchema.nullable(),
    why: z.enum(owings),
    ...owed,
  }),
  z.object({
    ...filed,
    kind: z.literal('owed-changed'),
    of: IdSchema,
    memberId: IdSchema.nullable(),
    ...owed,
  }),
  z.object({
    ...filed,
    kind: z.literal('owed-done'),
    of: IdSchema,
    memberId: IdSchema.nullable(),
  }),
  z.object({ ...filed, kind: z.literal('owed-undone'), of: IdSchema, memberId: IdSchema }),
  z.object({
    ...filed,
    kind: z.literal('door-sign'),
    text: z.string(),
    until: TimeSchema.nullable(),
    isHello: z.boolean().optional(),
    card: CardSaidSchema.optional(),
    greeting: GreetingSaidSchema.optional(),
    isTried: z.boolean().optional(),
    order: z.string().optional(),
  }),
  z.object({
    ...filed,
    kind: z.literal('held-back'),
    why: z.enum(heldBackReasons),
    from: z.string(),
    says: z.string().optional(),
    isVisitors: z.boolean().optional(),
  }),
  z.object({
    ...filed,
    kind: z.literal('held-decided'),
    of: IdSchema,
    memberId: IdSchema,
    isTheirs: z.boolean(),
  }),
  z.object({ ...filed, kind: z.literal('bygone'), was: z.string() }),
]) satisfies z.ZodType<Entry>;

/**
 * An entry on its way out: what was kept is told as it is. It was proved when it came in; to refuse it now
 * would be to lose it, because a later program has learned to ask for more.
 */
export const KeptEntrySchema = z.looseObject({
  ...filed,
  kind: z.string(),
}) as unknown as z.ZodType<Entry>;

/** A conversation's state in today's shape, exactly. */
export const StateSchema = z.object({
  name: z.string(),
  email: z.string(),
  phone: z.string(),
  own: z.array(OwnAnswerSchema),
  hasConsented: z.boolean(),
  aside: z.enum(['wrapped-up', 'put-by']).nullable(),
  putByUntil: TimeSchema.nullable(),
  waitingSince: TimeSchema.nullable(),
  isNote: z.boolean(),
  cameBack: z.boolean(),
  isHere: z.boolean(),
  movedAt: TimeSchema.nullable(),
  page: PageSchema.nullable(),
  zone: z.string(),
  language: z.string(),
  firstAt: TimeSchema,
  lastAt: TimeSchema,
  lastSeq: SeqSchema,
  saidSeq: SeqSchema,
  lastWords: z.string(),
  lastBy: z.enum(['visitor', 'team']).nullable(),
  lastMemberId: IdSchema.nullable(),
  unread: z.array(SeqSchema),
  teamReadSeq: SeqSchema,
  visitorHasSeq: SeqSchema,
  visitorReadSeq: SeqSchema,
  unreached: z.object({ upTo: SeqSchema, why: z.string() }).nullish(),
}) satisfies z.ZodType<ConversationState>;

/** One writer at one door, of whom a conversation may have several. */
export const ThreadSchema = z.object({
  id: IdSchema,
  doorId: IdSchema,
  /** What they called themselves there; '' where they did not. */
  name: z.string(),
  /** Where an answer reaches them by mail; '' where they left none. */
  email: z.string(),
  /** They want no more mails there. */
  isMailStopped: z.boolean(),
  lastAt: TimeSchema,
  /** When they said something last; their network may let them be answered for a while after that only. */
  heardAt: TimeSchema.nullable(),
  /** They want nothing more by this door. */
  isStopped: z.boolean(),
  /** They came to others by a code, which anybody may have read, and nobody has answered them since. */
  isByCode: z.boolean(),
  isHere: z.boolean(),
  movedAt: TimeSchema.nullable(),
  visitorHasSeq: SeqSchema,
  visitorReadSeq: SeqSchema,
});

/** A conversation as the line shows it. Its state goes out as it was kept, for the reason that entries do. */
export const RowSchema = z.object({
  id: IdSchema,
  /** Where it was written last. */
  doorId: IdSchema,
  group: GroupSchema,
  /** Smaller stands higher within the group; see `placeInLine`. */
  place: z.number(),
  /** When an answer is due, counted in open time; null: nothing is owed. */
  dueAt: TimeSchema.nullable(),
  state: z.looseObject({}) as unknown as z.ZodType<ConversationState>,
  /** Who writes, the one that was written with last before the others: an answer goes there. */
  threads: z.array(ThreadSchema),
});
export type Thread = z.infer<typeof ThreadSchema>;
export type Row = z.infer<typeof RowSchema>;

/** Which conversations a line shows. */
export const ViewSchema = z.enum(views);

export const CountsSchema = z.record(GroupSchema, z.number().int().nonnegative());

export type Counts = Record<Group, number>;
