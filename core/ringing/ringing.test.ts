import { DateTime } from 'luxon';
import type { Entry } from '../conversation';
import {
  bareOf,
  type Cause,
  causes,
  type Doorbell,
  isOnPage,
  isQuiet,
  isRungLine,
  LOAD_LARGEST_BYTES,
  plainDoorbell,
  plainRingOn,
  type QuietHours,
  type Ringable,
  ringLoadFor,
  rings,
  stepsFrom,
  whoRings,
  whoRingsOn,
  withRungLines,
} from '.';

const zone = 'Europe/London';
const at = (iso: string): number => DateTime.fromISO(iso, { zone }).toMillis();
const noon = at('2026-11-12T12:00');
const night: QuietHours = { isOn: true, from: 22 * 60, to: 7 * 60, zone, mayRing: 'nothing' };
const bell = (change: Partial<Doorbell> = {}): Doorbell => ({ ...plainDoorbell(zone), ...change });
const occasion = (cause: Cause) => ({ cause, doorId: 'front-door' });

describe('quiet hours', () => {
  it.each<[string, string, boolean]>([
    ['before they begin', '2026-11-12T21:59', false],
    ['from their first minute', '2026-11-12T22:00', true],
    ['past midnight', '2026-11-13T03:00', true],
    ['to their last minute', '2026-11-13T06:59', true],
    ['no longer than that', '2026-11-13T07:00', false],
  ])('are kept %s', (_when, iso, expected) => {
    expect(isQuiet(night, at(iso))).toBe(expected);
  });

  it('lie within one day where they begin before they end, and are the whole day where both are the same', () => {
    const lunch = { ...night, from: 12 * 60, to: 13 * 60 };
    expect(
      ['11:59', '12:00', '13:00'].map((time) => isQuiet(lunch, at(`2026-11-12T${time}`))),
    ).toEqual([false, true, false]);
    expect(isQuiet({ ...night, from: 60, to: 60 }, noon)).toBe(true);
    expect(isQuiet({ ...night, isOn: false }, at('2026-11-13T03:00'))).toBe(false);
  });

  it('go by the clocks of one’s own zone, whatever the business’s are', () => {
    const lisbonIsMidnight = { ...night, zone: 'Pacific/Auckland' };
    // Noon in London is one at night there (IANA time zone database).
    expect(isQuiet(lisbonIsMidnight, noon)).toBe(true);
  });

  it('are an hour longer in the night in which clocks go back, and shorter when they go on', () => {
    const quietMinutes = (day: string): number => {
      const from = at(`${day}T22:00`);
      return Array.from({ length: 720 }, (_, minute) => from + minute * 60_000).filter((moment) =>
        isQuiet(night, moment),
      ).length;
    };
    // 25 October and 29 March 2026 in Great Britain.
    expect(quietMinutes('2026-10-24')).toBe(600);
    expect(quietMinutes('2026-03-28')).toBe(480);
    expect(quietMinutes('2026-11-12')).toBe(540);
  });

  it('agree with another library on every quarter of an hour of a year', () => {
    const quiet = { ...night, zone: 'America/New_York' };
    const start = Date.UTC(2026, 0, 1);
    for (let quarter = 0; quarter < 4 * 24 * 365; quarter += 1) {
      const moment = start + quarter * 900_000;
      const { hour } = DateTime.fromMillis(moment, { zone: quiet.zone });
      if (isQuiet(quiet, moment) !== (hour >= 22 || hour < 7)) throw new Error(`${moment}`);
    }
  });
});

describe('what rings', () => {
  it.each<[Doorbell['messages'], Cause[]]>([
    ['every', ['first', 'more', 'low', 'again', 'others', 'note', 'owed', 'window']],
    ['first', ['first', 'low', 'again', 'others', 'note', 'owed', 'window']],
    ['low', ['low', 'note', 'owed', 'window']],
  ])('is, for whoever wants %s, just that', (messages, expected) => {
    expect(causes.filter((cause) => rings(bell({ messages }), occasion(cause), noon))).toEqual(
      expected,
    );
  });

  it('is what is left while nobody is in only where that is wanted', () => {
    expect(rings(bell({ notes: false }), occasion('note'), noon)).toBe(false);
  });

  it('is what comes by the doors that were chosen', () => {
    expect(rings(bell({ doorIds: ['front-door'] }), occasion('first'), noon)).toBe(true);
    expect(rings(bell({ doorIds: ['back-door'] }), occasion('first'), noon)).toBe(false);
    expect(rings(bell({ doorIds: [] }), occasion('first'), noon)).toBe(false);
  });

  it('is, in quiet hours, only what may ring then', () => {
    const late = at('2026-11-12T23:00');
    const ringing = (mayRing: QuietHours['mayRing']) =>
      causes.filter((cause) =>
        rings(bell({ quiet: { ...night, mayRing } }), occasion(cause), late),
      );
    expect(ringing('nothing')).toEqual([]);
    expect(ringing('low')).toEqual(['low']);
    expect(ringing('first')).toEqual(['first', 'low']);
  });

  it('is whoever lands on a page that was chosen, or comes back, where that is wanted', () => {
    const landed = { ...occasion('landed'), path: '/plants/fern' };
    expect(rings(bell(), landed, noon)).toBe(false);
    expect(rings(bell({ pages: ['/plants/*'] }), landed, noon)).toBe(true);
    expect(rings(bell(), occasion('back'), noon)).toBe(false);
    expect(rings(bell({ comesBack: true }), occasion('back'), noon)).toBe(true);
  });

  it.each<[string, string, boolean]>([
    ['/delivery', '/delivery', true],
    ['/delivery', '/delivery/', true],
    ['/delivery', '/delivery-times', false],
    ['/plants/*', '/plants', true],
    ['/plants/*', '/plants/fern/big', true],
    ['/plants/*', '/plantsale', false],
    ['/', '/', true],
    ['/', '/plants', false],
    ['/*', '/plants', true],
  ])('takes %s for a page such as %s: %s', (pattern, path, expected) => {
    expect(isOnPage(pattern, path)).toBe(expected);
  });
});

describe('who is rung', () => {
  const person = (id: string, change: Partial<Doorbell> = {}, isLooking = false): Ringable => ({
    id,
    bell: bell(change),
    isLooking,
  });

  it('is whom the door concerns and who wants it, but for whoever looks at it already', () => {
    const people = [
      person('maren'),
      person('tobias', {}, true),
      person('ines', { messages: 'low' }),
      person('wanda'),
    ];
    const concerned = ['maren', 'tobias', 'ines'];
    expect(whoRings(people, concerned, occasion('first'), noon)).toEqual({
      ring: ['maren'],
      looking: ['tobias'],
    });
  });

  it('is the same again, then the others that the rules name, also whom the door is not for', () => {
    const people = [
      person('maren'),
      person('tobias'),
      person('ines', { quiet: { ...night, from: 0, to: 0 } }),
    ];
    const about = { rung: ['maren'], rules: plainRingOn, doorId: 'front-door' };
    expect(whoRingsOn(people, 'again', about, noon).ring).toEqual(['maren']);
    expect(whoRingsOn(people, 'others', about, noon).ring).toEqual(['tobias']);
    const named = { ...about, rules: { ...plainRingOn, otherIds: ['ines'] } };
    expect(whoRingsOn(people, 'others', named, noon).ring).toEqual([]);
  });

  it('is rung on after 60 s, after 2 min and after 5 min, less what is switched off', () => {
    expect(stepsFrom(plainRingOn, 1_000)).toEqual([
      { step: 'again', at: 61_000 },
      { step: 'others', at: 121_000 },
      { step: 'mail', at: 301_000 },
    ]);
    expect(stepsFrom({ ...plainRingOn, othersAfterMs: null }, 0).map(({ step }) => step)).toEqual([
      'again',
      'mail',
    ]);
  });
});

describe('what a ring says', () => {
  const facts = {
    ring: 'ring-00001',
    cause: 'first' as const,
    talk: 'talk-000001',
    whom: 'talk-000001',
    called: { by: 'name' as const, what: 'Wren' },
    door: '',
    text: 'Is the bench\n open?',
    unread: 1,
    picture: 'file-00001',
    waiting: 2,
  };

  it('is the first words on one line, as much as a lock screen shows', () => {
    expect(ringLoadFor(facts, 'maren', bell()).words).toBe('Is the bench open?');
    const long = ringLoadFor({ ...facts, text: 'a'.repeat(500) }, 'maren', bell());
    expect(long.words).toBe(`${'a'.repeat(160)}…`);
  });

  it('is neither words nor picture where they are kept off the lock screen', () => {
    expect(ringLoadFor(facts, 'maren', bell({ hidesWords: true }))).toMatchObject({
      words: '',
      picture: null,
      called: facts.called,
    });
  });

  it('fits into a push whatever was written, by whomever', () => {
    const widest = '\u{1F33F}'.repeat(4_000);
    const load = ringLoadFor(
      {
        ...facts,
        text: widest,
        called: { by: 'name', what: widest.slice(0, 80) },
        door: widest.slice(0, 80),
      },
      'maren',
      bell({ shortReply: widest.slice(0, 140), buttons: ['short-reply', 'put-by'] }),
    );
    expect(Buffer.byteLength(JSON.stringify(load))).toBeLessThan(LOAD_LARGEST_BYTES);
    expect(bareOf(load)).toEqual({ say: 'bare', talk: facts.talk });
  });
});

describe('what was rung, on the roll', () => {
  let seq = 0;
  const entry = (happening: object, minute: number): Entry =>
    ({
      seq: ++seq,
      id: `entry-${seq}`,
      conversationId: 'talk',
      threadId: null,
      at: noon + minute * 60_000,
      ...happening,
    }) as Entry;
  const rang = (memberId: string, minute: number, more: object = {}): Entry =>
    entry({ kind: 'rang', by: 'push', memberId, ...more }, minute);

  it('is one line from the first ring to whoever looked', () => {
    const shown = withRungLines([
      entry({ kind: 'visitor-said', text: 'a', files: [], note: false, page: null }, 0),
      rang('maren', 0),
      rang('maren', 1),
      entry({ kind: 'visitor-said', text: 'b', files: [], note: false, page: null }, 1),
      rang('tobias', 2),
      entry({ kind: 'rang', by: 'mail', memberId: 'maren' }, 5),
      entry({ kind: 'looked', memberId: 'tobias' }, 6),
      entry({ kind: 'visitor-said', text: 'c', files: [], note: false, page: null }, 9),
      rang('maren', 9),
    ]);
    const lines = shown.filter(isRungLine);
    expect(shown.map((one) => (isRungLine(one) ? 'line' : one.kind))).toEqual([
      'visitor-said',
      'line',
      'visitor-said',
      'visitor-said',
      'line',
    ]);
    expect(lines[0]).toMatchObject({
      rung: [
        { memberId: 'maren', by: 'push', at: [noon, noon + 60_000], failed: null },
        { memberId: 'tobias', by: 'push', at: [noon + 120_000] },
        { memberId: 'maren', by: 'mail', at: [noon + 300_000] },
      ],
      looked: { memberId: 'tobias', at: noon + 360_000 },
    });
    expect(lines[1]?.looked).toBeNull();
  });

  it('tells a ring that came through from one that did not', () => {
    const [line] = withRungLines([
      rang('maren', 0, { failed: 'push-gone' }),
      rang('maren', 1),
    ]).filter(isRungLine);
    expect(line?.rung.map(({ failed }) => failed)).toEqual(['push-gone', null]);
  });

  it('shows no look that no ring came before', () => {
    expect(withRungLines([entry({ kind: 'looked', memberId: 'maren' }, 0)])).toEqual([]);
  });
});
