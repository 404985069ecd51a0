import { type House, openHouse, owner, setUp } from '../test-kit/house';
import { clientId, openDevice, until, visit } from '../test-kit/panel';
import { systemClock } from './clock';

const minute = 60_000;
const hour = 60 * minute;

describe('a clock that somebody sets back by an hour', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse({ limits: { visitorMessagesAMinute: 2 } });
  });
  afterEach(() => house.close());

  it('holds no visitor up for longer', async () => {
    const { door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('One');
    await panel.say('Two');
    house.clock.jump(-hour);
    panel.tell({ do: 'say', id: clientId(), text: 'Three', fileIds: [], page: null });
    expect((await panel.hear('refused')).refusal).toEqual({ code: 'too-many', waitMs: 30_000 });
    house.clock.advance(30_000);
    await panel.say('Three');
  });

  it('holds no owner up for longer after wrong passwords', async () => {
    await setUp(house);
    const signIn = (password: string) =>
      house.ask('POST', '/api/sign-in', { body: { email: owner.email, password } });
    for (let count = 0; count < 4; count += 1) {
      const { body } = await signIn('wrong');
      house.clock.advance(body.waitMs ?? 0);
    }
    await signIn('wrong');
    const { waitMs } = (await signIn('wrong')).body;
    house.clock.jump(-hour);
    house.clock.advance(waitMs);
    expect((await signIn(owner.password)).status).toBe(200);
  });

  it('lets who has left be gone after the same moment', async () => {
    const { door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Hello');
    const [conversation] = house.store.conversations.page('waiting', null, 1);
    panel.close();
    await until(() => (house.services.hub.visitorsHere().length === 0 ? true : undefined));
    house.clock.jump(-hour);
    house.clock.advance(20_000);
    await house.tick();
    expect(house.store.conversations.byId(conversation?.id ?? '')?.state.isHere).toBe(false);
  });

  it('ends “back soon” after the time that it was said for, and takes no notes then', async () => {
    const { door, cookie } = await setUp(house);
    const device = await openDevice(house, cookie);
    const body = { state: 'back-soon', until: house.clock.now() + 30 * minute };
    await house.ask('PUT', '/api/lamp', { cookie, body });
    await device.hear('lamp');
    house.clock.jump(-hour);
    house.clock.advance(30 * minute - 1);
    await house.tick();
    expect(house.services.lamp.forTeam().state).toBe('back-soon');
    house.clock.advance(1);
    expect(house.services.lamp.forTeam().state).toBe('lit');
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Is somebody there?');
    expect(house.store.conversations.counts()).toMatchObject({ waiting: 1, note: 0 });
    await house.tick();
    await device.hear('lamp', ({ lamp }) => lamp.state === 'lit');
  });

  it.each([-2 * hour, 2 * hour])(
    'ends “back in half an hour” after half an hour where the clock is set by %d ms, and shows that end',
    async (jump) => {
      const { cookie } = await setUp(house);
      const body = { state: 'back-soon', until: house.clock.now() + 30 * minute };
      await house.ask('PUT', '/api/lamp', { cookie, body });
      house.clock.advance(10 * minute);
      house.clock.jump(jump);
      await house.tick();
      const shown = house.services.lamp.forTeam();
      expect(shown.state).toBe('back-soon');
      expect(shown.until).toBe(house.clock.now() + 20 * minute);
      house.clock.advance(20 * minute);
      await house.tick();
      expect(house.services.lamp.forTeam().state).toBe('lit');
    },
  );

  it('lets a phone’s code and a trial last as long as before', async () => {
    const { door, cookie } = await setUp(house);
    const { body: made } = await house.ask('POST', '/api/pairings', { cookie, body: {} });
    const token = house.services.dressing.openTrial(door.id);
    house.clock.jump(-hour);
    house.clock.advance(2 * minute);
    const claim = await house.ask('POST', '/api/pairings/claim', {
      body: { token: made.link.split('#')[1] },
    });
    expect(claim.body.code).toBe('link-stale');
    house.clock.advance(28 * minute);
    expect(() => house.services.dressing.tried(door.id, token, '127.0.0.1')).toThrow('link-stale');
  });
});

describe('a restart', () => {
  it('gives whoever was on a page the same moment to come back, and then they are gone', async () => {
    const { mkdtempSync, rmSync } = await import('node:fs');
    const dir = mkdtempSync('/tmp/restart-');
    const first = await openHouse({}, `${dir}/porch.sqlite`);
    const { door } = await setUp(first);
    await (await visit(first, door.publicId, 'wren')).say('Hello');
    const [conversation] = first.store.conversations.page('waiting', null, 1);
    const id = conversation?.id ?? '';
    await first.close();
    const second = await openHouse({}, `${dir}/porch.sqlite`);
    const isHere = () => second.store.conversations.byId(id)?.state.isHere;
    second.clock.advance(19_000);
    await second.tick();
    expect(isHere()).toBe(true);
    second.clock.advance(1_000);
    await second.tick();
    expect(isHere()).toBe(false);
    await second.close();
    rmSync(dir, { recursive: true, force: true });
  });
});

describe('the machine’s own clock', () => {
  it('gives whole milliseconds that only grow, and starts where the moments do', () => {
    let before = systemClock.steady();
    expect(Math.abs(before - systemClock.now())).toBeLessThan(60_000);
    for (let count = 0; count < 1_000; count += 1) {
      const now = systemClock.steady();
      expect(Number.isInteger(now)).toBe(true);
      expect(now).toBeGreaterThanOrEqual(before);
      before = now;
    }
  });

  it('is one by which everything can be kept: signing in, codes, limits, the light', async () => {
    const house = await openHouse({}, ':memory:', { clock: systemClock });
    const { cookie, door } = await setUp(house);
    const signIn = (password: string) =>
      house.ask('POST', '/api/sign-in', { body: { email: owner.email, password } });
    expect((await signIn('wrong')).status).toBe(401);
    expect((await signIn(owner.password)).status).toBe(200);
    expect((await house.ask('POST', '/api/pairings', { cookie, body: {} })).status).toBe(200);
    const body = { state: 'back-soon', until: systemClock.now() + hour };
    expect((await house.ask('PUT', '/api/lamp', { cookie, body })).status).toBe(200);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Hello');
    await house.tick();
    expect((await house.ask('GET', '/api/house', { cookie })).status).toBe(200);
    await house.close();
  });
});
