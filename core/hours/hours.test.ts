import { DateTime } from 'luxon';
import { daysToMonday, momentOf, momentTyped, nextTime, timeOnDay } from '.';

const london = 'Europe/London';

describe('a time in a zone', () => {
  it('is what luxon makes of it on thousands of days, over the days on which clocks change', () => {
    const zones = [
      london,
      'America/New_York',
      'Australia/Lord_Howe',
      'Asia/Kathmandu',
      'America/Sao_Paulo',
    ];
    let compared = 0;
    for (const zone of zones) {
      for (let day = 0; day < 366; day += 1) {
        for (const hour of [1, 2, 9]) {
          const wall = Date.UTC(2026, 0, 1 + day, hour, 30);
          const luxon = DateTime.fromObject({ year: 2026, month: 1, day: 1 }, { zone }).plus({
            days: day,
          });
          const expected = luxon.set({ hour, minute: 30 });
          if (expected.hour !== hour) continue; // skipped by a spring: checked by hand below
          const earlier = expected.minus({ hours: 1 });
          const first = earlier.hour === hour && earlier.minute === 30 ? earlier : expected;
          expect(momentOf(wall, zone)).toBe(first.toMillis());
          compared += 1;
        }
      }
    }
    expect(compared).toBeGreaterThan(5_000);
  });

  it('that a spring skips is the same span after the skip (IANA: Europe/London, 29 March 2026)', () => {
    const wall = Date.UTC(2026, 2, 29, 1, 30);
    expect(momentOf(wall, london)).toBe(Date.UTC(2026, 2, 29, 1, 30));
  });

  it('that an autumn doubles is the first of the two (25 October 2026)', () => {
    expect(momentOf(Date.UTC(2026, 9, 25, 1, 30), london)).toBe(Date.UTC(2026, 9, 25, 0, 30));
  });
});

describe('times that people choose', () => {
  const now = Date.UTC(2026, 6, 9, 13, 0); // Thursday 9 July, 14:00 in London

  it('are on a day counted from today', () => {
    expect(timeOnDay(now, london, 1, 9)).toBe(Date.UTC(2026, 6, 10, 8, 0));
    expect(daysToMonday(now, london)).toBe(4);
    expect(daysToMonday(Date.UTC(2026, 6, 13, 9), london)).toBe(7);
  });

  it('are the next such moment', () => {
    expect(nextTime('15:30', now, london)).toBe(Date.UTC(2026, 6, 9, 14, 30));
    expect(nextTime('9.15', now, london)).toBe(Date.UTC(2026, 6, 10, 8, 15));
    for (const nonsense of ['', '25:00', '12:60', 'noon', '12']) {
      expect(nextTime(nonsense, now, london)).toBeNull();
    }
  });

  it('are read as typed, or not at all', () => {
    expect(momentTyped('2026-12-31', '9:00', london)).toBe(Date.UTC(2026, 11, 31, 9));
    expect(momentTyped('31.12.2026', '09:00', london)).toBeNull();
    expect(momentTyped('2026-12-31', 'early', london)).toBeNull();
  });
});
