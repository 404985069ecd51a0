import { wayKey } from '@porch/core/contact';
import {
  type Details,
  type Entry,
  emptyThread,
  FOLD_VERSION,
  foldThread,
  type Happening,
  isOfTheWhole,
  type ThreadState,
} from '@porch/core/conversation';
import { nameKey } from '@porch/core/likeness';
import type { Clock } from '../clock';
import type { News } from '../live/hub';
import { type ConversationRecord, type Store, toRow, withThreads, writerKey } from '../store';
import { returningOf } from './due';

export interface Recording {
  id: string;
  happening: Happening;
}

/**
 * What follows from what has just been written: jobs, and what else is to be noted on the same roll. Called
 * inside the transaction.
 */
export type Follow = (
  was: ConversationRecord,
  now: ConversationRecord,
  entries: readonly Entry[],
) => Recording[];

/**
 * Writes what happened in conversations, and keeps the cached folds and the line in step. Call inside a
 * transaction; the search is filled by whoever commits.
 */
export const createRecorder = ({
  store,
  clock,
  follow = () => [],
  keep = () => undefined,
}: {
  store: Store;
  clock: Clock;
  follow?: Follow;
  /** Brings up to date what else is kept of the rolls. */
  keep?: (entries: readonly Entry[]) => void;
}) => {
  /** What they said of themselves by which they are found: ways to reach them, and their name; an empty one is taken back. */
  const keepWays = (threadId: string, at: number, said: Details): void => {
    if (said.name !== undefined) store.likeness.names.write(threadId, nameKey(said.name));
    for (const kind of ['email', 'phone'] as const) {
      const address = said[kind];
      if (address === undefined) continue;
      const country = store.business.read()?.country ?? '';
      const key = address && wayKey(kind, address, country);
      store.ways.keepOnly(threadId, kind, key);
      if (key) store.ways.write({ threadId, kind, key, address, source: 'said', at });
    }
  };

  /** A thread's fold by today's version, from its entries. */
  const foldAnew = (threadId: string, doorId: string): ThreadState => {
    const stays = store.threads.staysOf(threadId);
    const others = stays.flatMap(({ conversationId }) =>
      store.threads.staysIn(conversationId).filter((stay) => stay.threadId !== threadId),
    );
    return store.entries
      .concerning(threadId, stays, others)
      .reduce(foldThread, emptyThread(threadId, doorId));
  };

  /** A conversation as today's fold makes it: from its entries, where it was made by an earlier one. */
  const upToDate = (conversation: ConversationRecord): ConversationRecord =>
    conversation.fold === FOLD_VERSION
      ? conversation
      : withThreads(
          conversation,
          conversation.threads.map(({ threadId, doorId }) => {
            const thread = foldAnew(threadId, doorId);
            keepWays(threadId, thread.lastAt, thread);
            return thread;
          }),
        );

  /** What was written, and the conversation after it. */
  const append = (
    conversation: ConversationRecord,
    threadId: string | null,
    recordings: readonly Recording[],
  ): { entries: Entry[]; next: ConversationRecord } => {
    const at = clock.now();
    const entries = recordings.map(({ id, happening }) => {
      if (threadId && happening.kind === 'details') keepWays(threadId, at, happening);
      return store.entries.append(conversation.id, threadId, id, at, happening);
    });
    keep(entries);
    const threads = conversation.threads.map((thread) => entries.reduce(foldThread, thread));
    return { entries, next: store.conversations.write(withThreads(conversation, threads)) };
  };

  /** Appends to a conversation's roll: what one of its threads said, or what was done with the whole. */
  const add = (
    known: ConversationRecord,
    threadId: string | null,
    recordings: readonly Recording[],
  ): News => {
    const was = upToDate(known);
    const first = append(was, threadId, recordings);
    const comesBack = returningOf(first.next);
    if (comesBack) store.jobs.schedule(comesBack, clock.now());
    const more = follow(was, first.next, first.entries);
    if (more.length === 0) return newsOf(first.next, first.entries);
    const then = append(first.next, null, more);
    return newsOf(then.next, [...first.entries, ...then.entries]);
  };

  /** What a conversation's team and those of its visitors whom it concerns are to hear of entries. */
  const newsOf = (conversation: ConversationRecord, entries: News['entries']): News => ({
    entries,
    row: toRow(conversation),
    told: conversation.threads.flatMap((state) => {
      const theirs = entries.filter(
        ({ threadId, kind }) => threadId === state.threadId || isOfTheWhole(kind),
      );
      const thread = store.threads.byId(state.threadId);
      return theirs.length > 0 && thread
        ? [{ writer: writerKey(thread), state, entries: theirs }]
        : [];
    }),
  });

  return { add, upToDate, foldAnew, newsOf };
};

export type Record = ReturnType<typeof createRecorder>;
