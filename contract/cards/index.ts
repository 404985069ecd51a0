import { type CardRow, cardColumns } from '@porch/core/cards';
import { z } from 'zod';
import { IdSchema, TimeSchema } from '../entries';

/** How often a card was tapped, and how often whoever did wrote nothing within an hour after it. */
export const CardCountSchema = z.object({
  cardId: IdSchema,
  tapped: z.number().int(),
  enough: z.number().int(),
});
export type CardCount = z.infer<typeof CardCountSchema>;

export const CardCountsSchema = z.object({ counts: z.array(CardCountSchema) });
export type CardCounts = z.infer<typeof CardCountsSchema>;

/** More than there may be cards; what stands behind them is not read. */
export const CARD_ROWS_MOST = 300;

/** Rows of a table as they stand there; whoever asked puts them among the cards that are worked on. */
export const CardRowsSchema = z.object({
  rows: z.array(
    z.object({
      row: z.number().int(),
      cells: z.partialRecord(z.enum(cardColumns), z.string()) satisfies z.ZodType<CardRow>,
    }),
  ),
});
export type CardRows = z.infer<typeof CardRowsSchema>;

/** A question that keeps coming and has no card. */
export const CardProposalSchema = z.object({
  question: z.string(),
  /** What was answered to it last; '' where that is not known. */
  answer: z.string(),
  language: z.string(),
  /** In so many conversations. */
  count: z.number().int(),
  /** The newest of them, as they were written. */
  messages: z.array(z.object({ conversationId: IdSchema, text: z.string(), at: TimeSchema })),
});
export type CardProposal = z.infer<typeof CardProposalSchema>;

export const CardProposalsSchema = z.object({ proposals: z.array(CardProposalSchema) });
export type CardProposals = z.infer<typeof CardProposalsSchema>;
