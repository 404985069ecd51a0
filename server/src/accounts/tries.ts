import type { Tries } from '../store';

/** This many wrong tries are free; each one after them doubles the wait. */
export const FREE_TRIES = 3;
/** From here on the account is locked for a while. */
export const LOCK_AFTER = 8;
export const LOCK_MS = 15 * 60_000;
/** Failures that lie longer back than this are forgotten. */
export const FORGET_AFTER_MS = 24 * 3_600_000;

/** One more failure at `now`: 1 s after the third, 2 s, 4 s …, then locked for a quarter of an hour. */
export const afterFailure = (tries: Tries | null, now: number): Tries => {
  const isFresh = tries !== null && now - tries.lastAt < FORGET_AFTER_MS;
  const failures = (isFresh ? tries.failures : 0) + 1;
  if (failures >= LOCK_AFTER) return { failures, lastAt: now, notBefore: now + LOCK_MS };
  const waitMs = failures < FREE_TRIES ? 0 : 1_000 * 2 ** (failures - FREE_TRIES);
  return { failures, lastAt: now, notBefore: now + waitMs };
};

export const isLocked = (tries: Tries, now: number): boolean =>
  tries.failures >= LOCK_AFTER && tries.notBefore > now;
