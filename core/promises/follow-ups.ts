import type { Entry } from '../conversation';
import { dayOf } from '../hours';

/**
 * Why something is owed: a note was left, somebody left without an answer, an answer did not arrive, it is asked whose
 * a mail is, an answer by mail could not be taken in, they asked to be called, or one of the team said so.
 */
export const owings = ['note', 'left', 'bounced', 'asked', 'held', 'call-back', 'hand'] as const;
export type Owing = (typeof owings)[number];

/** Something owed to somebody. All moments are UTC epoch milliseconds. */
export interface FollowUp {
  id: string;
  /** In which conversation it was written down. */
  conversationId: string;
  why: Owing;
  /** What; empty: an answer. */
  what: string;
  dueAt: number;
  /** When it rings; null: it does not. */
  remindAt: number | null;
  /** Whose it is, by a member's id; null: whoever comes first. */
  whose: string | null;
  madeAt: number;
  doneAt: number | null;
  /** Who did it; null while it is open, and where it was done by itself. */
  doneBy: string | null;
}

/** Whether what is owed is an answer to whoever wrote, so that answering them does it. */
export const isAnswerOwed = (why: Owing): boolean =>
  why !== 'hand' && why !== 'asked' && why !== 'call-back';

/** By which id it is owed to say whose a mail is that was held back by an entry. */
export const askedId = (heldBackId: string): string => `ask-${heldBackId}`;

/** Whether by an id it is owed to say whose a mail is; the question itself stands on the roll. */
export const isAskedId = (followUpId: string): boolean => followUpId.startsWith('ask-');

/** As much may be said of what is owed, in characters. */
export const OWED_LONGEST = 200;

/** So far ahead something may be due. */
export const OWED_AHEAD_MS = 2 * 366 * 24 * 3_600_000;

/**
 * One step of a follow-up's fold: what is known of it (null: nothing yet) and an entry about it → what it is after
 * that. An entry about another one, or about none, changes nothing.
 */
export const foldFollowUp = (known: FollowUp | null, entry: Entry): FollowUp | null => {
  switch (entry.kind) {
    case 'owed': {
      const { id, conversationId, why, what, dueAt, remindAt, whose, at } = entry;
      const made = { id, conversationId, why, what, dueAt, remindAt, whose, madeAt: at };
      return known ?? { ...made, doneAt: null, doneBy: null };
    }
    case 'owed-changed': {
      if (known?.id !== entry.of) return known;
      const { what, dueAt, remindAt, whose } = entry;
      return { ...known, what, dueAt, remindAt, whose };
    }
    case 'owed-done':
      return known?.id === entry.of
        ? { ...known, doneAt: entry.at, doneBy: entry.memberId }
        : known;
    case 'owed-undone':
      return known?.id === entry.of ? { ...known, doneAt: null, doneBy: null } : known;
    default:
      return known;
  }
};

/** Of which follow-up an entry is; null: of none. */
export const followUpOf = (entry: Entry): string | null => {
  switch (entry.kind) {
    case 'owed':
      return entry.id;
    case 'owed-changed':
    case 'owed-done':
    case 'owed-undone':
      return entry.of;
    default:
      return null;
  }
};

/** When something due is due, as a list has it: its time has passed, it is still today, or it is later. */
export const dueGroups = ['late', 'today', 'later'] as const;
export type DueGroup = (typeof dueGroups)[number];

/** In which group of the list something stands that is due at a moment, by the business's clock. */
export const dueGroupOf = (dueAt: number, now: number, zone: string): DueGroup => {
  if (dueAt <= now) return 'late';
  return dayOf(dueAt, zone) === dayOf(now, zone) ? 'today' : 'later';
};
