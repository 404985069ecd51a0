import type { Row } from '@porch/contract/entries';
import { type Entry, foldAll, groupOf } from '@porch/core/conversation';
import { openingWhile } from '@porch/core/hours/opening';
import { dueAt, placeInLine } from '@porch/core/patience';

/** Where an entry of a test stands: its number, in which conversation, and when. */
export const filed = (seq: number, conversationId = 'a', at = seq * 1_000) => ({
  seq,
  id: `entry-${conversationId}-${seq}`,
  conversationId,
  threadId: conversationId,
  at,
});

/** Something that a visitor said. */
export const said = (
  seq: number,
  conversationId?: string,
  at?: number,
): Entry & { text: string } => ({
  ...filed(seq, conversationId, at),
  kind: 'visitor-said',
  text: `Message ${seq}`,
  files: [],
  note: false,
  page: null,
});

/** Something that a member of the team answered. */
export const answered = (seq: number, conversationId?: string, at?: number): Entry => ({
  ...filed(seq, conversationId, at),
  kind: 'team-said',
  memberId: 'member-1',
  way: 'screen',
  text: 'It is',
  files: [],
});

/** A conversation's row as its entries make it. */
export const rowOf = (...entries: Entry[]): Row => {
  const state = foldAll(entries);
  const due = dueAt(state, openingWhile(null));
  return {
    id: entries[0]?.conversationId ?? 'a',
    doorId: 'door-1',
    group: groupOf(state),
    place: placeInLine(state, due),
    dueAt: due,
    state,
    threads: [],
  };
};
