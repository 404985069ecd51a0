import type { Clock } from '../clock';

/** Whoever makes up more names than this pushes out those that were heard of longest ago. */
const HELD_MOST = 20_000;

interface Bucket {
  left: number;
  at: number;
}

/**
 * Token buckets by key: each may hold `most` and refills over `perMs`, measured on the steady clock.
 * In memory on purpose: it guards against floods, and a restart may forgive one. Keys come from clients,
 * so they are bounded in number; a bucket that is full again is swept away, by a timer and not by a flood.
 */
export const createBuckets = (clock: Clock, most: number, perMs: number, heldMost = HELD_MOST) => {
  // In the order in which they were last asked: what is at the front may be swept first.
  const buckets = new Map<string, Bucket>();
  const leftIn = ({ left, at }: Bucket, now: number): number =>
    Math.min(most, left + ((now - at) * most) / perMs);
  const keep = (key: string, bucket: Bucket): void => {
    buckets.delete(key);
    buckets.set(key, bucket);
    if (buckets.size <= heldMost) return;
    for (const first of buckets.keys()) {
      buckets.delete(first);
      return;
    }
  };
  return {
    /** Takes one; gives 0, or the milliseconds until there is one to take. */
    take: (key: string): number => {
      const now = clock.steady();
      const left = leftIn(buckets.get(key) ?? { left: most, at: now }, now);
      const isEmpty = left < 1;
      keep(key, { left: isEmpty ? left : left - 1, at: now });
      return isEmpty ? Math.ceil(((1 - left) * perMs) / most) : 0;
    },
    /** How long until there is one to take, in milliseconds; 0: there is one. Takes nothing. */
    peek: (key: string): number => {
      const now = clock.steady();
      const left = leftIn(buckets.get(key) ?? { left: most, at: now }, now);
      return left < 1 ? Math.ceil(((1 - left) * perMs) / most) : 0;
    },
    /** Gives one back that was taken: it was none that counts. */
    give: (key: string): void => {
      const now = clock.steady();
      const bucket = buckets.get(key);
      if (bucket) keep(key, { left: Math.min(most, leftIn(bucket, now) + 1), at: now });
    },
    /** Forgets who has not been heard of for so long that their bucket is full. */
    sweep: (): void => {
      const now = clock.steady();
      for (const [key, { at }] of buckets) {
        if (now - at < perMs) return;
        buckets.delete(key);
      }
    },
    /** How many are held. */
    size: (): number => buckets.size,
  };
};

export type Buckets = ReturnType<typeof createBuckets>;
