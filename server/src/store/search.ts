import { wordsOf } from '@porch/core/search';
import type { Db } from './db';

export interface SearchTotals {
  texts: number;
  words: number;
}

const quoted = (word: string): string => `"${word.replaceAll('"', '""')}"`;

/** The full-text index. Its words are cut by `core/search` before they reach it, so that both agree. */
export const searchTable = (db: Db) => {
  const add = db.prepare('INSERT INTO words (rowid, text) VALUES (?, ?)');
  const lose = db.prepare('DELETE FROM words WHERE rowid = ?');
  const addWord = db.prepare(
    `INSERT INTO vocabulary VALUES (?, ?)
     ON CONFLICT DO UPDATE SET texts = texts + excluded.texts`,
  );
  const addTotals = db.prepare('UPDATE search_totals SET texts = texts + ?, words = words + ?');
  const totals = db.prepare<[], SearchTotals>('SELECT texts, words FROM search_totals');
  const completions = db.prepare<[string, string, number], { word: string; texts: number }>(
    `SELECT word, texts FROM (
       SELECT word, texts FROM vocabulary WHERE word >= ? AND word < ? LIMIT 2000
     ) ORDER BY texts DESC, word LIMIT ?`,
  );
  const likeIt = db.prepare<[string, string, number, number], { word: string; texts: number }>(
    `SELECT word, texts FROM vocabulary
     WHERE word >= ? AND word < ? AND length(word) BETWEEN ? AND ? LIMIT 5000`,
  );
  const textsWith = db.prepare<[string], { texts: number }>(
    'SELECT texts FROM vocabulary WHERE word = ?',
  );
  const newest = db.prepare<[string, number, number], { seq: number }>(
    'SELECT rowid AS seq FROM words WHERE words MATCH ? AND rowid < ? ORDER BY rowid DESC LIMIT ?',
  );
  return {
    /** Makes texts findable; what they have in common is counted once for all of them. */
    add: (texts: readonly { seq: number; text: string }[]): void => {
      const textsWithWord = new Map<string, number>();
      let textCount = 0;
      let wordCount = 0;
      for (const { seq, text } of texts) {
        const words = wordsOf(text);
        if (words.length === 0) continue;
        add.run(seq, words.join(' '));
        textCount += 1;
        wordCount += words.length;
        for (const word of new Set(words)) {
          textsWithWord.set(word, (textsWithWord.get(word) ?? 0) + 1);
        }
      }
      if (textCount === 0) return;
      for (const [word, count] of textsWithWord) addWord.run(word, count);
      addTotals.run(textCount, wordCount);
    },
    /** Finds these no more. How common their words are is not reckoned anew. */
    lose: (seqs: readonly number[]): void => {
      for (const seq of seqs) lose.run(seq);
    },
    totals: (): SearchTotals => totals.get() ?? { texts: 0, words: 0 },
    /** The known words that begin so, the commonest first, sought among the first 2,000. */
    completions: (start: string, most: number) =>
      completions.all(start, `${start}\u{10FFFF}`, most),
    /** Known words that begin with the same letter and are about as long, at most 5,000 of them. */
    aboutAsLong: (word: string) => {
      const [first = ''] = word;
      return likeIt.all(first, `${first}\u{10FFFF}`, word.length - 1, word.length + 1);
    },
    textsWith: (word: string): number => textsWith.get(word)?.texts ?? 0,
    /** Seqs of the newest texts before `before` that have one of each list's words. */
    newest: (each: readonly (readonly string[])[], before: number, most: number): number[] => {
      const query = each.map((words) => `(${words.map(quoted).join(' OR ')})`).join(' AND ');
      return newest.all(query, before, most).map((row) => row.seq);
    },
  };
};
