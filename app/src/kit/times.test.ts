import { dayInWords, exactly, momentInWords, spanInWords } from './times';

describe('times as people say them', () => {
  const minute = 60_000;
  it.each([
    [400, '1 s'],
    [59_900, '59 s'],
    [-4.2 * minute, '4 min'],
    [59.9 * minute, '59 min'],
    [25 * 60 * minute, '1 d'],
    [5 * 60 * minute, '5 h'],
  ])('%d ms is %s', (ms, said) => expect(spanInWords(ms)).toBe(said));

  const now = Date.UTC(2026, 10, 12, 10, 0);
  it.each([
    [Date.UTC(2026, 10, 12, 14, 30), '14:30'],
    [Date.UTC(2026, 10, 13, 9, 0), 'Fri 09:00'],
    [Date.UTC(2026, 9, 1, 9, 0), '1 Oct'],
    [Date.UTC(2025, 9, 1, 9, 0), '1 Oct 2025'],
  ])('%d is %s', (at, said) => expect(momentInWords(at, now, 'Europe/London')).toBe(said));

  it('are those of the business\u2019s zone', () => {
    expect(momentInWords(Date.UTC(2026, 10, 12, 23, 30), now, 'Asia/Tokyo')).toBe('Fri 08:30');
  });

  it('are each told in their own zone, whichever was asked for before', () => {
    const at = Date.UTC(2026, 10, 12, 23, 30);
    expect(exactly(at, 'Europe/London')).toMatch(/^Thursday,? 12 November 2026 at 23:30$/);
    expect(exactly(at, 'Asia/Tokyo')).toMatch(/^Friday,? 13 November 2026 at 08:30$/);
    expect([dayInWords(at, 'Europe/London'), dayInWords(at, 'Asia/Tokyo')]).toEqual([
      'Thursday 12 November',
      'Friday 13 November',
    ]);
  });
});
