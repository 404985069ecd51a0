import { THREADS_MOST } from '@porch/core/conversation';
import { likenesses } from '@porch/core/likeness';
import { OWED_LONGEST } from '@porch/core/promises';
import { SHELF_SAID_MOST } from '@porch/core/shelf';
import { z } from 'zod';
import {
  CountsSchema,
  FILES_MOST,
  FileMentionSchema,
  IdSchema,
  KeptEntrySchema,
  PickedSchema,
  RowSchema,
  SeqSchema,
  StepSchema,
  TimeSchema,
  TypedTextSchema,
} from '../entries';

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

/** What is owed, by when, when it rings, and whose it is. */
const owed = {
  what: z.string().max(OWED_LONGEST),
  dueAt: TimeSchema,
  remindAt: TimeSchema.nullable(),
  whose: IdSchema.nullable(),
};

/** What a member may do in a conversation. Each carries an id made on the device. */
export const DeedSchema = z.discriminatedUnion('do', [
  z.object({
    do: z.literal('say'),
    id: IdSchema,
    text: TypedTextSchema,
    fileIds: z.array(IdSchema).max(FILES_MOST),
    /** To which of the conversation's threads; absent: to the one that was written in last. */
    threadId: IdSchema.optional(),
    /** From what it was made, where it was not all typed. */
    picked: PickedSchema.optional(),
    /** What is put in from the shelf, by its ids. */
    shelf: z.array(IdSchema).max(SHELF_SAID_MOST).optional(),
  }),
  z.object({ do: z.literal('read'), id: IdSchema, upTo: SeqSchema }),
  z.object({ do: z.literal('wrap-up'), id: IdSchema }),
  z.object({ do: z.literal('put-by'), id: IdSchema, until: TimeSchema }),
  z.object({ do: z.literal('take-back'), id: IdSchema }),
  /** Something is owed; the deed's id is the follow-up's. */
  z.object({ do: z.literal('owe'), id: IdSchema, ...owed }),
  z.object({ do: z.literal('owe-otherwise'), id: IdSchema, of: IdSchema, ...owed }),
  z.object({ do: z.literal('owe-done'), id: IdSchema, of: IdSchema }),
  z.object({ do: z.literal('owe-again'), id: IdSchema, of: IdSchema }),
  /** Whether a mail that was held back (its entry's id) is of whoever we wrote to. */
  z.object({ do: z.literal('own-mail'), id: IdSchema, of: IdSchema, isTheirs: z.boolean() }),
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

/** What else stood in a mail beside its writer's words: what they answer, and their signature. */
/** Pictures that a mail shows and does not carry, once somebody has asked for them. */
export const PicturesElsewhereSchema = z.object({
  files: z.array(FileMentionSchema),
  /** So many cannot be had. */
  missing: z.number().int(),
});
export type PicturesElsewhere = z.infer<typeof PicturesElsewhereSchema>;

/** Somebody who may be the same person, and why; nobody is joined by it. */
export const AlikeSchema = z.object({ row: RowSchema, reasons: z.array(z.enum(likenesses)) });
export type Alike = z.infer<typeof AlikeSchema>;
export const AlikesSchema = z.object({ alike: z.array(AlikeSchema) });

export const RestSchema = z.object({ text: z.string() });
export type Rest = z.infer<typeof RestSchema>;

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
