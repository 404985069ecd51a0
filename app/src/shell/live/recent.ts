import type { Row } from '@porch/contract/entries';
import type { RollPage } from '@porch/contract/line';
import type { Entry } from '@porch/core/conversation';
import { type GroupData, type Stretch, withEntries, withRows } from './cache';

/** More news than can come while one page is on its way. */
const KEPT_MOST = 300;

let entries: readonly Entry[] = [];
let rows: readonly Row[] = [];

/**
 * The newest news, kept for pages that were asked for before it and arrive after it: there was no
 * list yet to write it into, and the page does not have it.
 */
export const recent = {
  note: (newEntries: readonly Entry[], newRows: readonly Row[]): void => {
    entries = [...entries, ...newEntries].slice(-KEPT_MOST);
    rows = [...rows, ...newRows].slice(-KEPT_MOST);
  },
  /** A page of a group, with what happened while it was on its way. */
  ontoGroup: (page: GroupData, stretch: Stretch): GroupData => withRows(page, stretch, rows),
  /** The newest stretch of a roll, with what happened while it was on its way. */
  ontoRoll: (roll: RollPage): RollPage => {
    const last = roll.entries[roll.entries.length - 1]?.seq ?? 0;
    const missed = entries.filter(({ seq }) => seq > last);
    const row = rows.findLast(({ id }) => id === roll.row.id);
    return withEntries(roll, missed, row);
  },
  /** What was shown of a conversation ahead of the server did not come true. */
  forgetRow: (conversationId: string): void => {
    rows = rows.filter(({ id }) => id !== conversationId);
  },
  forget: (): void => {
    entries = [];
    rows = [];
  },
};
