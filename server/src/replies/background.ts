import type { Background } from '@porch/core/match';
import type { Store } from '../store';

/** Of few texts it cannot be told which words are everywhere: a new house is taken to have heard so many. */
const ORDINARY_TEXTS = 200;
const COMPLETIONS_MOST = 3;
/** Words of one stem are longer than it by no more. */
const ENDING_LONGEST = 3;

/** What people write otherwise is what the search has: of each stem its commonest word counts, but for the question itself. */
export const backgroundOf = (store: Store): Background => ({
  textCount: Math.max(store.search.totals().texts, ORDINARY_TEXTS),
  textsWith: (stem: string): number =>
    store.search
      .completions(stem, COMPLETIONS_MOST)
      .filter(({ word }) => word.length <= stem.length + ENDING_LONGEST)
      .reduce((most, { texts }) => Math.max(most, texts - 1), 0),
});
