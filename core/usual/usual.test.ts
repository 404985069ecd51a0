import fc from 'fast-check';
import { median as reference } from 'simple-statistics';
import { median, toldMinutes, USUAL_FROM_ANSWERS, usualMinutes, WAITING_FROM } from '.';

const minute = 60_000;
const times = (length: number, ms: number): number[] => Array.from({ length }, () => ms);

describe('the usual time to answer', () => {
  // Hyndman and Fan 1996, type 7, as simple-statistics reckons it.
  it('is the median that a library of statistics finds', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 1e9 }), { minLength: 1 }), (numbers) => {
        expect(median(numbers)).toBe(reference(numbers));
      }),
    );
  });

  it('is not told before there are ten answers', () => {
    expect(usualMinutes(times(USUAL_FROM_ANSWERS - 1, minute))).toBeNull();
    expect(usualMinutes(times(USUAL_FROM_ANSWERS, minute))).toBe(1);
  });

  it('is rounded up, never down, to a length that people say', () => {
    expect(usualMinutes(times(10, minute + 1))).toBe(2);
    expect(usualMinutes(times(10, 5 * minute))).toBe(5);
    expect(usualMinutes(times(10, 5 * minute + 1))).toBe(10);
    expect(usualMinutes(times(10, 61 * minute))).toBe(120);
    expect(usualMinutes(times(10, 0))).toBe(1);
  });

  it('is not told where it is longer than anybody wants to read', () => {
    expect(usualMinutes(times(10, 100 * 24 * 60 * minute))).toBeNull();
  });

  it('is not moved by a single answer that took a week', () => {
    expect(usualMinutes([...times(10, 2 * minute), 7 * 24 * 60 * minute])).toBe(2);
  });

  it('is never told as less than those who wait now have waited already', () => {
    expect(toldMinutes(5, times(7, 62 * minute))).toBe(120);
    expect(toldMinutes(5, times(7, 2 * minute))).toBe(5);
    expect(toldMinutes(5, [minute, minute, 50 * minute])).toBe(5);
    expect(toldMinutes(5, times(WAITING_FROM - 1, 62 * minute))).toBe(5);
    expect(toldMinutes(5, times(WAITING_FROM, 100 * 24 * 60 * minute))).toBeNull();
    expect(toldMinutes(null, times(7, 2 * minute))).toBeNull();
  });
});
