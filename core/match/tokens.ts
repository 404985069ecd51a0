import { bare, languageCalled, spelt } from './stems';

/** A word of a text that says what it is about: its stem, and where it stands in UTF-16 units. */
export interface Token {
  stem: string;
  from: number;
  to: number;
}

const wordForm = /[\p{L}\p{M}\p{N}]+(?:['’][\p{L}\p{M}]+)*/gu;

/** "The fern’s" → "fern": what belongs to somebody is theirs. */
const withoutPossessive = (word: string): string => word.replace(/'s?$/, '');

/** The words of a text that say what it is about. ("Do you deliver to the lake?", "en") → the stems "deliv", "lake". */
export const tokensOf = (text: string, language: string): Token[] => {
  const { stop, stem } = languageCalled(language);
  return [...text.matchAll(wordForm)].flatMap((found) => {
    const word = spelt(found[0]);
    const from = found.index;
    const plain = withoutPossessive(word);
    if (stop.has(word) || stop.has(plain) || stop.has(bare(plain)) || plain.length < 2) return [];
    return [{ stem: stem(plain), from, to: from + found[0].length }];
  });
};
