/** What happens when somebody's patience is over and nobody has looked. */
export const lateWays = ['nothing', 'ask', 'itself'] as const;
export type LateWay = (typeof lateWays)[number];

/** What the business promises to whoever writes, as its owner sets it. */
export interface Promises {
  /** A note is to be answered so soon after the next opening, in open minutes. */
  graceMinutes: number;
  /** Visitors read how long an answer usually takes. */
  showsUsual: boolean;
  /** Turn the light to "back soon": not, after asking, or by itself. */
  whenLate: LateWay;
  /** An answer that somebody left without reading goes out by mail so long after. */
  mailAfterMinutes: number;
  /** Somebody of the team counts as here for so long after they did something, where nothing of theirs would ring. */
  hereMinutes: number;
}

/** What holds until an owner says otherwise. */
export const plainPromises: Promises = {
  graceMinutes: 30,
  showsUsual: true,
  whenLate: 'ask',
  mailAfterMinutes: 2,
  hereMinutes: 15,
};

/** Longer than this nobody would want an answer to wait, in minutes. */
export const MAIL_AFTER_LONGEST_MINUTES = 24 * 60;

/** After an hour without a sign of anybody nobody can be said to be here, in minutes. */
export const HERE_LONGEST_MINUTES = 60;

/** A grace is no longer than a day of open time, in minutes. */
export const GRACE_LONGEST_MINUTES = 24 * 60;

/** So long the light says "back soon" when it was turned because nobody looked. */
export const LATE_BACK_SOON_MS = 30 * 60_000;
