import { dayFrom } from '.';
import { dayInWords } from './words';

describe('a day as it is written', () => {
  it.each([
    ['2026-12-01', 'GB', '2026-12-01'],
    ['2026-12-01T10:00:00Z', 'GB', '2026-12-01'],
    ['1.12.2026', 'DE', '2026-12-01'],
    ['01/12/2026', 'GB', '2026-12-01'],
    ['01/12/2026', 'US', '2026-01-12'],
    ['1-12-2026', 'NL', '2026-12-01'],
    ['', 'GB', ''],
    ['31.02.2026', 'DE', null],
    ['1/12-2026', 'GB', null],
    ['01.12.26', 'DE', null],
    ['tomorrow', 'GB', null],
  ])('takes the day %s in %s for %s', (typed, country, day) => {
    expect(dayFrom(typed, country)).toBe(day);
  });

  it('is said so that nobody misreads it, whatever the zone', () => {
    expect(dayInWords('2026-12-01', 'en')).toBe('Tuesday 1 December');
    expect(dayInWords('2026-12-01', 'de')).toBe('Dienstag, 1. Dezember');
    expect(dayInWords('', 'en')).toBe('');
  });
});
