import type { RungLine } from '@porch/core/ringing';
import type { RollFacts } from './roll-facts';
import { rungInWords } from './rung-slip';

const now = Date.UTC(2026, 10, 12, 10, 30);
const at = (minute: number): number => Date.UTC(2026, 10, 12, 10, minute);
const facts = {
  now,
  zone: 'Europe/London',
  memberName: (id: string) => ({ maren: 'Maren', tobias: 'Tobias' })[id] ?? '',
} as RollFacts;
const line = (change: Partial<RungLine>): RungLine => ({
  seq: 1,
  at: at(2),
  rung: [{ memberId: 'maren', by: 'push', at: [at(2), at(3)], failed: null }],
  looked: null,
  ...change,
});

describe('a round of ringing on the roll', () => {
  it('is one line: whom, when, and who looked', () => {
    const looked = { memberId: 'tobias', at: at(4) };
    expect(rungInWords(line({ looked }), facts)).toBe(
      'Rang Maren 10:02, 10:03; Tobias looked 10:04',
    );
    expect(rungInWords(line({}), facts)).toBe('Rang Maren 10:02, 10:03; nobody has looked yet');
  });

  it('says what was written, and what did not come through', () => {
    const rung: RungLine['rung'] = [
      { memberId: 'maren', by: 'push', at: [at(2)], failed: 'push-gone' },
      { memberId: 'tobias', by: 'mail', at: [at(7)], failed: null },
    ];
    expect(rungInWords(line({ rung }), facts)).toBe(
      'Could not ring Maren 10:02; wrote to Tobias 10:07; nobody has looked yet',
    );
  });

  it('names the first and the last of many times', () => {
    const many = Array.from({ length: 9 }, (_, minute) => at(minute));
    const rung: RungLine['rung'] = [{ memberId: 'maren', by: 'push', at: many, failed: null }];
    expect(rungInWords(line({ rung }), facts)).toMatch(/^Rang Maren 10:00 … 10:08;/);
  });
});
