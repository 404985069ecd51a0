import { type House, openHouse, setUpOnly } from '../../test-kit/house';
import { openDevice, until, visit } from '../../test-kit/panel';
import { openPushService, type PushService } from '../../test-kit/push-service';
import { addHelper } from '../../test-kit/routes';
import { createServices } from '../services';
import { toSettings } from '../settings';

const minute = 60_000;
const always = Array.from({ length: 7 }, () => [{ from: 0, to: 1_440 }]);
const hours = { week: always, holidays: null, spells: [] };

describe('whether somebody is here', () => {
  let push: PushService;
  let house: House;
  let cookie: string;
  let door: { id: string; publicId: string };

  beforeEach(async () => {
    push = await openPushService();
    house = await openHouse({ pushNear: [push.origin] });
    ({ cookie, door } = await setUpOnly(house));
  });
  afterEach(async () => {
    await house.close();
    await push.close();
  });

  const setHours = () => house.ask('PUT', '/api/hours', { cookie, body: { hours } });
  const light = () => house.services.lamp.forTeam();
  /** Nothing is on its way to a device. */
  const atRest = () => until(() => (house.store.jobs.isAnyUnder('push ') ? undefined : true));
  const pass = async (ms: number): Promise<void> => {
    house.clock.advance(ms);
    await house.tick();
    await atRest();
  };
  const isHeard = async (device: Awaited<ReturnType<typeof openDevice>>): Promise<void> => {
    device.tell({ do: 'pulse' });
    await device.hear('pulse');
  };
  const open = async (isTouched: boolean) => {
    const device = await openDevice(house, cookie);
    device.tell({ do: 'here', isInSight: true, isTouched });
    return device;
  };
  const isLit = () =>
    until(() => {
      house.services.here.tick();
      return light().state === 'lit' ? true : undefined;
    });
  const isDark = async () => {
    await until(() => {
      house.services.here.tick();
      house.services.lamp.tell();
      return light().state === 'dark' ? true : undefined;
    });
    expect(light()).toMatchObject({ until: null, why: 'nobody-here' });
  };
  const addPhone = async (): Promise<string> => {
    const id = await push.addDevice(house, cookie, 'maren-phone');
    await house.ask('POST', `/api/bell-devices/${id}/trial`, { cookie });
    await pass(0);
    return id;
  };

  it('is not claimed before hours are set: what is written is left as a note', async () => {
    await isHeard(await open(true));
    expect(light()).toMatchObject({ state: 'dark', until: null, why: 'no-hours' });
    const panel = await visit(house, door.publicId, 'wren');
    expect(panel.welcome.lamp).toEqual({ state: 'dark', until: null });
    await panel.say('Hello');
    expect(house.store.conversations.counts()).toMatchObject({ note: 1, waiting: 0 });
  });

  it('is not claimed for hours over an empty house, three minutes after a message as little', async () => {
    await setHours();
    const panel = await visit(house, door.publicId, 'wren');
    expect(panel.welcome.lamp.state).toBe('dark');
    await panel.say('Hello');
    await pass(3 * minute);
    await isDark();
  });

  it('is told to visitors when the app is opened, and for a while after it was put away', async () => {
    await setHours();
    const panel = await visit(house, door.publicId, 'wren');
    const device = await open(true);
    await panel.hear('lamp', ({ lamp }) => lamp.state === 'lit');
    device.tell({ do: 'here', isInSight: false, isTouched: true });
    await isHeard(device);
    await pass(14 * minute);
    expect(light().state).toBe('lit');
    await pass(2 * minute);
    await panel.hear('lamp', ({ lamp }) => lamp.state === 'dark');
    await isDark();
  });

  it('lasts as long as the owner says, and no longer than an hour', async () => {
    await setHours();
    const { body } = await house.ask('GET', '/api/promises', { cookie });
    const promises = { ...body.promises, hereMinutes: 40 };
    expect((await house.ask('PUT', '/api/promises', { cookie, body: promises })).status).toBe(200);
    house.services.here.note(house.store.members.all()[0]?.id ?? '');
    await pass(39 * minute);
    expect(light().state).toBe('lit');
    await pass(2 * minute);
    await isDark();
    const tooLong = { ...promises, hereMinutes: 61 };
    expect((await house.ask('PUT', '/api/promises', { cookie, body: tooLong })).status).toBe(400);
  });

  it('holds while the app is in sight, though nobody touches it, and ends with its connection', async () => {
    await setHours();
    const device = await open(false);
    await isLit();
    await pass(60 * minute);
    expect(light().state).toBe('lit');
    device.close();
    await isDark();
  });

  it('is not proved by an app that only connects out of sight', async () => {
    await setHours();
    const device = await openDevice(house, cookie);
    device.tell({ do: 'here', isInSight: false, isTouched: false });
    await isHeard(device);
    await isDark();
  });

  it('holds while a telephone would ring: once a ring was taken for it, not while it is silent or fails', async () => {
    await setHours();
    await push.addDevice(house, cookie, 'unproven-phone');
    await isDark();
    const id = await addPhone();
    await isLit();
    await pass(5 * 60 * minute);
    expect(light().state).toBe('lit');

    const mute = (isMuted: boolean) =>
      house.ask('PUT', `/api/bell-devices/${id}/mute`, { cookie, body: { isMuted } });
    await mute(true);
    await isDark();
    await mute(false);
    await isLit();

    house.store.bellDevices.failed(id, house.clock.now(), 'push-gone');
    await isDark();
    house.store.bellDevices.rung(id, house.clock.now());
    await isLit();

    const { body } = await house.ask('GET', '/api/doorbell', { cookie });
    const quiet = { ...body.doorbell.quiet, isOn: true, from: 0, to: 0 };
    await house.ask('PUT', '/api/doorbell', { cookie, body: { ...body.doorbell, quiet } });
    await isDark();
  });

  it('ends when it has rung in vain for somebody, until somebody looks', async () => {
    await setHours();
    await addPhone();
    await isLit();
    await (await visit(house, door.publicId, 'wren')).say('Hello');
    const [talk] = house.store.conversations.page('waiting', null, 1);
    await pass(0);
    await pass(1 * minute);
    expect(light().state).toBe('lit');
    await pass(2 * minute);
    await isDark();
    await (await visit(house, door.publicId, 'sparrow')).say('Hello, too');
    expect(house.store.conversations.counts()).toMatchObject({ note: 1, waiting: 1 });

    const read = { do: 'read', id: 'read-by-maren', upTo: talk?.state.saidSeq };
    await house.ask('POST', `/api/conversations/${talk?.id}/deeds`, { cookie, body: read });
    await pass(0);
    expect(light().state).toBe('lit');
    await pass(30 * minute);
    expect(light().state).toBe('lit');
  });

  it('ends for those only who answer where it has rung in vain', async () => {
    await setHours();
    await addPhone();
    await addHelper(house);
    const idOf = (role: string) =>
      house.store.members.all().find((one) => one.role === role)?.id ?? '';
    const [maren, tobias] = [idOf('owner'), idOf('helper')];
    const bench = await house.ask('POST', '/api/doors', {
      cookie,
      body: { name: 'Bench', language: 'en' },
    });
    const concern = (id: string, memberIds: string[]) =>
      house.ask('PUT', `/api/doors/${id}`, {
        cookie,
        body: { memberIds, sites: ['quillfern.example'] },
      });
    await concern(door.id, [maren]);
    house.services.here.note(tobias);
    await concern(bench.body.id, [tobias]);
    await (await visit(house, bench.body.publicId, 'wren')).say('Is the bench open?');
    await pass(16 * minute);
    expect(house.store.conversations.counts()).toMatchObject({ waiting: 1 });
    expect(house.services.lamp.atDoor(bench.body.id).state).toBe('dark');
    expect(house.services.lamp.atDoor(door.id).state).toBe('lit');
  });

  it('is called for by ringing on, though what was written is left as a note; not outside the hours', async () => {
    await setHours();
    await push.addDevice(house, cookie, 'maren-phone');
    await (await visit(house, door.publicId, 'wren')).say('Hello');
    await pass(0);
    expect(house.store.conversations.counts()).toMatchObject({ note: 1, waiting: 0 });
    await pass(5 * minute);
    const causes = () => push.loadsOf('maren-phone').map((load) => 'cause' in load && load.cause);
    expect(causes()).toEqual(['first', 'again']);

    const shut = { week: Array.from({ length: 7 }, () => []), holidays: null, spells: [] };
    await house.ask('PUT', '/api/hours', { cookie, body: { hours: shut } });
    await (await visit(house, door.publicId, 'sparrow')).say('At night');
    await pass(0);
    await pass(5 * minute);
    expect(causes().slice(2)).toEqual(['note']);
  });

  it('is earned by an answer that somebody gives without the app, and not by an alert that goes out', async () => {
    await setHours();
    await push.addDevice(house, cookie, 'maren-phone');
    await (await visit(house, door.publicId, 'wren')).say('Hello');
    await pass(0);
    const [talk] = house.store.conversations.page('note', null, 1);
    expect(push.loadsOf('maren-phone')).toHaveLength(1);
    house.store.bellDevices.mute(
      house.store.bellDevices.of(house.store.members.all()[0]?.id ?? '')[0]?.id ?? '',
      true,
    );
    await isDark();
    const say = { do: 'say', id: 'answer-of-maren', text: 'Good morning', fileIds: [] };
    await house.ask('POST', `/api/conversations/${talk?.id}/deeds`, { cookie, body: say });
    await isLit();
  });

  it('lasts as long whatever the clock is set to, and no longer after a restart', async () => {
    await setHours();
    const id = house.store.members.all()[0]?.id ?? '';
    house.services.here.note(id);
    house.clock.set(house.clock.now() - 120 * minute);
    await isLit();
    await pass(16 * minute);
    await isDark();
    // What is on disk is by a clock that was ahead.
    house.store.here.note(id, house.clock.now() + 120 * minute);
    const { store, clock } = house;
    const again = createServices(toSettings({ logLevel: 'silent' }), { store, clock });
    expect(again.here.isHere(id, null)).toBe(false);
    store.here.note(id, clock.now() - 5 * minute);
    expect(again.here.isHere(id, null)).toBe(true);
  });
});
