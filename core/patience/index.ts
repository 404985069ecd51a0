import { type ConversationState, groupOf } from '../conversation';
import type { Opening } from '../hours/opening';

/** A visitor who is on the page waits about this long, then leaves (common practice). */
export const PATIENCE_HERE_MS = 2 * 60_000;

/** Two thirds of people expect an answer from a business within ten minutes (common practice). */
export const PATIENCE_AWAY_MS = 10 * 60_000;

/** A note is to be answered so soon after the next opening, unless the owner says otherwise (common practice). */
export const NOTE_GRACE_MS = 30 * 60_000;

type Waiter = Pick<ConversationState, 'waitingSince' | 'isHere' | 'cameBack' | 'isNote'>;

/** When it is open, as far as patience asks: only open time counts. */
export type OpenTime = Pick<Opening, 'afterOpen'>;

export interface Patience {
  /** When an answer is late, UTC epoch milliseconds. */
  dueAt: number;
  /** Time left in milliseconds; negative once it is late. */
  leftMs: number;
  /** What is left of the whole patience, 1 (just written) down to 0 (late). */
  share: number;
  isLate: boolean;
}

/**
 * When an answer is late, in UTC epoch milliseconds; null when nothing is owed. Only open time counts: a note is due a
 * grace after the next opening. A conversation that came back by itself gets the longer patience: nobody is looking
 * at the page for it. Where no opening is in sight the time runs as if it were open.
 */
export const dueAt = (waiter: Waiter, open: OpenTime, graceMs = NOTE_GRACE_MS): number | null => {
  const { waitingSince: since } = waiter;
  if (since === null) return null;
  const limit = waiter.isNote ? graceMs : limitMs(waiter);
  return open.afterOpen(since, limit) ?? since + limit;
};

const limitMs = (waiter: Waiter): number =>
  waiter.isHere && !waiter.cameBack ? PATIENCE_HERE_MS : PATIENCE_AWAY_MS;

/**
 * How much patience is left at `now` until an answer is due; null for conversations in which nobody waits,
 * and for notes, which were left without the promise of an answer at once.
 */
export const patienceOf = (
  state: ConversationState,
  due: number | null,
  now: number,
): Patience | null => {
  if (groupOf(state) !== 'waiting' || due === null) return null;
  const leftMs = due - now;
  const whole = due - (state.waitingSince ?? due);
  const share = whole > 0 ? Math.min(1, Math.max(0, leftMs / whole)) : 0;
  return { dueAt: due, leftMs, share, isLate: leftMs <= 0 };
};

/** Patience runs low with a quarter of it left. */
const LOW_SHARE = 0.25;

/** When patience runs low, UTC epoch milliseconds; null where nobody waits, as in `patienceOf`. */
export const lowAt = (state: ConversationState, open: OpenTime): number | null => {
  const { waitingSince: since } = state;
  if (groupOf(state) !== 'waiting' || since === null) return null;
  const until = limitMs(state) * (1 - LOW_SHARE);
  return open.afterOpen(since, until) ?? since + until;
};

/** Later than any moment, and a safe integer together with one. */
const AFTER_ALL = 1e15;

/**
 * The place of a conversation within its group, its answer being due at a moment: a number, smaller stands higher.
 * Waiting: whose patience runs out first. Notes: the oldest. Those that cannot be answered as they stand (`due` is
 * null) come after all others of both. Put by: who comes back first. Answered and wrapped up: the newest.
 */
export const placeInLine = (state: ConversationState, due: number | null): number => {
  switch (groupOf(state)) {
    case 'waiting':
      return due ?? AFTER_ALL + (state.waitingSince ?? 0);
    case 'note':
      return (due === null ? AFTER_ALL : 0) + (state.waitingSince ?? 0);
    case 'put-by':
      return state.putByUntil ?? 0;
    case 'answered':
    case 'wrapped-up':
      return -state.lastAt;
  }
};

/** Where a row of the line stands: ids part rows of one place. */
export interface LineKey {
  place: number;
  id: string;
}

/** What the rows behind this one are asked for by: `{ place: -5, id: 'talk-1' }` → `'-5.talk-1'`. */
export const toLineMark = ({ place, id }: LineKey): string => `${place}.${id}`;

/** The other way round; null for a text that marks nothing. */
export const fromLineMark = (mark: string): LineKey | null => {
  const cut = mark.indexOf('.');
  const place = Number(mark.slice(0, cut));
  return cut < 1 || !Number.isSafeInteger(place) ? null : { place, id: mark.slice(cut + 1) };
};
