import type { Tries } from '../store';
import { afterFailure, FORGET_AFTER_MS, isLocked, LOCK_AFTER, LOCK_MS } from './tries';

const after = (count: number, start = 0): Tries => {
  let tries: Tries | null = null;
  for (let done = 0; done < count; done += 1) tries = afterFailure(tries, start);
  if (!tries) throw new Error('no tries');
  return tries;
};

describe('wrong tries (OWASP ASVS 5.0, V6.3: slow down and lock for a while)', () => {
  it('cost nothing at first, then twice as long each time', () => {
    const waits = [1, 2, 3, 4, 5, 6, 7].map((count) => after(count).notBefore);
    expect(waits).toEqual([0, 0, 1_000, 2_000, 4_000, 8_000, 16_000]);
  });

  it('lock for a quarter of an hour, and no longer', () => {
    const locked = after(LOCK_AFTER);
    expect(isLocked(locked, LOCK_MS - 1)).toBe(true);
    expect(isLocked(locked, LOCK_MS)).toBe(false);
  });

  it('are forgotten after a day', () => {
    const later = afterFailure(after(LOCK_AFTER), FORGET_AFTER_MS);
    expect(later.failures).toBe(1);
  });
});
