import { OWN_WORDS_MOST, WORD_LONGEST } from '@porch/core/writing';
import { z } from 'zod';
import { TypedTextSchema } from '../entries';

/** A text that is looked through, in its language (ISO 639). */
export const LookThroughSchema = z.object({ text: TypedTextSchema, language: z.string().max(3) });
export type LookThrough = z.infer<typeof LookThroughSchema>;

/** Something found in a text that only a dictionary or the network can tell. */
export const FoundSchema = z.object({
  kind: z.enum(['spelling', 'link']),
  from: z.number().int(),
  to: z.number().int(),
  words: z.string(),
  /** What could stand there instead, best first. */
  instead: z.array(z.string()),
});

export const LookedThroughSchema = z.object({
  found: z.array(FoundSchema),
  /** Whether there is a dictionary of the language, and it could be asked. */
  isSpelled: z.boolean(),
});
export type LookedThrough = z.infer<typeof LookedThroughSchema>;

const WordSchema = z.string().min(1).max(WORD_LONGEST);

export const OwnWordsSchema = z.object({ words: z.array(z.string()) });
export type OwnWords = z.infer<typeof OwnWordsSchema>;

export const OwnWordsChangeSchema = z.object({
  add: z.array(WordSchema).max(OWN_WORDS_MOST),
  drop: z.array(WordSchema).max(OWN_WORDS_MOST),
});
export type OwnWordsChange = z.infer<typeof OwnWordsChangeSchema>;
