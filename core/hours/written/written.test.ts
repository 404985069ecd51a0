import fc from 'fast-check';
import { spans } from '../../test-kit/spans';
import { DAY_MINUTES, dayAfter, type OpeningHours, type Spans, tidySpans } from '../opening';
import { fromJsonLd, fromOsm, HOURS_TEXT_LONGEST, readHours, toJsonLd, toOsm } from '.';

// The reference implementation of the notation (it has types of its own, which are not those that it exports).
const OpeningHoursLibrary = require('opening_hours');

const today = '2026-11-26';
const closedWeek: Spans[] = Array.from({ length: 7 }, () => []);
const hoursOf = (change: Partial<OpeningHours> = {}): OpeningHours => ({
  week: [
    ...Array.from({ length: 5 }, () => spans('9:00-12:30 13:30-17:30')),
    spans('10:00-16:00'),
    [],
  ],
  holidays: null,
  spells: [],
  ...change,
});
/** Days from Monday on as a short text each: "9:00-17:00". */
const shownWeek = (week: readonly Spans[]): string[] =>
  week.map((day) =>
    day
      .map(({ from, to }) =>
        [from, to]
          .map((at) => `${Math.floor(at / 60)}:${String(at % 60).padStart(2, '0')}`)
          .join('-'),
      )
      .join(' '),
  );

describe("OpenStreetMap's notation", () => {
  it('says a week, holidays, and days of their own', () => {
    const hours = hoursOf({
      holidays: { country: 'GB', region: 'ENG', others: 'closed', choices: {} },
      spells: [
        { from: '2026-12-24', to: '2027-01-02', spans: [], why: '' },
        { from: '2026-12-05', to: '2026-12-06', spans: spans('10:00-20:00'), why: 'Winter fair' },
        { from: '2026-11-01', to: '2026-11-02', spans: [], why: '' },
      ],
    });
    expect(toOsm(hours, [], today)).toEqual({
      text: 'Mo-Fr 09:00-12:30,13:30-17:30; Sa 10:00-16:00; PH off; 2026 Dec 05-06 10:00-20:00; 2026 Dec 24-2027 Jan 02 off',
      left: [{ text: 'Winter fair', why: 'reason-unsaid' }],
    });
  });

  it('says holidays that are chosen by themselves as days, and that these are two years', () => {
    const choices = { xmas: spans('11:00-13:00'), boxing: 'usual' as const };
    const hours = hoursOf({ holidays: { country: 'GB', region: '', others: 'closed', choices } });
    const calendar = [
      { day: '2026-12-25', key: 'xmas', name: 'Christmas Day' },
      { day: '2026-12-28', key: 'boxing', name: 'Boxing Day' },
      { day: '2027-01-01', key: 'new', name: 'New Year' },
    ];
    const { text, left } = toOsm(hours, calendar, today);
    expect(text).toMatch(/; PH off; 2026 Dec 25 11:00-13:00; 2026 Dec 28 09:00-12:30,13:30-17:30$/);
    expect(left).toEqual([{ text: 'PH', why: 'two-years' }]);
  });

  it('says no holidays where they are days like others', () => {
    const calendar = [{ day: '2026-12-25', key: 'xmas', name: 'Christmas Day' }];
    const night = hoursOf({ week: Array.from({ length: 7 }, () => spans('18:00-26:00')) });
    expect(toOsm(night, calendar, today)).toEqual({ text: 'Mo-Su 18:00-02:00', left: [] });
  });

  it('says nights, whole days and no hours at all', () => {
    const say = (week: Spans[]) => toOsm(hoursOf({ week }), [], today).text;
    const every = (text: string) => Array.from({ length: 7 }, () => spans(text));
    expect(say(every('18:00-26:00'))).toBe('Mo-Su 18:00-02:00');
    expect(say(every('10:00-34:00'))).toBe('Mo-Su 10:00-34:00');
    expect(say(every('0:00-24:00'))).toBe('24/7');
    expect(say(closedWeek)).toBe('off');
    expect(say([spans('18:00-26:00'), spans('9:00-12:00'), ...closedWeek.slice(2)])).toBe(
      'Mo 18:00-02:00, Tu 09:00-12:00',
    );
  });

  // https://wiki.openstreetmap.org/wiki/Key:opening_hours and its page of the specification, examples
  it.each([
    ['24/7', ['0:00-24:00', '0:00-24:00']],
    ['Mo-Fr 08:00-17:30', ['8:00-17:30', '']],
    ['Mo-Fr 08:00-12:00,13:00-17:30; Sa 08:00-12:00', ['8:00-12:00 13:00-17:30', '8:00-12:00']],
    ['Mo-Sa 10:00-20:00; Tu off', ['10:00-20:00', '10:00-20:00']],
    ['Mo-Fr 18:00-02:00', ['18:00-26:00', '']],
    ['Tu-Th 20:00-03:00', ['', '']],
    ['Mo-Fr 09:00–17:00, Sa 10:00-12:00', ['9:00-17:00', '10:00-12:00']],
    ['Sa-Mo,We 9:30-12:00', ['9:30-12:00', '9:30-12:00']],
  ])('is read: %s', (text, [monday, saturday]) => {
    const { week, left } = fromOsm(text, today);
    const shown = shownWeek(week);
    expect([shown[0], shown[5]]).toEqual([monday, saturday]);
    expect(left).toEqual([]);
  });

  it('is read with later rules in the place of earlier ones, and those after a comma beside them', () => {
    expect(shownWeek(fromOsm('Mo-Fr 09:00-17:00; We off', today).week)[2]).toBe('');
    expect(shownWeek(fromOsm('Mo-Fr 09:00-12:00, We 14:00-16:00', today).week)[2]).toBe(
      '9:00-12:00 14:00-16:00',
    );
  });

  // Each as the `opening_hours` library has it, whose specification says that a later rule overrides an earlier one.
  it.each([
    ['Mo-Fr 22:00-02:00; Sa off', ['22:00-24:00', '']],
    ['Mo-Fr 22:00-02:00; Sa 10:00-12:00', ['22:00-24:00', '10:00-12:00']],
    ['Sa 10:00-12:00; Fr 22:00-02:00', ['22:00-26:00', '10:00-12:00']],
    ['Mo-Fr 22:00-02:00, Sa 10:00-12:00', ['22:00-26:00', '10:00-12:00']],
    ['Mo-Su 22:00-02:00; Sa,Su off', ['22:00-24:00', '']],
    ['Mo-Su 22:00-02:00; Su off', ['22:00-26:00', '22:00-24:00']],
  ])(
    'is read with a later rule over what reaches past midnight: %s',
    (text, [friday, saturday]) => {
      const { week, left } = fromOsm(text, today);
      const shown = shownWeek(week);
      expect([shown[4], shown[5]]).toEqual([friday, saturday]);
      expect(left).toEqual([]);
      const reference = new OpeningHoursLibrary(text);
      // Friday 27 November 2026 and the night after it, by the hour.
      for (let hour = 0; hour < 48; hour += 1) {
        const at = new Date(2026, 10, 27, hour, 30);
        const minute = hour * 60 + 30;
        const isOpen = [
          [3, minute + DAY_MINUTES],
          [4, minute],
          [5, minute - DAY_MINUTES],
        ].some(([day = 0, its = 0]) => week[day]?.some(({ from, to }) => its >= from && its < to));
        expect([text, hour, isOpen]).toEqual([text, hour, reference.getState(at)]);
      }
    },
  );

  it.each([
    ['Su-Th,PH 10:00-12:00; Mo-Fr off', [{ from: 600, to: 720 }], ['holidays-differ']],
    ['PH off; Mo-Fr 10:00-12:00', 'usual', []],
    ['PH 10:00-12:00; Mo-Su 14:00-15:00', 'usual', []],
    ['Mo-Fr 10:00-12:00; PH off', 'closed', []],
  ])(
    'is read with holidays as a later rule has them, or says that it cannot: %s',
    (text, on, why) => {
      const { onHolidays, left } = fromOsm(text, today);
      expect(onHolidays).toEqual(on);
      expect(left.map((one) => one.why)).toEqual(why);
    },
  );

  it('is read with holidays and days of their own', () => {
    const read = fromOsm(
      'Mo-Fr,PH 09:00-17:00; PH off; 2026 Dec 24-2027 Jan 02 off; 2026 Dec 05 10:00-12:00, 2026 Dec 05 14:00-16:00',
      today,
    );
    expect(read.onHolidays).toBe('closed');
    expect(read.spells).toEqual([
      { from: '2026-12-24', to: '2027-01-02', spans: [], why: '' },
      { from: '2026-12-05', to: '2026-12-05', spans: spans('10:00-12:00 14:00-16:00'), why: '' },
    ]);
    expect(fromOsm('PH 10:00-12:00', today).onHolidays).toEqual(spans('10:00-12:00'));
    expect(fromOsm('PH 10:00-12:00, PH 14:00-16:00', today).onHolidays).toEqual(
      spans('10:00-12:00 14:00-16:00'),
    );
    expect(fromOsm('Mo 10:00-12:00', today).onHolidays).toBeNull();
  });

  it('takes a day that comes every year for its next time, and says so', () => {
    const { spells, left } = fromOsm('Dec 25-26 off; Mar 01 off', today);
    expect(spells.map(({ from, to }) => [from, to])).toEqual([
      ['2026-12-25', '2026-12-26'],
      ['2027-03-01', '2027-03-01'],
    ]);
    expect(left.map(({ why }) => why)).toEqual(['only-next', 'only-next']);
    expect(fromOsm('Dec 30-Jan 02 off', '2027-01-01').spells[0]?.from).toBe('2027-12-30');
  });

  it.each([
    ['Apr-Sep Mo-Fr 09:00-18:00', 'season'],
    ['SH Mo-Fr 09:00-18:00', 'season'],
    ['week 01-10 Mo 09:00-18:00', 'season'],
    ['sunrise-sunset', 'sun'],
    ['Mo-Fr 09:00-sunset', 'sun'],
    ['Su 10:00+', 'open-end'],
    ['Mo 09:00-17:00 || "by appointment"', 'otherwise'],
    ['2026 Nov 01 off', 'over'],
    ['2026 Dec 01-2028 Dec 01 off', 'too-long'],
    ['Su[1] 10:00-12:00', 'not-understood'],
    ['when we feel like it', 'not-understood'],
    ['Mo 25:00-26:00', 'not-understood'],
    ['Mo 10:61-11:00', 'not-understood'],
    ['2026 Feb 30 off', 'not-understood'],
  ])('leaves what it does not carry, with the reason: %s is %s', (text, why) => {
    const { week, spells, left } = fromOsm(`Mo 08:00-09:00; ${text}`, today);
    expect(left).toContainEqual({ text: expect.stringContaining(text.slice(0, 6)), why });
    expect(shownWeek(week)[0]).toBe('8:00-9:00');
    expect(spells).toEqual([]);
  });

  it('leaves remarks, which may hold what would part rules', () => {
    const { week, left } = fromOsm('Mo 09:00-17:00 "ring; twice, We"', today);
    expect(left).toEqual([{ text: 'ring; twice, We', why: 'remark' }]);
    expect(shownWeek(week)[0]).toBe('9:00-17:00');
  });
});

describe("schema.org's JSON-LD", () => {
  it('says a week, holidays, and days of their own', () => {
    const hours = hoursOf({
      week: [...Array.from({ length: 5 }, () => spans('9:00-17:30')), spans('18:00-26:00'), []],
      holidays: { country: 'GB', region: 'ENG', others: 'closed', choices: {} },
      spells: [{ from: '2026-12-24', to: '2027-01-02', spans: [], why: '' }],
    });
    expect(JSON.parse(toJsonLd(hours, 'Quillfern Nursery', [], today).text)).toEqual({
      '@context': 'https://schema.org',
      '@type': 'LocalBusiness',
      name: 'Quillfern Nursery',
      openingHoursSpecification: [
        {
          '@type': 'OpeningHoursSpecification',
          dayOfWeek: ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday'],
          opens: '09:00',
          closes: '17:30',
        },
        {
          '@type': 'OpeningHoursSpecification',
          dayOfWeek: ['Saturday'],
          opens: '18:00',
          closes: '02:00',
        },
        { '@type': 'OpeningHoursSpecification', dayOfWeek: 'PublicHolidays' },
      ],
      specialOpeningHoursSpecification: [
        {
          '@type': 'OpeningHoursSpecification',
          validFrom: '2026-12-24',
          validThrough: '2027-01-02',
        },
      ],
    });
  });

  it('says holidays that are chosen by themselves as days, and that these are two years', () => {
    const choices = {
      xmas: spans('11:00-13:00'),
      boxing: 'usual' as const,
      fools: 'closed' as const,
    };
    const holidays = { country: 'GB', region: '', others: 'usual' as const, choices };
    const spells = [{ from: '2027-04-01', to: '2027-04-02', spans: [], why: '' }];
    const calendar = [
      { day: '2026-12-25', key: 'xmas', name: '' },
      { day: '2026-12-26', key: 'boxing', name: '' },
      { day: '2027-04-01', key: 'fools', name: '' },
    ];
    const { text, left } = toJsonLd(hoursOf({ holidays, spells }), '', calendar, today);
    const said = fromJsonLd(text, today).spells.map(({ from, spans: own }) => [from, own]);
    expect(said).toEqual([
      ['2027-04-01', []],
      ['2026-12-25', spans('11:00-13:00')],
      ['2026-12-26', spans('10:00-16:00')],
    ]);
    expect(left).toEqual([{ text: 'PublicHolidays', why: 'two-years' }]);
  });

  // https://schema.org/OpeningHoursSpecification and https://schema.org/openingHours, examples
  it('is read in its long form and in its short one, wherever it hangs', () => {
    const long = {
      '@context': 'https://schema.org',
      '@graph': [
        {
          '@type': 'Store',
          openingHoursSpecification: [
            {
              '@type': 'OpeningHoursSpecification',
              closes: '17:00:00',
              dayOfWeek: 'https://schema.org/Sunday',
              opens: '09:00:00',
            },
            {
              '@type': 'OpeningHoursSpecification',
              dayOfWeek: ['Monday', 'http://schema.org/Tuesday'],
              opens: '00:00',
              closes: '23:59',
            },
            {
              '@type': 'OpeningHoursSpecification',
              opens: '09:00',
              closes: '12:00',
              validFrom: '2026-12-24',
              validThrough: '2026-12-24',
            },
          ],
        },
      ],
    };
    const read = readHours(
      `<script type="application/ld+json">${JSON.stringify(long)}</script>`,
      today,
    );
    expect(shownWeek(read.week)).toEqual([
      '0:00-24:00',
      '0:00-24:00',
      '',
      '',
      '',
      '',
      '9:00-17:00',
    ]);
    expect(read.spells).toEqual([
      { from: '2026-12-24', to: '2026-12-24', spans: spans('9:00-12:00'), why: '' },
    ]);
    expect(read.left).toEqual([]);
    const short = readHours(
      '{"@type":"Store","openingHours":["Mo-Sa 11:00-14:30","Mo-Th 17:00-21:30"]}',
      today,
    );
    expect(shownWeek(short.week)[0]).toBe('11:00-14:30 17:00-21:30');
    expect(shownWeek(short.week)[5]).toBe('11:00-14:30');
  });

  it.each([
    ['no JSON at all', '{"opens":'],
    [
      'times that are none',
      '{"@type":"OpeningHoursSpecification","dayOfWeek":"Monday","opens":"late","closes":"later"}',
    ],
    [
      'a day that is none',
      '{"@type":"OpeningHoursSpecification","dayOfWeek":"Someday","opens":"09:00","closes":"10:00"}',
    ],
    [
      'the same time twice',
      '{"@type":"OpeningHoursSpecification","dayOfWeek":"Monday","opens":"00:00","closes":"00:00"}',
    ],
    [
      'days of their own that last for years',
      '{"@type":"OpeningHoursSpecification","validFrom":"2026-12-01","validThrough":"2028-12-01"}',
    ],
    ['hours that are no object', '{"openingHoursSpecification":["soon", 3, null]}'],
  ])('leaves what it does not understand: %s', (_name, text) => {
    const { week, left } = fromJsonLd(text, today);
    expect(left.length).toBeGreaterThan(0);
    expect(shownWeek(week).join('')).toBe('');
  });
});

describe('written and read again', () => {
  const someSpans = fc
    .array(
      fc
        .tuple(fc.integer({ min: 0, max: 95 }), fc.integer({ min: 1, max: 50 }))
        .map(([from, length]) => ({ from: from * 15, to: (from + length) * 15 })),
      { maxLength: 3 },
    )
    .map(tidySpans);
  const sameDay = someSpans.map((all) => all.filter(({ to }) => to <= 1_440));
  const some = (each: fc.Arbitrary<Spans>): fc.Arbitrary<OpeningHours> =>
    fc.record({
      week: fc.array(each, { minLength: 7, maxLength: 7 }),
      holidays: fc.option(
        fc
          .oneof(
            fc.constant('closed' as const),
            each.filter((own) => own.length > 0),
          )
          .map((others) => ({
            country: 'GB',
            region: '',
            others,
            choices: {},
          })),
      ),
      spells: fc
        .tuple(fc.integer({ min: 0, max: 300 }), fc.integer({ min: 0, max: 20 }), each)
        .map(([from, length, own]) => [
          { from: dayAfter(today, from), to: dayAfter(today, from + length), spans: own, why: '' },
        ]),
    });
  const read = ({ week, spells, onHolidays }: ReturnType<typeof fromOsm>) => ({
    week,
    spells,
    others: onHolidays ?? 'usual',
  });
  const meant = ({ week, spells, holidays }: OpeningHours) => ({
    week,
    spells,
    others: holidays?.others ?? 'usual',
  });

  it('is the same: by OpenStreetMap, where no night runs into a day of its own', () => {
    fc.assert(
      fc.property(some(sameDay), (hours) => {
        expect(read(fromOsm(toOsm(hours, [], today).text, today))).toEqual(meant(hours));
      }),
      { seed: 3, numRuns: 400 },
    );
  });

  it('is the same by schema.org, nights and all', () => {
    // From a time to the same one of the next day there is no way to say: it loses a minute, and that is said.
    const sayable = someSpans.map((all) => all.filter(({ from, to }) => to - from < 1_440));
    fc.assert(
      fc.property(some(sayable), (hours) => {
        expect(read(fromJsonLd(toJsonLd(hours, '', [], today).text, today))).toEqual(meant(hours));
      }),
      { seed: 4, numRuns: 400 },
    );
  });

  it('never throws, and is done at once, whatever is pasted', () => {
    const pieces = [
      'Mo',
      '-',
      ',',
      ';',
      '09:00',
      '2026 Dec 24',
      'PH',
      'off',
      '"',
      '{',
      '[',
      '<',
      ' ',
      '||',
      '24/7',
    ];
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.array(fc.constantFrom(...pieces)).map((all) => all.join('')),
        ),
        (text) => {
          expect(readHours(text, today).week).toHaveLength(7);
        },
      ),
      { seed: 5, numRuns: 2_000 },
    );
    for (const piece of ['Mo,', '09:00-10:00,', '"', '[', 'PH ', '2026 Dec 24-']) {
      readHours(piece.repeat(Math.floor(HOURS_TEXT_LONGEST / piece.length)), today);
    }
  });
});
