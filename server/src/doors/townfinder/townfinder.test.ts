import { becomes, type NetworkHouse, openNetworkHouse } from '../../../test-kit/network-house';
import { networkOf } from '../../../test-kit/networks';

const minute = 60_000;
const hour = 60 * minute;

describe('a listing', () => {
  let here: NetworkHouse;
  const shows = (change: Partial<typeof here.far.listing>): Promise<true> =>
    becomes(() =>
      Object.entries(change).every(([field, value]) => here.far.listing[field as 'chat'] === value),
    );
  const lamp = (state: string, until: number | null = null) =>
    here.house.ask('PUT', '/api/lamp', { cookie: here.cookie, body: { state, until } });
  const light = () => here.house.services.lamp.forTeam();
  const settled = (): Promise<true> =>
    becomes(() =>
      ['', ' then'].every((more) => !here.house.store.jobs.byKey(`listing ${here.doorId}${more}`)),
    );
  const kept = async () => {
    await settled();
    return (await here.doors('GET', `/${here.doorId}`)).body.listing;
  };
  /** Its owner changes it there, and the network says so. */
  const changeThere = async (change: Partial<typeof here.far.listing>): Promise<void> => {
    Object.assign(here.far.listing, change);
    await here.handBody('{"kind":"changed"}');
  };
  const ahead = (ms: number): number => here.house.clock.now() + ms;

  beforeEach(async () => {
    here = await openNetworkHouse(networkOf('townfinder'));
    // As soon as it is there it says what the light does.
    await shows({ chat: true, away_until: null });
    await settled();
  });
  afterEach(() => here.house.close());

  it('says what the light shows, as soon as that is another', async () => {
    await lamp('back-soon', ahead(hour));
    await shows({ chat: true, away_until: new Date(ahead(hour)).toISOString() });
    await lamp('dark');
    await shows({ chat: false });
    await lamp('lit');
    await shows({ chat: true, away_until: null });
    expect(await kept()).toMatchObject({ agreed: { isOn: true, awayUntil: null } });
  });

  it('is followed by the light where its owner has changed it there', async () => {
    const until = ahead(hour);
    await changeThere({ away_until: new Date(until).toISOString() });
    await becomes(() => light().state === 'back-soon');
    expect(light().until).toBe(until);
    await changeThere({ chat: false, away_until: null });
    await becomes(() => light().state === 'dark');
    await changeThere({ chat: true });
    await becomes(() => light().state === 'lit');
    await settled();
    expect(await kept()).toMatchObject({ differed: ['chat'], theirs: { isOn: true } });
  });

  it('that says nothing of a change is found out all the same', async () => {
    here.far.listing.chat = false;
    here.house.clock.advance(11 * minute);
    await here.house.tick();
    await becomes(() => light().state === 'dark');
  });

  it('comes back by itself when the time is over that it was away for', async () => {
    await changeThere({ away_until: new Date(ahead(hour)).toISOString() });
    await becomes(() => light().state === 'back-soon');
    here.house.clock.advance(hour + minute);
    await here.house.tick();
    expect(light().state).toBe('lit');
    await settled();
    expect(light().state).toBe('lit');
  });

  it('is handed the opening hours, and other ones there are said to have differed', async () => {
    const span = [{ from: 9 * 60, to: 17 * 60 }];
    const week = [span, span, span, span, span, [], []];
    await here.house.ask('PUT', '/api/hours', {
      cookie: here.cookie,
      body: { hours: { week, holidays: null, spells: [] } },
    });
    await shows({ opening_hours: 'Mo-Fr 09:00-17:00' });
    here.far.listing.opening_hours = 'Mo-Su 00:00-24:00';
    await here.handBody('{"kind":"changed"}');
    await shows({ opening_hours: 'Mo-Fr 09:00-17:00' });
    await settled();
    expect(await kept()).toMatchObject({
      differed: ['hours'],
      theirs: { hours: 'Mo-Su 00:00-24:00' },
    });
  });

  it('that cannot be reached is told later, and the door is said to fail meanwhile', async () => {
    here.far.next.push({ status: 500 });
    await lamp('dark');
    await becomes(() => here.house.store.doors.health(here.doorId).why === 'network-broken');
    here.house.clock.advance(10_000);
    await here.house.tick();
    await shows({ chat: false });
    await becomes(() => here.house.store.doors.health(here.doorId).why === null);
  });

  it('is left alone once its door is closed', async () => {
    await here.house.ask('PUT', `/api/doors/${here.doorId}`, {
      cookie: here.cookie,
      body: { isClosed: true },
    });
    await lamp('dark');
    await here.house.tick();
    expect(here.far.listing.chat).toBe(true);
  });
});
