import { inAlphabet, septetsOf } from './alphabet';

export { inAlphabet } from './alphabet';

/** Places in a text message: alone, and in each part of several (3GPP TS 23.038, 4; TS 23.040, 9.2.3.24.1). */
const ROOM = {
  alphabet: { alone: 160, part: 153 },
  unicode: { alone: 70, part: 67 },
} as const;

export type Encoding = keyof typeof ROOM;

/** A character that is not in the alphabet, and what stands for it there; null: nothing does. */
export interface Costly {
  character: string;
  instead: string | null;
}

/** What a text comes to as a text message. */
export interface Segments {
  encoding: Encoding;
  /** How many are sent, and paid; 0: there is nothing to send. */
  count: number;
  /** Places that are left in the last of them. */
  left: number;
  /** What makes it Unicode, each once, in the order of the text. */
  costly: readonly Costly[];
  /** How many it would be with what stands in the alphabet for each of those; null: there is nothing for one of them. */
  countInstead: number | null;
}

/** How many parts characters of these widths fill, none of them broken in two, and the room in the last. */
const packed = (widths: readonly number[], encoding: Encoding): { count: number; left: number } => {
  const { alone, part } = ROOM[encoding];
  const all = widths.reduce((sum, width) => sum + width, 0);
  if (all === 0) return { count: 0, left: alone };
  if (all <= alone) return { count: 1, left: alone - all };
  let count = 1;
  let used = 0;
  for (const width of widths) {
    if (used + width > part) {
      count += 1;
      used = 0;
    }
    used += width;
  }
  return { count, left: part - used };
};

const costlyIn = (characters: readonly string[]): Costly[] =>
  [...new Set(characters.filter((character) => septetsOf(character) === 0))].map((character) => ({
    character,
    instead: inAlphabet(character),
  }));

/**
 * The text with what stands in the alphabet for each character that is not in it; what nothing stands for is left.
 * "Today’s fern …" → "Today's fern ..."
 */
export const toAlphabet = (text: string): string =>
  [...text.normalize('NFC')].map((character) => inAlphabet(character) ?? character).join('');

/**
 * How many text messages a text is: by the alphabet of text messages where all of it is in that, by Unicode (UTF-16
 * units) otherwise. Source: 3GPP TS 23.038. "Hello" → 1 of 160, 155 left.
 */
export const segmentsOf = (text: string): Segments => {
  const characters = [...text.normalize('NFC')];
  const costly = costlyIn(characters);
  if (costly.length === 0) {
    return {
      encoding: 'alphabet',
      ...packed(characters.map(septetsOf), 'alphabet'),
      costly,
      countInstead: null,
    };
  }
  const canBe = costly.every(({ instead }) => instead !== null);
  const other = [...toAlphabet(text)].map(septetsOf);
  return {
    encoding: 'unicode',
    ...packed(
      characters.map(({ length }) => length),
      'unicode',
    ),
    costly,
    countInstead: canBe ? packed(other, 'alphabet').count : null,
  };
};
