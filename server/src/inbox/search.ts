import type { SearchPage } from '@porch/contract/line';
import { type Entry, searchableText } from '@porch/core/conversation';
import { queryWords, relevance } from '@porch/core/search';
import { type Store, toRow } from '../store';

/** How many of the newest finds are weighed against each other at a time; older ones follow on the next page. */
export const SEARCH_WINDOW = 100;

/** How many ways of finishing the last word are sought. */
const COMPLETIONS_MOST = 24;

/**
 * Search over everything ever said, by words and by person. The newest finds come first as a
 * window, and within it the most relevant (BM25), one per conversation; the cost is that of the
 * window, whatever the past holds.
 */
export const createSearch = (store: Store, catchUp: () => void) => {
  const sought = (query: readonly string[]) => {
    const last = query[query.length - 1] ?? '';
    const completed = store.search.completions(last, COMPLETIONS_MOST);
    const whole = query.slice(0, -1);
    return {
      each: [...whole.map((word) => [word]), completed.map(({ word }) => word)],
      textsWith: [
        ...whole.map((word) => store.search.textsWith(word)),
        completed.reduce((sum, { texts }) => sum + texts, 0),
      ],
    };
  };

  const weighed = (seqs: readonly number[], query: string[], textsWith: number[]) => {
    const totals = store.search.totals();
    const corpus = { textCount: totals.texts, wordCount: totals.words, textsWith };
    return store.entries
      .bySeqs(seqs)
      .map((entry) => ({ entry, score: relevance(searchableText(entry), query, corpus) }))
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
    for (const { entry } of weighed(seqs, query, textsWith)) {
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
