import type { Tries } from '../store';
import { afterFailure, FORGET_AFTER_MS, FREE_TRIES, isLocked, LOCK_MS, waitMsOf } from './tries';

const free = FREE_TRIES.account;
const after = (count: number, start = 0): Tries => {
  let tries: Tries | null = null;
  for (let done = 0; done < count; done += 1) tries = afterFailure(tries, start, free);
  if (!tries) throw new Error('no tries');
  return tries;
};

describe('wrong tries (OWASP ASVS 5.0, V6.3: slow down and lock for a while)', () => {
  it('cost nothing at first, then twice as long each time', () => {
    const waits = [1, 2, 3, 4, 5, 6, 7].map((count) => waitMsOf(after(count), 0));
    expect(waits).toEqual([0, 0, 1_000, 2_000, 4_000, 8_000, 16_000]);
  });

  it('cost a quarter of an hour from the eighth on, and no longer', () => {
    expect([isLocked(after(7), free), isLocked(after(8), free)]).toEqual([false, true]);
    expect(waitMsOf(after(8), LOCK_MS - 1)).toBe(1);
    expect(waitMsOf(after(8), LOCK_MS)).toBe(0);
  });

  it('are forgotten after a day', () => {
    expect(afterFailure(after(8), FORGET_AFTER_MS, free).failures).toBe(1);
  });

  it('that were noted by a clock which has been set back since hold nobody up', () => {
    const noted = after(8, 3_600_000);
    expect(waitMsOf(noted, 0)).toBe(0);
    expect(afterFailure(noted, 0, free).failures).toBe(1);
  });
});
