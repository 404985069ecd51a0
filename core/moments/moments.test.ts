import { type DayWords, momentSaid } from '.';

const english: DayWords = {
  today: 'today',
  tomorrow: 'tomorrow',
  weekdays: ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday'],
  months:
    'january february march april may june july august september october november december'.split(
      ' ',
    ),
  ahead: 'in',
  numbers: [['one', 'a', 'an'], ['two'], ['three']],
  hours: ['hour', 'hours'],
  days: ['day', 'days'],
  weeks: ['week', 'weeks'],
  morning: 'am',
  afternoon: 'pm',
};
/** Thursday 12 November 2026, 10:00 in London. */
const now = Date.UTC(2026, 10, 12, 10);
const said = (typed: string) => momentSaid(typed, now, 'Europe/London', english);

describe('a day and a time as people write them', () => {
  it.each([
    ['tomorrow 9', [2026, 10, 13, 9, 0]],
    ['Tomorrow', [2026, 10, 13, 9, 0]],
    ['today 16.30', [2026, 10, 12, 16, 30]],
    ['Fri 10:30', [2026, 10, 13, 10, 30]],
    ['thursday', [2026, 10, 19, 9, 0]],
    ['24 Dec, 2pm', [2026, 11, 24, 14, 0]],
    ['Dec 24 12 am', [2026, 11, 24, 0, 0]],
    ['3 jan', [2027, 0, 3, 9, 0]],
    ['3 January 2028 8:15', [2028, 0, 3, 8, 15]],
    ['24/12 14:00', [2026, 11, 24, 14, 0]],
    ['24.12.2026 14:00', [2026, 11, 24, 14, 0]],
    ['24/12/27', [2027, 11, 24, 9, 0]],
    ['2026-12-31 09:00', [2026, 11, 31, 9, 0]],
    ['in 2 weeks', [2026, 10, 26, 9, 0]],
    ['in two weeks', [2026, 10, 26, 9, 0]],
    ['in a week', [2026, 10, 19, 9, 0]],
    ['in three days 14:00', [2026, 10, 15, 14, 0]],
    ['in 3 days 17', [2026, 10, 15, 17, 0]],
    ['in 5 hours', [2026, 10, 12, 15, 0]],
    ['16:00', [2026, 10, 12, 16, 0]],
    ['8:00', [2026, 10, 13, 8, 0]],
  ] as const)('%j is understood', (typed, [year, month, date, hour, minute]) =>
    expect(said(typed)).toBe(Date.UTC(year, month, date, hour, minute)),
  );

  it.each([
    '',
    'soon',
    '31 Feb',
    '32/12',
    '12/13 9:00',
    '2026-13-01',
    'tomorrow 25',
    'tomorrow 9:75',
    'fr 9',
    '13pm',
    'in weeks',
    'Friday at some time',
    '9 9',
  ])('%j is not guessed at', (typed) => expect(said(typed)).toBeNull());

  it('is meant in the business’s zone, also where clocks change in between', () => {
    // New York leaves summer time on 1 November 2026 (IANA tz database).
    const october = Date.UTC(2026, 9, 30, 16);
    expect(momentSaid('tue 9', october, 'America/New_York', english)).toBe(
      Date.UTC(2026, 10, 3, 14),
    );
  });
});
