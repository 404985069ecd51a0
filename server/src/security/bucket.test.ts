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

describe('buckets by names that clients make up', () => {
  it('are bounded in number: whoever was heard of longest ago is forgotten first', () => {
    const clock = handClock(0);
    const buckets = createBuckets(clock, 1, 60_000, 100);
    for (let index = 0; index < 100; index += 1) buckets.take(`key ${index}`);
    expect(buckets.take('key 0')).toBe(60_000);
    buckets.take('one more');
    expect(buckets.size()).toBe(100);
    // The first was asked for again just before, so the second had to go.
    expect([buckets.take('key 0'), buckets.take('key 1')]).toEqual([60_000, 0]);
  });

  it('are swept once they are full again, and not before', () => {
    const clock = handClock(0);
    const buckets = createBuckets(clock, 1, 1_000);
    buckets.take('old');
    clock.advance(600);
    buckets.take('new');
    clock.advance(400);
    buckets.sweep();
    expect(buckets.size()).toBe(1);
    expect(buckets.take('new')).toBe(600);
  });

  it('hold nobody up for longer because somebody set the clock back', () => {
    const clock = handClock(0);
    const buckets = createBuckets(clock, 1, 1_000);
    buckets.take('a');
    clock.jump(-3_600_000);
    expect(buckets.take('a')).toBe(1_000);
    clock.advance(1_000);
    expect(buckets.take('a')).toBe(0);
  });
});
