import type { SearchPage } from '@porch/contract/line';
import { type Entry, searchableText } from '@porch/core/conversation';
import { isSlipOf } from '@porch/core/match';
import { queryWords, relevance } from '@porch/core/search';
import { type Store, toRow } from '../store';

/** How many of the newest finds are weighed against each other at a time; older ones follow on the next page. */
export const SEARCH_WINDOW = 100;

/** How many ways of finishing a word are sought. */
const COMPLETIONS_MOST = 24;

/** A word in the middle of a query is finished too from so many letters on: "fern wedding" finds ferns. */
const FINISHED_FROM = 3;

/** How many words are sought for one that nobody has written: it may be a slip of the thumb. */
const SLIPS_MOST = 8;

interface Known {
  word: string;
  texts: number;
}

/**
 * Search over everything ever said, by words in any order and by person, slips of the thumb forgiven. The newest finds come first as a
 * window, and within it the most relevant (BM25), one per conversation; the cost is that of the
 * window, whatever the past holds.
 */
export const createSearch = (store: Store, catchUp: () => void) => {
  /** The words that a word of a query stands for, and how many texts have them; the order of a query says nothing. */
  const meantBy = (word: string, isLast: boolean): Known[] => {
    const itself = { word, texts: store.search.textsWith(word) };
    // "a" begins half of all words: only one that may still be typed stands for them.
    const longer =
      isLast || word.length >= FINISHED_FROM
        ? store.search.completions(word, COMPLETIONS_MOST).filter((one) => one.word !== word)
        : [];
    const found = itself.texts > 0 ? [itself, ...longer] : longer;
    if (found.length > 0) return found;
    return store.search
      .aboutAsLong(word)
      .filter((one) => isSlipOf(word, one.word))
      .sort((a, b) => b.texts - a.texts)
      .slice(0, SLIPS_MOST);
  };

  const sought = (query: readonly string[]) => {
    const each = query.map((word, at) => meantBy(word, at === query.length - 1));
    return {
      each: each.map((known) => known.map(({ word }) => word)),
      textsWith: each.map((known) => known.reduce((sum, { texts }) => sum + texts, 0)),
    };
  };

  const weighed = (seqs: readonly number[], each: string[][], textsWith: number[]) => {
    const totals = store.search.totals();
    const corpus = { textCount: totals.texts, wordCount: totals.words, textsWith };
    return store.entries
      .bySeqs(seqs)
      .map((entry) => ({ entry, score: relevance(searchableText(entry), each, corpus) }))
      .sort((a, b) => b.score - a.score || b.entry.seq - a.entry.seq);
  };

  return (typed: string, before: number | null): SearchPage => {
    const query = queryWords(typed);
    if (query.length === 0) return { found: [], next: null };
    // What was said a moment ago is found as well.
    catchUp();
    const { each, textsWith } = sought(query);
    if (each.some((words) => words.length === 0)) return { found: [], next: null };
    const seqs = store.search.newest(each, before ?? Number.MAX_SAFE_INTEGER, SEARCH_WINDOW);
    const best = new Map<string, Entry>();
    for (const { entry } of weighed(seqs, each, textsWith)) {
      if (!best.has(entry.conversationId)) best.set(entry.conversationId, entry);
    }
    const rows = new Map(
      store.conversations.byIds([...best.keys()]).map((one) => [one.id, toRow(one)]),
    );
    const found = [...best.values()].flatMap((entry) => {
      const row = rows.get(entry.conversationId);
      return row ? [{ row, entry }] : [];
    });
    const isFull = seqs.length === SEARCH_WINDOW;
    return { found, next: isFull ? (seqs[seqs.length - 1] ?? null) : null };
  };
};

export type Search = ReturnType<typeof createSearch>;
