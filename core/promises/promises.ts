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
}

/** What holds until an owner says otherwise. */
export const plainPromises: Promises = { graceMinutes: 30, showsUsual: true, whenLate: 'ask' };

/** A grace is no longer than a day of open time, in minutes. */
export const GRACE_LONGEST_MINUTES = 24 * 60;

/** So long the light says "back soon" when it was turned because nobody looked. */
export const LATE_BACK_SOON_MS = 30 * 60_000;
