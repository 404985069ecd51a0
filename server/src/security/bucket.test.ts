import { handClock } from '../clock';
import { createBuckets } from './bucket';

describe('a bucket that holds floods back', () => {
  it('gives what it holds, then what refills, and says how long until the next', () => {
    const clock = handClock(0);
    const buckets = createBuckets(clock, 3, 60_000);
    expect([1, 2, 3].map(() => buckets.take('a'))).toEqual([0, 0, 0]);
    expect(buckets.take('a')).toBe(20_000);
    clock.advance(19_999);
    expect(buckets.take('a')).toBeGreaterThan(0);
    clock.advance(1);
    expect(buckets.take('a')).toBe(0);
  });

  it('is one for each key, and never holds more than it may', () => {
    const clock = handClock(0);
    const buckets = createBuckets(clock, 1, 1_000);
    buckets.take('a');
    expect(buckets.take('b')).toBe(0);
    clock.advance(100_000);
    expect([buckets.take('a'), buckets.take('a')]).toEqual([0, 1_000]);
  });
});
