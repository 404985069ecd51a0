import { type Entry, searchableText } from '@porch/core/conversation';
import type { Store } from '../store';

/** So far back it is looked for what somebody had changed before. */
const CHANGES_LOOKED_AT = 200;

/** What somebody changed or took back is found by its old words no more. */
const loseChanged = (store: Store, entry: Entry): void => {
  if (entry.kind !== 'visitor-changed' && entry.kind !== 'visitor-withdrew') return;
  const { of, seq, threadId } = entry;
  const before = store.entries.threadBefore(threadId ?? '', seq, CHANGES_LOOKED_AT);
  const changes = before.filter((one) => one.kind === 'visitor-changed' && one.of === of);
  store.search.lose([of, ...changes.map((one) => one.seq)]);
};

/** Makes entries findable. Call in a transaction, in their order. */
export const makeFindable = (store: Store, entries: readonly Entry[]): void => {
  store.search.add(entries.map((entry) => ({ seq: entry.seq, text: searchableText(entry) })));
  for (const entry of entries) loseChanged(store, entry);
};
