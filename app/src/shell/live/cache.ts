import type { Row } from '@porch/contract/entries';
import type { RollPage } from '@porch/contract/line';
import {
  type Entry,
  fold,
  type Group,
  groupOf,
  groups,
  isOnTheRoll,
  type View,
  views,
  viewsOf,
} from '@porch/core/conversation';
import { placeInLine } from '@porch/core/patience';

/** A stretch of the line: one group of a view. */
export interface Stretch {
  view: View;
  group: Group;
}

export const stretches: readonly Stretch[] = views.flatMap((view) =>
  groups.map((group) => ({ view, group })),
);

export const stretchKey = ({ view, group }: Stretch) => ['line', view, group] as const;

export const rollKey = (id: string) => ['roll', id] as const;

/** One group of the line as far as it is loaded, in order. */
export interface GroupData {
  rows: Row[];
  /** Behind which key more can be had; null when all is here. */
  next: string | null;
}

const isBefore = (a: Row, b: Row): boolean =>
  a.place < b.place || (a.place === b.place && a.id < b.id);

/** Whether a row that was told is newer than, or as new as, the one that is known. */
const isNewer = (told: Row, known: Row): boolean => told.state.lastSeq >= known.state.lastSeq;

/** A row put into its place in a loaded group, or left out when its place lies behind what is loaded. */
const inserted = (data: GroupData, row: Row): GroupData => {
  const others = data.rows.filter((known) => known.id !== row.id);
  const at = others.findIndex((known) => isBefore(row, known));
  if (at >= 0) return { ...data, rows: [...others.slice(0, at), row, ...others.slice(at)] };
  if (data.next !== null) return { ...data, rows: others };
  return { ...data, rows: [...others, row] };
};

/** A group after rows were told of: each stands in its own group and in no other. */
export const withRows = (data: GroupData, stretch: Stretch, rows: readonly Row[]): GroupData => {
  let known = data;
  for (const row of rows) known = withRow(known, stretch, row);
  return known;
};

const withRow = (data: GroupData, { view, group }: Stretch, row: Row): GroupData => {
  const mine = data.rows.find((one) => one.id === row.id);
  if (mine && !isNewer(row, mine)) return data;
  if (row.group === group && viewsOf(row.state).includes(view)) return inserted(data, row);
  return mine ? { ...data, rows: data.rows.filter((one) => one !== mine) } : data;
};

/** A group without a conversation that is no one's any more: whoever stood in it stands in another one. */
export const withoutRow = (data: GroupData, id: string): GroupData =>
  data.rows.some((row) => row.id === id)
    ? { ...data, rows: data.rows.filter((row) => row.id !== id) }
    : data;

/** The next page behind what is loaded. */
export const withPage = (data: GroupData, page: GroupData): GroupData => {
  const ids = new Set(data.rows.map((row) => row.id));
  return {
    rows: [...data.rows, ...page.rows.filter((row) => !ids.has(row.id))],
    next: page.next,
  };
};

/** What became of what went out, as far as it was told: the last of each entry, for they come in order. */
const withReceipts = (roll: RollPage, entries: readonly Entry[]): RollPage['receipts'] => {
  const told = entries.flatMap((entry) =>
    entry.kind === 'receipt' && entry.conversationId === roll.row.id
      ? [{ seq: entry.of, step: entry.step, why: entry.why ?? null }]
      : [],
  );
  if (told.length === 0) return roll.receipts;
  return [...new Map([...roll.receipts, ...told].map((one) => [one.seq, one])).values()];
};

/** A roll after entries and perhaps a newer row: each entry once, by seq. */
export const withEntries = (roll: RollPage, entries: readonly Entry[], row?: Row): RollPage => {
  const mine = entries.filter(
    (entry) => entry.conversationId === roll.row.id && isOnTheRoll(entry.kind),
  );
  const bySeq = new Map(roll.entries.map((entry) => [entry.seq, entry]));
  for (const entry of mine) bySeq.set(entry.seq, entry);
  const receipts = withReceipts(roll, entries);
  const isRowNewer = row !== undefined && row.id === roll.row.id && isNewer(row, roll.row);
  if (mine.length === 0 && !isRowNewer && receipts === roll.receipts) return roll;
  return {
    ...roll,
    receipts,
    row: isRowNewer ? row : roll.row,
    entries: [...bySeq.values()].sort((a, b) => a.seq - b.seq),
  };
};

/** Half a step ahead of what the server has given: whatever it says next is newer. */
const HALF_A_STEP = 0.5;

type Ahead = Entry extends infer One
  ? One extends Entry
    ? Omit<One, 'seq' | 'conversationId' | 'threadId'>
    : never
  : never;

/** The row as it will be once the server has taken what was just done here. */
export const rowAhead = (row: Row, done: Ahead): Row => {
  const entry = {
    ...done,
    conversationId: row.id,
    threadId: null,
    seq: Math.floor(row.state.lastSeq) + HALF_A_STEP,
  } as Entry;
  const known = { ...row.state, lastSeq: Math.floor(row.state.lastSeq) };
  const state = fold(known, entry);
  // What was owed before is due when it was; for what is owed anew the server will say.
  const isSame = state.waitingSince === row.state.waitingSince;
  const dueAt = isSame ? row.dueAt : null;
  const group = groupOf(state);
  const isThere = isSame && group === row.group;
  return {
    ...row,
    state,
    dueAt,
    group,
    place: isThere ? row.place : placeInLine(state, dueAt ?? 0),
  };
};
