import { LINE_PAGE, ROLL_PAGE } from '@porch/contract/limits';
import { type LinePage, type RollPage, SINCE_MOST, type Since } from '@porch/contract/team';
import type { Group } from '@porch/core/conversation';
import { fromLineMark, type LineKey, toLineMark } from '@porch/core/patience';
import type { Clock } from '../clock';
import { Refused } from '../refused';
import { type Store, toRow } from '../store';

const toKey = (text: string): LineKey => {
  const key = fromLineMark(text);
  if (!key) throw new Refused('bad-request', { field: 'after' });
  return key;
};

/** Reading the line and a roll, a page at a time; no query here grows with the past. */
export const createLine = ({ store, clock }: { store: Store; clock: Clock }) => ({
  page: (group: Group, after: string | null): LinePage => {
    const found = store.conversations.page(group, after ? toKey(after) : null, LINE_PAGE + 1);
    const rows = found.slice(0, LINE_PAGE).map(toRow);
    const last = rows[rows.length - 1];
    const next = found.length > LINE_PAGE && last ? toLineMark(last) : null;
    return {
      rows,
      next,
      counts: store.conversations.counts(),
      seq: store.entries.newestSeq(),
      now: clock.now(),
    };
  },

  roll: (conversationId: string, before: number | null): RollPage => {
    const conversation = store.conversations.byId(conversationId);
    if (!conversation) throw new Refused('not-found');
    const end = before ?? Number.MAX_SAFE_INTEGER;
    const found = store.entries.rollBefore(conversationId, end, ROLL_PAGE + 1);
    return {
      row: toRow(conversation),
      entries: found.slice(-ROLL_PAGE),
      hasOlder: found.length > ROLL_PAGE,
    };
  },

  since: (seq: number): Since => {
    const newest = store.entries.newestSeq();
    const entries = seq > newest ? [] : store.entries.since(seq, SINCE_MOST + 1);
    const isTooMuch = seq > newest || entries.length > SINCE_MOST;
    const ids = isTooMuch ? [] : [...new Set(entries.map((entry) => entry.conversationId))];
    const rows = ids.flatMap((id) => {
      const conversation = store.conversations.byId(id);
      return conversation ? [toRow(conversation)] : [];
    });
    return {
      entries: isTooMuch ? [] : entries,
      rows,
      counts: store.conversations.counts(),
      seq: newest,
      isTooMuch,
    };
  },
});

export type Line = ReturnType<typeof createLine>;
