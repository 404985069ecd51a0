import type { Clock } from '../clock';

/**
 * Token buckets by key: each may hold `most` and refills over `perMs`.
 * In memory on purpose: it guards against floods, and a restart may forgive one.
 */
export const createBuckets = (clock: Clock, most: number, perMs: number) => {
  const buckets = new Map<string, { left: number; at: number }>();
  const forgetFull = (now: number): void => {
    for (const [key, bucket] of buckets) if (now - bucket.at > perMs) buckets.delete(key);
  };
  return {
    /** Takes one; gives 0, or the milliseconds until there is one to take. */
    take: (key: string): number => {
      const now = clock.now();
      if (buckets.size > 10_000) forgetFull(now);
      const bucket = buckets.get(key) ?? { left: most, at: now };
      const left = Math.min(most, bucket.left + ((now - bucket.at) * most) / perMs);
      if (left < 1) {
        buckets.set(key, { left, at: now });
        return Math.ceil(((1 - left) * perMs) / most);
      }
      buckets.set(key, { left: left - 1, at: now });
      return 0;
    },
  };
};
