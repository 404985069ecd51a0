import { THREADS_MOST } from '@porch/core/conversation';
import type { News } from '../live/hub';
import { Refused } from '../refused';
import {
  type ConversationRecord,
  type Scope,
  type Store,
  type ThreadRecord,
  toRow,
  withThreads,
} from '../store';
import type { Record } from './record';

/** Who puts together or takes apart; nobody, where it was proven. */
type By = string | null;

/**
 * Who is one person. A conversation is one person's roll; its threads are who wrote at which door. Joining and
 * parting move threads, and change nothing that was said: each thread's fold is the same wherever it stands.
 * Each thread has a conversation of its own name, in which it began and to which it goes when it is parted.
 */
export const createPersons = ({ store, record }: { store: Store; record: Record }) => {
  /** The conversation in which what was said under an id stands now; null where there never was one. */
  const standing = (conversationId: string): ConversationRecord | null => {
    const now = store.threads.byId(conversationId)?.conversationId;
    return now ? store.conversations.byId(now) : null;
  };

  const threadsOf = ({ threads }: ConversationRecord, ids: readonly string[]): ThreadRecord[] =>
    ids.map((id) => {
      const isHere = threads.some(({ threadId }) => threadId === id);
      const thread = isHere ? store.threads.byId(id) : null;
      if (!thread) throw new Refused('moved-meanwhile');
      return thread;
    });

  /** Lets threads stand elsewhere from `seq` on. */
  const move = (
    threads: readonly ThreadRecord[],
    from: ConversationRecord,
    to: ConversationRecord,
    seq: number,
  ): { from: ConversationRecord; to: ConversationRecord } => {
    for (const thread of threads) store.threads.move(thread, to.id, seq);
    const goes = (threadId: string) => threads.some(({ id }) => id === threadId);
    const gone = from.threads.filter(({ threadId }) => goes(threadId));
    const stays = from.threads.filter(({ threadId }) => !goes(threadId));
    return {
      from: store.conversations.write(withThreads(from, stays)),
      to: store.conversations.write(withThreads(to, [...to.threads, ...gone])),
    };
  };

  return {
    standing,
    /** Which entries are a conversation's: those of its threads, and what was done while they stood there. */
    scopeOf: ({ threads }: ConversationRecord): Scope => ({
      threadIds: threads.map(({ threadId }) => threadId),
      stays: threads.flatMap(({ threadId }) => store.threads.staysOf(threadId)),
    }),

    /**
     * Everybody of the conversation `from` stands in `into` from now on. Refuses where `from` has nobody any
     * more (somebody else was faster), and where there would be too many. Call inside a transaction.
     */
    join: (
      into: ConversationRecord,
      from: ConversationRecord,
      id: string,
      by: By | 'code',
    ): News[] => {
      if (into.id === from.id || from.threads.length === 0) throw new Refused('moved-meanwhile');
      if (into.threads.length + from.threads.length > THREADS_MOST) {
        throw new Refused('too-many-of-these', { limit: THREADS_MOST });
      }
      const threadIds = from.threads.map(({ threadId }) => threadId);
      const threads = threadsOf(from, threadIds);
      store.likeness.notSame.unsay(into.id, from.id);
      // What is written next is the first that concerns them here.
      const moved = move(
        threads,
        record.upToDate(from),
        record.upToDate(into),
        store.entries.nextSeq(),
      );
      const hand = by === 'code' ? { memberId: null, byCode: true as const } : { memberId: by };
      const happening = { kind: 'joined' as const, ...hand, threadIds, from: from.id };
      return [record.add(moved.to, null, [{ id, happening }])];
    },

    /**
     * Threads go to a conversation of their own: that of the first of them. Where the conversation itself began
     * with one of them, the others go, in order of their ids. Gives the news of both sides. Call inside a transaction.
     */
    part: (
      conversation: ConversationRecord,
      threadIds: readonly string[],
      id: string,
      otherId: string,
      by: By,
      at: number,
    ): News[] => {
      const asked = threadsOf(conversation, [...new Set(threadIds)]);
      const others = conversation.threads.map(({ threadId }) => threadId);
      const rest = others.filter((one) => !asked.some((thread) => thread.id === one));
      if (rest.length === 0) throw new Refused('moved-meanwhile');
      const isBeginning = asked.some((thread) => thread.id === conversation.id);
      const going = isBeginning ? threadsOf(conversation, rest.sort()) : asked;
      const to = store.conversations.byId(going[0]?.id ?? '');
      if (!to) throw new Refused('not-found');
      const moved = move(going, record.upToDate(conversation), to, store.entries.nextSeq());
      const ids = going.map((thread) => thread.id);
      // Who says so of one person is not asked of the same two again.
      store.likeness.notSame.say(conversation.id, to.id, at);
      const parted = { kind: 'parted' as const, memberId: by, threadIds: ids };
      return [
        record.add(moved.from, null, [
          { id, happening: { ...parted, other: to.id, side: 'stays' } },
        ]),
        record.add(moved.to, null, [
          { id: otherId, happening: { ...parted, other: conversation.id, side: 'goes' } },
        ]),
      ];
    },

    /** The row of whatever conversation stands under an id now. */
    rowOf: (conversationId: string) => {
      const conversation = standing(conversationId);
      return conversation && toRow(conversation);
    },
  };
};

export type Persons = ReturnType<typeof createPersons>;
