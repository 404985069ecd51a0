import { LINE_PAGE, ROLL_PAGE } from '@porch/contract/limits';
import {
  type LinePage,
  type Rest,
  type RollPage,
  SINCE_MOST,
  type Since,
} from '@porch/contract/line';
import type { Entry, Group, View } from '@porch/core/conversation';
import { fromLineMark, type LineKey, toLineMark } from '@porch/core/patience';
import type { Clock } from '../clock';
import { Refused } from '../refused';
import { type Store, toRow } from '../store';
import type { Persons } from './persons';

const toKey = (text: string): LineKey => {
  const key = fromLineMark(text);
  if (!key) throw new Refused('bad-request', { field: 'after' });
  return key;
};

/** Reading the line and a roll, a page at a time; no query here grows with the past. */
export const createLine = (services: { store: Store; clock: Clock; persons: Persons }) => {
  const { store, clock, persons } = services;
  const upToNow = () => {
    const newest = store.entries.newest();
    return { seq: newest?.seq ?? 0, last: newest?.id ?? null };
  };

  /** Whether what a device has last stands where it had it: after a restored backup it may not. */
  const isKnown = (seq: number, last: string | null): boolean =>
    seq === 0 || last === null || store.entries.bySeq(seq)?.id === last;

  return {
    page: (group: Group, after: string | null, view: View = 'all'): LinePage => {
      const key = after ? toKey(after) : null;
      const found = store.conversations.page(group, key, LINE_PAGE + 1, view);
      const rows = found.slice(0, LINE_PAGE).map(toRow);
      const last = rows[rows.length - 1];
      const next = found.length > LINE_PAGE && last ? toLineMark(last) : null;
      return {
        rows,
        next,
        counts: store.conversations.counts(view),
        ...upToNow(),
        now: clock.now(),
      };
    },

    roll: (conversationId: string, before: number | null): RollPage => {
      const conversation = persons.standing(conversationId);
      if (!conversation) throw new Refused('not-found');
      const end = before ?? Number.MAX_SAFE_INTEGER;
      const found = store.entries.rollBefore(persons.scopeOf(conversation), end, ROLL_PAGE + 1);
      return {
        row: toRow(conversation),
        entries: found
          .slice(-ROLL_PAGE)
          .map((entry) => ({ ...entry, conversationId: conversation.id })),
        hasOlder: found.length > ROLL_PAGE,
        receipts: store.deliveries
          .bySeqs(found.flatMap(({ kind, seq }) => (kind === 'team-said' ? [seq] : [])))
          .map(({ seq, step, why }) => ({ seq, step, why })),
      };
    },

    /** What else stood in the mail that an entry came in; '' where nothing did. */
    rest: (conversationId: string, entryId: string): Rest => {
      const conversation = persons.standing(conversationId);
      if (!conversation) throw new Refused('not-found');
      const texts = conversation.threads.map(({ threadId }) =>
        store.heldMails.rest(threadId, entryId),
      );
      return { text: texts.find(Boolean) ?? '' };
    },

    /** One entry of a conversation. */
    entry: (conversationId: string, entryId: string): Entry => {
      const conversation = persons.standing(conversationId);
      const entry = conversation && store.entries.within(persons.scopeOf(conversation), entryId);
      if (!entry) throw new Refused('not-found');
      return entry;
    },

    /** What came after the entry that a device has last. */
    since: (seq: number, last: string | null): Since => {
      const upTo = upToNow();
      const isFromHere = seq <= upTo.seq && isKnown(seq, last);
      const entries = isFromHere ? store.entries.since(seq, SINCE_MOST + 1) : [];
      const isTooMuch = !isFromHere || entries.length > SINCE_MOST;
      const ids = isTooMuch ? [] : [...new Set(entries.map((entry) => entry.conversationId))];
      const standing = store.conversations.byIds(ids).filter(({ threads }) => threads.length > 0);
      const rows = standing.map(toRow);
      return {
        entries: isTooMuch ? [] : entries,
        rows,
        counts: store.conversations.counts(),
        ...upTo,
        isTooMuch,
      };
    },
  };
};

export type Line = ReturnType<typeof createLine>;
