import type { BridgeIn } from '@porch/contract/bridge';
import { cardInWords, joinedWords, kindInWords, placeInWords } from '../parts-in-words';

type Part = NonNullable<Extract<BridgeIn, { type: 'message' }>['data']['parts']>[number];

const partInWords = (part: Part): string => {
  if ('latitude' in part) return placeInWords(part.latitude, part.longitude, part.text);
  if ('name' in part) return cardInWords(part.name, part.phone, part.email);
  return kindInWords(part.kind, part.text);
};

/** What somebody said, and what was in it besides, as text: a place, a contact, a kind that nobody here knows. */
export const wordsOf = (text: string, parts: readonly Part[]): string =>
  joinedWords(text, ...parts.map(partInWords));
