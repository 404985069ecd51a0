import type { OpeningHours } from '@porch/core/hours/opening';
import Holidays from 'date-holidays';
import { type House, openHouse, setUp, setUpOnly } from '../../test-kit/house';
import { openDevice, visit } from '../../test-kit/panel';
import { addHelper } from '../../test-kit/routes';
import { askCalendar } from './calendar';

const minute = 60_000;
const hour = 60 * minute;
const day = [{ from: 540, to: 1_050 }];
const week = [day, day, day, day, day, [], []];
const plain: OpeningHours = { week, holidays: null, spells: [] };

/** November 2026, in London; the house's clock stands at the 12th, a Thursday, 10:00. */
const november = (date: number, atHour: number, minutes = 0): number =>
  Date.UTC(2026, 10, date, atHour, minutes);

describe('opening hours', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  const set = (cookie: string, hours: unknown) =>
    house.ask('PUT', '/api/hours', { cookie, body: { hours } });

  it('light the lamp and put it out for team, panel and plate', async () => {
    const { door, cookie } = await setUp(house);
    const device = await openDevice(house, cookie);
    const panel = await visit(house, door.publicId, 'wren');
    expect((await set(cookie, plain)).body).toMatchObject({
      house: plain,
      zone: 'Europe/London',
      today: '2026-11-12',
    });
    expect((await device.hear('lamp')).lamp).toMatchObject({
      state: 'lit',
      until: november(12, 17, 30),
      isOpen: true,
      hasHours: true,
      opensNext: november(13, 9),
    });
    expect((await panel.hear('lamp')).lamp).toEqual({ state: 'lit', until: november(12, 17, 30) });
    house.clock.advance(7.5 * hour);
    await house.tick();
    const evening = { state: 'dark', until: november(13, 9) };
    const isDark = ({ lamp }: { lamp: { state: string } }) => lamp.state === 'dark';
    expect((await device.hear('lamp', isDark)).lamp).toMatchObject({ ...evening, isOpen: false });
    expect((await panel.hear('lamp', isDark)).lamp).toEqual(evening);
    await panel.say('Is somebody there?');
    expect(house.store.conversations.counts()).toMatchObject({ waiting: 0, note: 1 });
  });

  it('of a door of its own hold for that door only', async () => {
    const { door, cookie } = await setUp(house);
    await set(cookie, plain);
    const late = [[], [], [], [{ from: 1_080, to: 1_560 }], [], [], []];
    const own = await house.ask('PUT', `/api/doors/${door.id}/hours`, {
      cookie,
      body: { week: late },
    });
    expect(own.body.doors).toEqual({ [door.id]: late });
    const { lamp } = house.services;
    expect(lamp.atDoor(door.id)).toEqual({ state: 'dark', until: november(12, 18) });
    expect(lamp.forTeam().state).toBe('lit');
    house.clock.advance(15 * hour);
    expect(lamp.atDoor(door.id)).toEqual({ state: 'lit', until: november(13, 2) });
    await house.ask('PUT', `/api/doors/${door.id}/hours`, { cookie, body: { week: null } });
    expect(lamp.atDoor(door.id)).toEqual({ state: 'dark', until: november(13, 9) });
  });

  it('follow the business into another zone', async () => {
    const { cookie } = await setUp(house);
    await set(cookie, plain);
    const business = { name: 'Quillfern Nursery', zone: 'Asia/Kathmandu', address: '' };
    await house.ask('PUT', '/api/business', { cookie, body: business });
    // 10:00 in London is 15:45 there, and half past five comes at 11:45.
    expect(house.services.lamp.forTeam()).toMatchObject({
      state: 'lit',
      until: november(12, 11, 45),
    });
  });

  it('keep overlapping spans as one, and days of their own in their order', async () => {
    const { cookie } = await setUp(house);
    const double = [{ from: 700, to: 1_050 }, ...day, { from: 0, to: 10 }];
    const spells = [
      { from: '2026-12-24', to: '2027-01-02', spans: [], why: ' Winter\u0007 break ' },
      { from: '2026-12-01', to: '2026-12-01', spans: day, why: '' },
    ];
    const { body } = await set(cookie, {
      ...plain,
      week: [double, ...week.slice(1)],
      spells,
    });
    expect(body.house.week[0]).toEqual([
      { from: 0, to: 10 },
      { from: 540, to: 1_050 },
    ]);
    expect(
      body.house.spells.map(({ from, why }: { from: string; why: string }) => [from, why]),
    ).toEqual([
      ['2026-12-01', ''],
      ['2026-12-24', 'Winter break'],
    ]);
  });

  it.each([
    [
      'a span that ends before it begins',
      { ...plain, week: [[{ from: 600, to: 540 }], ...week.slice(1)] },
    ],
    [
      'a span longer than a day',
      { ...plain, week: [[{ from: 600, to: 2_100 }], ...week.slice(1)] },
    ],
    ['half a minute', { ...plain, week: [[{ from: 0.5, to: 540 }], ...week.slice(1)] }],
    ['a week of six days', { ...plain, week: week.slice(1) }],
    [
      'a day that is none',
      { ...plain, spells: [{ from: '2026-02-30', to: '2026-03-01', spans: [], why: '' }] },
    ],
    [
      'days that end before they begin',
      { ...plain, spells: [{ from: '2026-12-24', to: '2026-12-01', spans: [], why: '' }] },
    ],
    [
      'more spans than a day may have',
      {
        ...plain,
        week: [
          Array.from({ length: 13 }, (_none, index) => ({ from: index * 60, to: index * 60 + 30 })),
          ...week.slice(1),
        ],
      },
    ],
    [
      'a country that is none',
      { ...plain, holidays: { country: 'ZZ', region: '', others: 'closed', choices: {} } },
    ],
    [
      'days that go on for longer than a year',
      { ...plain, spells: [{ from: '2026-01-01', to: '2027-06-01', spans: [], why: '' }] },
    ],
    ['a text', 'Mo-Fr 09:00-17:00'],
  ])('are refused with %s, and stay what they were', async (_what, hours) => {
    const { cookie } = await setUp(house);
    await set(cookie, plain);
    expect((await set(cookie, hours)).status).toBe(400);
    expect((await house.ask('GET', '/api/hours', { cookie })).body.house).toEqual(plain);
  });

  it('shut on the holidays of the place, but for those that are chosen otherwise', async () => {
    const { cookie } = await setUp(house);
    const asked = await house.ask('GET', '/api/holidays?country=GB&region=SCT', { cookie });
    const andrew = asked.body.holidays.find(({ name }: { name: string }) => /Andrew/.test(name));
    expect(andrew.day).toBe('2026-11-30');
    expect(asked.body.regions).toContainEqual({ code: 'SCT', name: 'Scotland' });
    const holidays = { country: 'GB', region: 'SCT', others: 'closed', choices: {} };
    const kept = await set(cookie, { ...plain, holidays });
    expect(kept.body.holidays).toContainEqual(andrew);
    const { hours } = house.services;
    expect(hours.opening().isOpen(november(30, 11))).toBe(false);
    await set(cookie, { ...plain, holidays: { ...holidays, choices: { [andrew.key]: 'usual' } } });
    expect(hours.opening().isOpen(november(30, 11))).toBe(true);
    await set(cookie, {
      ...plain,
      holidays: { ...holidays, choices: { [andrew.key]: [{ from: 600, to: 720 }] } },
    });
    expect(hours.opening().openMsBetween(november(30, 0), november(30, 24))).toBe(2 * hour);
  });

  it('have the holidays of years that come, asked for when they come', async () => {
    const { cookie } = await setUp(house);
    const holidays = { country: 'GB', region: '', others: 'closed', choices: {} };
    await set(cookie, { ...plain, holidays });
    house.clock.advance(2 * 366 * 24 * hour);
    await house.services.hours.tidy();
    const years = house.store.hours.holidaysOf('GB', '').map(({ year }) => year);
    expect(years).toEqual(expect.arrayContaining([2027, 2028, 2029, 2030, 2031]));
    expect(house.services.hours.opening().isOpen(Date.UTC(2031, 11, 25, 11))).toBe(false);
  });

  it('are found out a place at a time, each once, however many ask', async () => {
    await house.close();
    let asking = 0;
    let most = 0;
    const asked: string[] = [];
    house = await openHouse({}, ':memory:', {
      holidays: async ({ country, years }) => {
        asked.push(country);
        asking += 1;
        most = Math.max(most, asking);
        await new Promise((resolve) => setImmediate(resolve));
        asking -= 1;
        return { years: years.map((year) => ({ year, days: [] })), regions: [] };
      },
    });
    const { cookie } = await setUp(house);
    const look = (country: string) =>
      house.ask('GET', `/api/holidays?country=${country}`, { cookie });
    await Promise.all(['GB', 'DE', 'GB', 'DE', 'GB'].map(look));
    expect([most, asked.sort()]).toEqual([1, ['DE', 'GB']]);
  });

  it('are kept as they were where the holidays cannot be found out', async () => {
    await house.close();
    house = await openHouse({}, ':memory:', { holidays: async () => null });
    const { cookie } = await setUpOnly(house);
    const holidays = { country: 'GB', region: '', others: 'closed', choices: {} };
    expect((await set(cookie, { ...plain, holidays })).body.code).toBe('country-unknown');
    expect((await house.ask('GET', '/api/hours', { cookie })).body.house).toBeNull();
  });
});

describe('holidays', () => {
  // Checked against the data of the date-holidays package, asked in its own way, day by day.
  it.each([
    ['GB', 'SCT'],
    ['DE', 'BY'],
    ['CN', ''],
    ['SA', ''],
  ])('of %s %s are those that the calendar names', async (country, region) => {
    const years = [2026];
    const calendar = await askCalendar({ country, region, years });
    const reference = region ? new Holidays(country, region) : new Holidays(country);
    const zone = 'UTC';
    reference.setTimezone(zone);
    for (const { year, days } of calendar?.years ?? []) {
      const listed = new Set(days.map((holiday) => holiday.day));
      for (let at = Date.UTC(year, 0, 1, 12); at < Date.UTC(year + 1, 0, 1); at += 24 * hour) {
        const date = new Date(at).toISOString().slice(0, 10);
        const found = reference.isHoliday(new Date(at));
        const isPublic =
          Boolean(found) && found !== false && found.some(({ type }) => type === 'public');
        expect([date, listed.has(date)]).toEqual([date, isPublic]);
      }
    }
    expect(calendar?.years.map(({ year }) => year)).toEqual(years);
  });
});

describe('who is in', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  const out = (cookie: string, id: string, until: number | null) =>
    house.ask('PUT', `/api/members/${id}/out`, { cookie, body: { out: { until } } });

  it('decides with the hours whether the light is lit', async () => {
    const { cookie, member } = await setUp(house);
    const helper = await addHelper(house);
    const other = house.store.members.all().find(({ role }) => role === 'helper')?.id ?? '';
    expect((await out(cookie, member.id, null)).body.state).toBe('lit');
    const back = house.clock.now() + 30 * minute;
    expect((await out(helper, other, back)).body).toMatchObject({
      state: 'dark',
      until: back,
      why: 'nobody-in',
    });
    house.clock.advance(30 * minute);
    await house.tick();
    expect(house.services.lamp.forTeam().state).toBe('lit');
    const outs = new Map(house.store.members.all().map((one) => [one.id, one.out]));
    expect(outs.get(member.id)).toEqual({ until: null });
    expect(outs.get(other)).toBeNull();
  });

  it('counts at a door only whoever answers there', async () => {
    const { cookie, member, door } = await setUp(house);
    await addHelper(house);
    house.store.doors.update({ ...door, memberIds: [member.id] });
    await out(cookie, member.id, null);
    expect(house.services.lamp.forTeam().state).toBe('lit');
    expect(house.services.lamp.atDoor(door.id).state).toBe('dark');
  });

  it('is said for others by an owner only, and in by whoever lights the lamp', async () => {
    const { cookie, member } = await setUp(house);
    const helper = await addHelper(house);
    expect((await out(helper, member.id, null)).body.code).toBe('role-not-enough');
    expect((await out(cookie, member.id, house.clock.now())).body.code).toBe('time-not-ahead');
    const other = house.store.members.all().find(({ role }) => role === 'helper')?.id ?? '';
    expect((await out(cookie, other, null)).status).toBe(200);
    await house.ask('PUT', '/api/lamp', { cookie: helper, body: { state: 'lit', until: null } });
    expect(house.store.members.byId(other)).toBeTruthy();
    expect(house.store.members.all().find(({ id }) => id === other)?.out).toBeNull();
  });
});

describe('the light set by hand', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  it('ends by itself, says so for a while, and goes by the hours again', async () => {
    const { cookie } = await setUp(house);
    await house.ask('PUT', '/api/hours', { cookie, body: { hours: plain } });
    const until = november(13, 9);
    const set = await house.ask('PUT', '/api/lamp', { cookie, body: { state: 'dark', until } });
    expect(set.body).toMatchObject({ state: 'dark', until, why: 'hand', ended: null });
    house.clock.advance(until - house.clock.now());
    await house.tick();
    expect(house.services.lamp.forTeam()).toMatchObject({
      state: 'lit',
      why: 'hours',
      setting: { state: 'by-hours' },
      ended: { state: 'dark', at: until },
    });
    house.clock.advance(15 * minute);
    expect(house.services.lamp.forTeam().ended).toBeNull();
  });

  it('is refused for a time that is past or out of all measure', async () => {
    const { cookie } = await setUp(house);
    const set = (state: string, until: number) =>
      house.ask('PUT', '/api/lamp', { cookie, body: { state, until } });
    const now = house.clock.now();
    expect((await set('back-soon', now)).body.code).toBe('time-not-ahead');
    expect((await set('back-soon', now + 25 * hour)).body.code).toBe('bad-request');
    expect((await set('dark', now + 400 * 24 * hour)).body.code).toBe('bad-request');
    expect(house.services.lamp.forTeam()).toMatchObject({
      state: 'lit',
      setting: { state: 'by-hours' },
    });
  });
});
