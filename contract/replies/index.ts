import {
  CODE_LONGEST,
  REPLY_GROUP_LONGEST,
  REPLY_PICTURES_MOST,
  REPLY_TITLE_LONGEST,
} from '@porch/core/replies';
import { SHELF_SAID_MOST } from '@porch/core/shelf';
import { z } from 'zod';
import { FileMentionSchema, IdSchema, TimeSchema, TypedTextSchema } from '../entries';
import { takenSchema } from '../tables';

/** An answer that is stored to be given again. */
export const QuickReplySchema = z.object({
  id: IdSchema,
  /** Whose own it is; null: the team's. */
  memberId: IdSchema.nullable(),
  title: z.string(),
  /** What is typed behind two dots; empty: nothing. */
  code: z.string(),
  /** With its gaps; see core/replies. */
  text: z.string(),
  /** Empty: none. */
  group: z.string(),
  /** ISO 639. */
  language: z.string(),
  pictures: z.array(FileMentionSchema),
  /** What of the shelf goes with it. */
  shelf: z.array(z.object({ id: IdSchema, name: z.string() })),
  revision: z.number().int(),
  changedAt: TimeSchema,
  usedCount: z.number().int(),
  usedAt: TimeSchema.nullable(),
});
export type QuickReply = z.infer<typeof QuickReplySchema>;

export const QuickRepliesSchema = z.object({
  /** Ask with it the next time: what has not changed is not sent again. */
  mark: z.string(),
  /** Null: as they were at the mark that was asked with. */
  replies: z.array(QuickReplySchema).nullable(),
});
export type QuickReplies = z.infer<typeof QuickRepliesSchema>;

/** Something stored, or answered before, that fits what somebody has said. */
export const FitSchema = z.object({
  kind: z.enum(['reply', 'card', 'answer']),
  id: IdSchema,
  /** Of an answer that was given: what was asked. */
  title: z.string(),
  text: z.string(),
  language: z.string(),
  /** Words of it that what was said has too, as they stand there. */
  words: z.array(z.string()),
});
export type Fit = z.infer<typeof FitSchema>;
export const FitsSchema = z.object({ fits: z.array(FitSchema) });
export type Fits = z.infer<typeof FitsSchema>;

/** Twice as long as it may be, so that its excess can be told. */
const line = (longest: number) => z.string().max(longest * 2);

export const QuickReplyChangeSchema = z.object({
  /** On which it builds; 0: it is new. */
  revision: z.number().int().min(0),
  isOwn: z.boolean(),
  title: line(REPLY_TITLE_LONGEST),
  code: line(CODE_LONGEST),
  text: TypedTextSchema,
  group: line(REPLY_GROUP_LONGEST),
  language: z.string().max(3),
  fileIds: z.array(IdSchema).max(REPLY_PICTURES_MOST),
  shelfIds: z.array(IdSchema).max(SHELF_SAID_MOST).default([]),
});
export type QuickReplyChange = z.infer<typeof QuickReplyChangeSchema>;

export const tableForms = ['csv', 'json'] as const;
export const TableFormSchema = z.object({ as: z.enum(tableForms) });

/** Why a row of a table was not taken. */
export const rowRefusals = [
  'text-empty',
  'text-too-long',
  'title-too-long',
  'short-code-taken',
  'too-many-of-these',
  'not-a-row',
] as const;

export const TakenInSchema = takenSchema(rowRefusals);
export type TakenIn = z.infer<typeof TakenInSchema>;
