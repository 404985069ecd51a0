/** Okapi BM25's free parameters as SQLite FTS5 fixes them (documentation of FTS5, section "The bm25() function"). */
const K1 = 1.2;
const B = 0.75;

const wordForm = /[\p{L}\p{N}\p{Co}]+/gu;

/** Text of ASCII alone has no marks on its letters. */
const withoutMarks = (text: string): string =>
  /^[\n -~]*$/.test(text) ? text : text.normalize('NFD').replace(/\p{Mn}/gu, '');

/** The words that a search finds, in the manner of FTS5's unicode61 with diacritics removed. "Café n°5" → ["cafe", "n", "5"]. */
export const wordsOf = (text: string): string[] =>
  (withoutMarks(text).toLowerCase().match(wordForm) ?? []) as string[];

export const SEARCH_WORDS_MOST = 8;

/** The words of a query, each of which must be in what is found. */
export const queryWords = (query: string): string[] =>
  wordsOf(query.slice(0, 200)).slice(0, SEARCH_WORDS_MOST);

export interface Corpus {
  /** How many texts there are. */
  textCount: number;
  /** How many words they have altogether. */
  wordCount: number;
  /** For each word of the query, how many texts have it. */
  textsWith: readonly number[];
}

/** Robertson and Zaragoza's weight of a word; FTS5 floors it so that a very common word never counts against. */
const weight = (textCount: number, textsWith: number): number =>
  Math.max(1e-6, Math.log((textCount - textsWith + 0.5) / (textsWith + 0.5)));

const occurrences = (words: readonly string[], sought: readonly string[]): number =>
  words.filter((word) => sought.includes(word)).length;

/**
 * How well a text answers a query: BM25, larger is better (FTS5 reports the same figure negated).
 * `query`: for each of its words those that count as it, as it was typed half or with a slip. A text without them → 0.
 */
export const relevance = (
  text: string,
  query: readonly (readonly string[])[],
  corpus: Corpus,
): number => {
  const words = wordsOf(text);
  const averageLength = corpus.textCount > 0 ? corpus.wordCount / corpus.textCount : 1;
  const lengthShare = 1 - B + (B * words.length) / (averageLength || 1);
  return query.reduce((score, sought, index) => {
    const count = occurrences(words, sought);
    const textsWith = Math.min(corpus.textCount, corpus.textsWith[index] ?? 0);
    const idf = weight(corpus.textCount, textsWith);
    return score + (idf * (count * (K1 + 1))) / (count + K1 * lengthShare);
  }, 0);
};
