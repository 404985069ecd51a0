import type { Tries } from '../store';

/** So many wrong tries are free; each one after them doubles the wait. */
export const FREE_TRIES = { account: 3, address: 20 } as const;
/** So many tries after the free ones nobody may try again for a while. */
const LOCK_BEHIND = 5;
export const LOCK_MS = 15 * 60_000;
/** Failures that lie longer back than this are forgotten. */
export const FORGET_AFTER_MS = 24 * 3_600_000;

/** Whether tries are of any meaning now: noted by a clock that was set back since, nobody knows when they were. */
const isFresh = ({ lastAt }: Tries, now: number): boolean =>
  lastAt <= now && now - lastAt < FORGET_AFTER_MS;

/**
 * One more failure at `now` (steady milliseconds): 1 s to wait after the last free one, 2 s, 4 s …,
 * then a quarter of an hour. With `free` = 3: the third costs 1 s, the eighth locks.
 */
export const afterFailure = (tries: Tries | null, now: number, free: number): Tries => {
  const failures = (tries && isFresh(tries, now) ? tries.failures : 0) + 1;
  if (failures >= free + LOCK_BEHIND) return { failures, lastAt: now, notBefore: now + LOCK_MS };
  const waitMs = failures < free ? 0 : 1_000 * 2 ** (failures - free);
  return { failures, lastAt: now, notBefore: now + waitMs };
};

/** How long to wait before the next try; 0 when there is nothing to wait for. */
export const waitMsOf = (tries: Tries | null, now: number): number =>
  tries && isFresh(tries, now) ? Math.max(0, tries.notBefore - now) : 0;

/** Whether a wait is the long one at the end. */
export const isLocked = (tries: Tries, free: number): boolean =>
  tries.failures >= free + LOCK_BEHIND;
