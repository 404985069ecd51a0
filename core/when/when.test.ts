import { aheadIn, localeOf, minutesIn, momentIn } from '.';

const minute = 60_000;
const hour = 60 * minute;
/** Between a time and its half of the day stands one space or another, by the release of ICU. */
const plainly = (told: string): string => told.replace(/\s/g, ' ');

/** Thursday 12 November 2026, 19:00 in London. */
const now = Date.UTC(2026, 10, 12, 19);

describe('a moment told to somebody elsewhere', () => {
  const told = (language: string, zone: string, at: number) =>
    momentIn({ locale: localeOf(language, 'GB'), zone }, at, now);

  it('is in their own time and language', () => {
    const morning = Date.UTC(2026, 10, 13, 9);
    expect(told('en', 'Europe/London', morning)).toBe('Friday 09:00');
    expect(told('de', 'Europe/Berlin', morning)).toBe('Freitag 10:00');
    expect(told('pl', 'America/New_York', morning)).toBe('piątek 04:00');
  });

  it('names the day only where it is another one there', () => {
    const at = Date.UTC(2026, 10, 12, 23, 30);
    expect(told('en', 'Europe/London', at)).toBe('23:30');
    expect(told('en', 'Europe/Berlin', at)).toBe('Friday 00:30');
    expect(told('en', 'Asia/Kathmandu', at)).toBe('05:15');
  });

  it('has a date from a week on', () => {
    expect(told('en', 'UTC', Date.UTC(2027, 0, 4, 9))).toBe('Monday 4 January 09:00');
  });

  it.each([
    ['en', 'GB', 'Friday 14:30'],
    ['en', '', 'Friday 14:30'],
    ['en', 'nonsense', 'Friday 14:30'],
    ['en', 'US', 'Friday 2:30 PM'],
    ['en', 'AU', 'Friday 2:30 pm'],
    ['en', 'DE', 'Friday 14:30'],
    ['de', 'US', 'Freitag 14:30'],
  ])('is written in %s as it is where the business is: %s', (language, country, expected) => {
    const at = Date.UTC(2026, 10, 13, 14, 30);
    const told = momentIn({ locale: localeOf(language, country), zone: 'UTC' }, at, now);
    expect(plainly(told)).toBe(expected);
  });

  it('puts the month first where people do', () => {
    const at = Date.UTC(2027, 0, 4, 9);
    const told = momentIn({ locale: localeOf('en', 'US'), zone: 'UTC' }, at, now);
    expect(plainly(told)).toBe('Monday, January 4 9:00 AM');
  });

  it('says how far ahead it is, in whole units', () => {
    expect(aheadIn('en', 14 * hour)).toBe('in 14 hours');
    expect(aheadIn('en', 30 * minute + 1)).toBe('in 31 minutes');
    expect(aheadIn('en', -5)).toBe('in 1 minute');
    expect(aheadIn('fr', 3 * 24 * hour)).toBe('dans 3 jours');
  });

  it('writes lengths of time in words', () => {
    expect(minutesIn('en', 1)).toBe('1 minute');
    expect(minutesIn('de', 120)).toBe('2 Stunden');
    expect(minutesIn('nl', 2 * 24 * 60)).toBe('2 dagen');
  });
});
