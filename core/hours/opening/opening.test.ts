import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import { DateTime } from 'luxon';
import { spans } from '../../test-kit/spans';
import { toOsm } from '../written';
import {
  createOpening,
  DAY_MINUTES,
  dayAfter,
  isDay,
  type OpeningHours,
  openingWhile,
  type Spans,
  scheduleOf,
  tidySpans,
} from '.';

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;

const weekOf = (text: string, weekend = ''): Spans[] =>
  Array.from({ length: 7 }, (_none, day) => spans(day < 5 ? text : weekend));
const hoursOf = (change: Partial<OpeningHours> = {}): OpeningHours => ({
  week: weekOf('9:00-17:30'),
  holidays: null,
  spells: [],
  ...change,
});
const openingOf = (change: Partial<OpeningHours> = {}, zone = 'Europe/London') =>
  createOpening(scheduleOf(hoursOf(change), zone, []));
const at = (iso: string, zone = 'Europe/London'): number =>
  DateTime.fromISO(iso, { zone }).toMillis();
const shown = (moment: number | null, zone = 'Europe/London'): string | null =>
  moment === null ? null : DateTime.fromMillis(moment, { zone }).toFormat("yyyy-MM-dd'T'HH:mm");

describe('whether it is open', () => {
  it('goes by the spans of the day, from their first moment up to their last', () => {
    const opening = openingOf({ week: weekOf('9:00-12:30 13:30-17:30') });
    const day = '2026-11-26T';
    const isOpenAt = (time: string) => opening.isOpen(at(`${day}${time}`));
    expect(
      ['08:59:59.999', '09:00', '12:29:59.999', '12:30', '13:30', '17:30'].map(isOpenAt),
    ).toEqual([false, true, true, false, true, false]);
    expect(shown(opening.nextChange(at(`${day}10:00`)))).toBe(`${day}12:30`);
    expect(shown(opening.nextOpen(at(`${day}12:30`)))).toBe(`${day}13:30`);
    expect(shown(opening.nextOpen(at('2026-11-27T18:00')))).toBe('2026-11-30T09:00');
    expect(opening.nextOpen(at(`${day}10:00`))).toBe(at(`${day}10:00`));
  });

  it('goes on past midnight, into a day that is shut as well', () => {
    const night = openingOf({
      week: weekOf('18:00-26:00'),
      spells: [{ from: '2026-11-27', to: '2026-11-27', spans: [], why: '' }],
    });
    expect(night.isOpen(at('2026-11-27T01:59'))).toBe(true);
    expect(shown(night.nextChange(at('2026-11-26T20:00')))).toBe('2026-11-27T02:00');
    expect(night.isOpen(at('2026-11-27T20:00'))).toBe(false);
    expect(night.isOpen(at('2026-11-28T01:00'))).toBe(false);
  });

  it('is one stretch where days touch at midnight, and has no end where there is none', () => {
    const opening = openingOf({ week: weekOf('9:00-24:00', '0:00-24:00') });
    expect(shown(opening.nextChange(at('2026-11-27T10:00')))).toBe('2026-11-30T00:00');
    const always = openingOf({ week: weekOf('0:00-24:00', '0:00-24:00') });
    expect(always.nextChange(at('2026-11-27T10:00'))).toBeNull();
    // Nothing is reckoned out for what never shuts; one holiday is enough for it to shut.
    const never = scheduleOf(
      hoursOf({ week: weekOf('0:00-24:00', '0:00-24:00') }),
      'Europe/London',
      [],
    );
    expect(openingWhile(never)).toBe(openingWhile(null));
    const spells = [{ from: '2026-12-24', to: '2026-12-24', spans: [], why: '' }];
    const once = openingWhile(
      scheduleOf(
        hoursOf({ week: weekOf('0:00-24:00', '0:00-24:00'), spells }),
        'Europe/London',
        [],
      ),
    );
    expect(shown(once.nextChange(at('2026-11-27T10:00')))).toBe('2026-12-24T00:00');
    expect(openingWhile(null).nextChange(0)).toBeNull();
    expect(openingWhile(null).isOpen(0)).toBe(true);
  });

  it('never changes where nothing is open, and where the one day is over', () => {
    const never = openingOf({ week: weekOf('') });
    expect([never.nextOpen(0), never.nextChange(0), never.afterOpen(0, 1)]).toEqual([
      null,
      null,
      null,
    ]);
    const once = openingOf({
      week: weekOf(''),
      spells: [{ from: '2026-11-28', to: '2026-11-28', spans: spans('10:00-12:00'), why: '' }],
    });
    expect(shown(once.nextOpen(at('2026-11-26T10:00')))).toBe('2026-11-28T10:00');
    expect(shown(once.nextChange(at('2026-11-28T10:00')))).toBe('2026-11-28T12:00');
    expect(once.nextOpen(at('2026-11-28T12:00'))).toBeNull();
  });

  it('keeps a spell before a holiday, and a holiday before the week, each as was chosen', () => {
    const calendar = ['2026-12-25', '2026-12-26', '2026-12-28', '2027-01-01'].map((day, place) => ({
      day,
      key: `holiday-${place}`,
      name: '',
    }));
    const choices = { 'holiday-1': spans('11:00-13:00'), 'holiday-2': 'usual' as const };
    const hours = hoursOf({
      holidays: { country: 'GB', region: '', others: 'closed', choices },
      spells: [{ from: '2027-01-01', to: '2027-01-01', spans: spans('12:00-14:00'), why: 'Sale' }],
    });
    const opening = createOpening(scheduleOf(hours, 'Europe/London', calendar));
    const first = (day: string) => shown(opening.nextOpen(at(day)));
    expect(first('2026-12-25')).toBe('2026-12-26T11:00');
    expect(first('2026-12-27')).toBe('2026-12-28T09:00');
    expect(first('2027-01-01')).toBe('2027-01-01T12:00');
  });
});

describe('open time', () => {
  const opening = openingOf({ week: weekOf('9:00-12:00 13:00-17:00') });

  it('between two moments leaves out what is shut', () => {
    const between = (from: string, to: string) =>
      opening.openMsBetween(at(from), at(to)) / MINUTE_MS;
    expect(between('2026-11-26T11:30', '2026-11-26T13:10')).toBe(40);
    expect(between('2026-11-27T16:00', '2026-11-30T10:00')).toBe(120);
    expect(between('2026-11-26T11:30', '2026-11-26T11:30')).toBe(0);
    expect(between('2026-11-26T11:30', '2026-11-26T10:30')).toBe(0);
    // 261 weekdays between, seven hours each.
    expect(between('2026-01-01', '2027-01-01')).toBe(261 * 7 * 60);
  });

  it('is found again: after so many open minutes, so many are between', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 400 * 24 * 60 }),
        fc.integer({ min: 1, max: 10_000 }),
        (from, minutes) => {
          const begin = at('2026-01-01') + from * MINUTE_MS;
          const end = opening.afterOpen(begin, minutes * MINUTE_MS) ?? 0;
          expect(opening.openMsBetween(begin, end)).toBe(minutes * MINUTE_MS);
          expect(opening.openMsBetween(begin, end - 1)).toBe(minutes * MINUTE_MS - 1);
        },
      ),
      { seed: 7, numRuns: 300 },
    );
  });

  it('of none is over as soon as it is open', () => {
    expect(shown(opening.afterOpen(at('2026-11-26T12:30'), 0))).toBe('2026-11-26T13:00');
    expect(shown(opening.afterOpen(at('2026-11-27T16:50'), 30 * MINUTE_MS))).toBe(
      '2026-11-30T09:20',
    );
  });
});

/** Each from the IANA time zone database: the files europe, northamerica, australasia, southamerica, africa. */
describe('the nights on which clocks change', () => {
  it.each([
    ['Europe/London', '2026-03-29', 23],
    ['Europe/London', '2026-10-25', 25],
    ['America/New_York', '2026-03-08', 23],
    ['America/New_York', '2026-11-01', 25],
    ['Australia/Sydney', '2026-10-04', 23],
    ['Australia/Sydney', '2026-04-05', 25],
    ['Australia/Lord_Howe', '2026-10-04', 23.5],
    ['Australia/Lord_Howe', '2026-04-05', 24.5],
    ['Pacific/Chatham', '2026-09-27', 23],
    ['Pacific/Chatham', '2026-04-05', 25],
    ['America/Santiago', '2026-09-06', 23],
    ['Asia/Kathmandu', '2026-04-05', 24],
  ])('in %s on %s are open as long as they last: %d hours', (zone, day, hours) => {
    const opening = openingOf({ week: weekOf('0:00-24:00', '0:00-24:00') }, zone);
    const once = openingOf(
      {
        week: weekOf(''),
        spells: [{ from: day, to: day, spans: spans('0:00-24:00'), why: '' }],
      },
      zone,
    );
    const midnight = at(day, zone);
    expect(opening.openMsBetween(midnight, at(dayAfter(day), zone))).toBe(hours * HOUR_MS);
    expect(once.nextChange(midnight)).toBe(midnight + hours * HOUR_MS);
  });

  it('open at nine by the new time, whichever way it went', () => {
    const opening = openingOf({ week: weekOf('9:00-17:00', '9:00-17:00') });
    for (const day of ['2026-03-29', '2026-10-25']) {
      expect(opening.nextOpen(at(day))).toBe(at(`${day}T09:00`));
    }
  });

  it('skip a span that lies in the hour that is skipped to the hour after', () => {
    const opening = openingOf({ week: weekOf('', '1:10-1:40') });
    // 29 March 2026, 01:00 GMT: clocks show 02:00.
    expect(opening.nextOpen(at('2026-03-29'))).toBe(Date.UTC(2026, 2, 29, 1, 10));
    expect(opening.nextChange(Date.UTC(2026, 2, 29, 1, 10))).toBe(Date.UTC(2026, 2, 29, 1, 40));
  });

  it('are open in the first of two hours that are called the same', () => {
    const opening = openingOf({ week: weekOf('', '1:00-1:30') });
    const first = Date.UTC(2026, 9, 25, 0, 0);
    expect(opening.isOpen(first)).toBe(true);
    expect(opening.isOpen(first + HOUR_MS)).toBe(false);
  });
});

describe('a day', () => {
  it('is one that there is', () => {
    expect(
      ['2026-02-28', '2026-02-29', '2028-02-29', '2026-13-01', '26-1-1', '', '9999-12-31'].map(
        isDay,
      ),
    ).toEqual([true, false, true, false, false, false, false]);
    expect(dayAfter('2026-12-31')).toBe('2027-01-01');
  });

  it('has its spans in their order, as one where they overlap or touch, none longer than a day', () => {
    expect(tidySpans(spans('13:00-17:00 9:00-12:00 11:00-13:00'))).toEqual(spans('9:00-17:00'));
    expect(tidySpans(spans('20:00-27:00 22:00-46:00'))).toEqual(spans('20:00-44:00'));
    expect(tidySpans([])).toEqual([]);
  });
});

/**
 * The `opening_hours` library, which evaluates the notation of OpenStreetMap. It reckons with the zone of its process,
 * so that each zone is asked in one of its own.
 */
const reference = `
const OpeningHours = require('opening_hours');
const cases = JSON.parse(require('fs').readFileSync(0, 'utf8'));
process.stdout.write(JSON.stringify(cases.map(({ text, moments }) => {
  const hours = new OpeningHours(text, null, { mode: 0 });
  return moments.map((at) => {
    const date = new Date(at);
    const next = hours.getNextChange(date);
    return { isOpen: hours.getState(date), next: next ? next.getTime() : null };
  });
})));`;

interface Asked {
  text: string;
  moments: number[];
}
type Answers = { isOpen: boolean; next: number | null }[][];

const ask = (zone: string, cases: Asked[]): Answers =>
  JSON.parse(
    execFileSync(process.execPath, ['-e', reference], {
      env: { ...process.env, TZ: zone },
      input: JSON.stringify(cases),
      encoding: 'utf8',
      maxBuffer: 64 * 1024 * 1024,
    }),
  );

const someSpans = fc
  .array(
    fc
      .tuple(fc.integer({ min: 0, max: 95 }), fc.integer({ min: 1, max: 40 }))
      .map(([from, length]) => ({ from: from * 15, to: (from + length) * 15 })),
    { maxLength: 3 },
  )
  .map(tidySpans)
  // Hours that run into a day that the same rule covers would be said twice.
  .map((tidy) => tidy.filter(({ to }) => to <= DAY_MINUTES + 5 * 60));
const first = '2026-02-01';
const someHours: fc.Arbitrary<OpeningHours> = fc.record({
  week: fc.array(fc.oneof(fc.constant<Spans>([]), someSpans), { minLength: 7, maxLength: 7 }),
  holidays: fc.constant(null),
  spells: fc.array(
    fc
      .tuple(fc.integer({ min: 0, max: 300 }), fc.integer({ min: 0, max: 20 }), someSpans)
      .map(([from, length, own]) => ({
        from: dayAfter(first, from),
        to: dayAfter(first, from + length),
        spans: own,
        why: '',
      })),
    { maxLength: 3 },
  ),
});

describe('against the opening_hours library', () => {
  const zones = [
    ...['Europe/London', 'America/New_York', 'America/Sao_Paulo', 'Asia/Kathmandu', 'UTC'],
    ...['Australia/Lord_Howe', 'Pacific/Chatham', 'Pacific/Kiritimati', 'Africa/Casablanca'],
  ];

  it('it is open, and changes next, at the same moments', () => {
    let compared = 0;
    for (const [place, zone] of zones.entries()) {
      const samples = fc.sample(
        fc.tuple(
          someHours,
          fc.array(fc.integer({ min: 0, max: 310 * 24 * 60 }), { minLength: 14, maxLength: 14 }),
        ),
        { seed: 1_000 + place, numRuns: 48 },
      );
      const cases = samples.map(([hours, minutes]) => ({
        hours,
        text: toOsm(hours, [], '2026-01-01').text,
        moments: minutes.map((minute) => at(first, zone) + minute * MINUTE_MS),
      }));
      const offsetAt = (moment: number): number => DateTime.fromMillis(moment, { zone }).offset;
      // Within a day of a change of clocks the library goes by what they show, twice or never: checked by hand above.
      const isQuiet = (moment: number): boolean =>
        offsetAt(moment - 26 * HOUR_MS) === offsetAt(moment + 26 * HOUR_MS);
      const answers = ask(zone, cases);
      for (const [index, { hours, text, moments }] of cases.entries()) {
        const opening = createOpening(scheduleOf(hours, zone, []));
        for (const [which, moment] of moments.entries()) {
          const answer = answers[index]?.[which];
          if (!isQuiet(moment) || (answer?.next && !isQuiet(answer.next))) continue;
          const ours = { isOpen: opening.isOpen(moment), next: opening.nextChange(moment) };
          expect({ text, zone, moment, ...ours }).toEqual({ text, zone, moment, ...answer });
          compared += 1;
        }
      }
    }
    expect(compared).toBeGreaterThan(5_000);
  }, 120_000);
});
