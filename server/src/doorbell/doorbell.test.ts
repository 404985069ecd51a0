import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Entry } from '@porch/core/conversation';
import { type House, openHouse, setUp } from '../../test-kit/house';
import { clientId, openDevice, until, visit } from '../../test-kit/panel';
import { openPushService, type PushService } from '../../test-kit/push-service';
import { addHelper } from '../../test-kit/routes';
import { keyInMemory } from '../security/seal';

const second = 1_000;
const minute = 60 * second;

describe('the doorbell', () => {
  let push: PushService;
  let house: House;
  let maren: string;
  let tobias: string;
  let door: { id: string; publicId: string };

  beforeEach(async () => {
    push = await openPushService();
    house = await openHouse({ pushNear: [push.origin] });
    const set = await setUp(house);
    maren = set.cookie;
    door = set.door;
    tobias = await addHelper(house);
  });
  afterEach(async () => {
    await house.close();
    await push.close();
  });

  const wish = async (cookie: string, change: object): Promise<void> => {
    const { body } = await house.ask('GET', '/api/doorbell', { cookie });
    const doorbell = { ...body.doorbell, ...change };
    const { status } = await house.ask('PUT', '/api/doorbell', { cookie, body: doorbell });
    expect(status).toBe(200);
  };
  const came = (device: string, count: number) =>
    until(() => (push.loadsOf(device).length >= count ? push.loadsOf(device) : undefined));
  /** Nothing is on its way to a device. */
  const atRest = () => until(() => (house.store.jobs.isAnyUnder('push ') ? undefined : true));
  /** Time passes, and whatever was due by then has been done. */
  const pass = async (ms: number): Promise<void> => {
    await atRest();
    house.clock.advance(ms);
    await house.tick();
    await atRest();
  };
  const settled = () => pass(0);
  /** Time passes, as much as is needed for something to be so. */
  const passUntil = async (isSo: () => boolean): Promise<void> => {
    const deadline = Date.now() + 20 * second;
    while (!isSo()) {
      if (Date.now() > deadline) throw new Error('it never came to that');
      house.clock.advance(10 * second);
      await house.tick();
      await new Promise((resolve) => setImmediate(resolve));
    }
  };
  const talkId = () => house.store.conversations.page('waiting', null, 1)[0]?.id ?? '';
  const roll = (kind: string): Entry[] =>
    house.store.entries.since(0, 500).filter((entry) => entry.kind === kind);
  const read = async (cookie: string, id = talkId()) => {
    const upTo = house.store.conversations.byId(id)?.state.saidSeq;
    const body = { do: 'read', id: clientId(), upTo };
    const answer = await house.ask('POST', `/api/conversations/${id}/deeds`, { cookie, body });
    expect(answer.status).toBe(200);
  };
  /** A device of somebody's says what it has in sight; null: nothing. */
  const sees = async (cookie: string, id: string) => {
    const seeing = await openDevice(house, cookie);
    seeing.tell({ do: 'sees', conversationId: id });
    await until(() => house.services.hub.lookingAt(id).length > 0 || undefined);
    return {
      looksAway: async (): Promise<void> => {
        seeing.tell({ do: 'sees', conversationId: null });
        await until(() => house.services.hub.lookingAt(id).length === 0 || undefined);
      },
    };
  };
  const nameOf = (memberId: string) => house.store.members.shownOf(memberId)?.name;

  describe('when somebody writes', () => {
    it('rings every device of everybody, saying who, what and how many wait', async () => {
      await push.addDevice(house, maren, 'maren-phone');
      await push.addDevice(house, maren, 'maren-tablet');
      await push.addDevice(house, tobias, 'tobias-phone');
      const wren = await visit(house, door.publicId, 'wren');
      await wren.say('Is the bench open?');
      for (const device of ['maren-phone', 'maren-tablet', 'tobias-phone']) {
        const [load] = await came(device, 1);
        expect(load).toMatchObject({
          say: 'ring',
          cause: 'first',
          talk: talkId(),
          words: 'Is the bench open?',
          unread: 1,
          waiting: 1,
          door: '',
        });
      }
      const [first] = push.came;
      expect(first?.headers).toMatchObject({
        ttl: '14400',
        urgency: 'high',
        'content-encoding': 'aes128gcm',
        topic: expect.stringMatching(/^[\w-]{32}$/),
        authorization: expect.stringMatching(/^vapid t=[\w.-]+, k=[\w-]{87}$/),
      });
    });

    it('stands on the roll once a person, however many devices they have', async () => {
      await push.addDevice(house, maren, 'maren-phone');
      await push.addDevice(house, maren, 'maren-tablet');
      await push.addDevice(house, maren, 'maren-desk');
      await (await visit(house, door.publicId, 'wren')).say('Hello');
      await settled();
      await came('maren-desk', 1);
      expect(roll('rang').map((entry) => entry.kind === 'rang' && nameOf(entry.memberId))).toEqual([
        'Maren Oduya',
      ]);
    });

    it('says the next message under the same topic, which takes the place of the first', async () => {
      await push.addDevice(house, maren, 'maren-phone');
      const wren = await visit(house, door.publicId, 'wren');
      await wren.say('Hello');
      await came('maren-phone', 1);
      await wren.say('Anybody?');
      const [, second] = await came('maren-phone', 2);
      expect(second).toMatchObject({ cause: 'more', words: 'Anybody?', unread: 2 });
      expect(new Set(push.came.map(({ headers }) => headers.topic)).size).toBe(1);
    });

    it('rings nobody whom the door is not for, who wants other doors, or other messages', async () => {
      await push.addDevice(house, maren, 'maren-phone');
      await push.addDevice(house, tobias, 'tobias-phone');
      await wish(maren, { messages: 'first' });
      await wish(tobias, { doorIds: [] });
      const wren = await visit(house, door.publicId, 'wren');
      await wren.say('Hello');
      await wren.say('Still there?');
      await settled();
      expect(push.loadsOf('maren-phone')).toHaveLength(1);
      expect(push.loadsOf('tobias-phone')).toHaveLength(0);
    });

    it('keeps still through quiet hours, but for what may ring then', async () => {
      await push.addDevice(house, maren, 'maren-phone');
      const quiet = { isOn: true, from: 0, to: 0, zone: 'Europe/London', mayRing: 'low' };
      await wish(maren, { quiet });
      const wren = await visit(house, door.publicId, 'wren');
      await wren.say('Hello');
      await settled();
      expect(push.came).toHaveLength(0);
      // Somebody who is on the page waits two minutes; a quarter of that is left now.
      await pass(90 * second);
      expect(push.loadsOf('maren-phone')).toMatchObject([{ cause: 'low' }]);
    });

    it('rings for patience at the time that it really runs low, whoever comes and goes', async () => {
      await push.addDevice(house, maren, 'maren-phone');
      await wish(maren, { messages: 'low' });
      const wren = await visit(house, door.publicId, 'wren');
      await wren.say('Hello');
      wren.close();
      await until(() => (house.services.hub.visitorsHere().length === 0 ? true : undefined));
      await pass(25 * second);
      await pass(95 * second);
      expect(push.came).toHaveLength(0);
      await pass(330 * second);
      expect(push.loadsOf('maren-phone')).toMatchObject([{ cause: 'low' }]);
    });

    it('rings once for what is left while nobody is in, and not on', async () => {
      await push.addDevice(house, maren, 'maren-phone');
      await push.addDevice(house, tobias, 'tobias-phone');
      await wish(tobias, { notes: false });
      await house.ask('PUT', '/api/lamp', { cookie: maren, body: { state: 'dark', until: null } });
      await (await visit(house, door.publicId, 'wren')).say('Call me');
      await settled();
      await pass(10 * minute);
      expect(push.loadsOf('maren-phone')).toMatchObject([{ cause: 'note' }]);
      expect(push.loadsOf('tobias-phone')).toHaveLength(0);
    });

    it('leaves everybody alone while somebody has it open and in sight, unless they do not read it', async () => {
      await push.addDevice(house, maren, 'maren-phone');
      await push.addDevice(house, tobias, 'tobias-phone');
      const wren = await visit(house, door.publicId, 'wren');
      await wren.say('Hello');
      await settled();
      await read(maren);
      await sees(maren, talkId());
      const before = push.loadsOf('maren-phone').length;
      await wren.say('One more thing');
      await settled();
      expect(push.loadsOf('maren-phone')).toHaveLength(before);
      await read(maren);
      await pass(8 * second);
      expect(push.came.filter(({ load }) => load.say === 'ring')).toHaveLength(2);
      // A phone in a tunnel looks at nothing, whatever it said last.
      await wren.say('Are you there?');
      await pass(8 * second);
      for (const device of ['maren-phone', 'tobias-phone']) {
        expect(push.loadsOf(device).at(-1)).toMatchObject({ words: 'Are you there?' });
      }
    });

    it('rings for a note that was in sight and not read', async () => {
      await push.addDevice(house, maren, 'maren-phone');
      await house.ask('PUT', '/api/lamp', { cookie: maren, body: { state: 'dark', until: null } });
      const wren = await visit(house, door.publicId, 'wren');
      await wren.say('Call me');
      await settled();
      const [note] = house.store.conversations.page('note', null, 1);
      await sees(maren, note?.id ?? '');
      await wren.say('Before noon');
      await pass(8 * second);
      expect(push.loadsOf('maren-phone').at(-1)).toMatchObject({
        cause: 'note',
        words: 'Before noon',
      });
    });

    it('rings for a new wait once, whatever a look at the one before it had put off', async () => {
      await push.addDevice(house, maren, 'maren-phone');
      const wren = await visit(house, door.publicId, 'wren');
      await wren.say('Hello');
      await settled();
      await read(maren);
      const { looksAway } = await sees(maren, talkId());
      await wren.say('One more thing');
      await read(maren);
      await looksAway();
      await pass(3 * second);
      await wren.say('Are you there?');
      await pass(6 * second);
      const words = push
        .loadsOf('maren-phone')
        .flatMap((load) => (load.say === 'ring' ? [load.words] : []));
      expect(words).toEqual(['Hello', 'Are you there?']);
    });

    it('rings for nothing once a device is muted, removed, or signed out', async () => {
      const muted = await push.addDevice(house, maren, 'muted');
      const removed = await push.addDevice(house, maren, 'removed');
      await push.addDevice(house, tobias, 'signed-out');
      const path = `/api/bell-devices/${muted}/mute`;
      await house.ask('PUT', path, { cookie: maren, body: { isMuted: true } });
      await house.ask('DELETE', `/api/bell-devices/${removed}`, { cookie: maren });
      const body = { everywhere: false };
      await house.ask('POST', '/api/sign-out', { cookie: tobias, body });
      await (await visit(house, door.publicId, 'wren')).say('Hello');
      await settled();
      expect(push.came).toHaveLength(0);
      expect(roll('rang')).toEqual([]);
    });
  });

  describe('while nobody looks', () => {
    const waits = async () => {
      await push.addDevice(house, maren, 'maren-phone');
      await push.addDevice(house, tobias, 'tobias-phone');
      await wish(tobias, { doorIds: null });
      const [front] = house.store.doors.all();
      const owner = house.store.members.all().find(({ role }) => role === 'owner');
      if (!front || !owner) throw new Error('nobody has set up');
      house.store.doors.update({ ...front, memberIds: [owner.id] });
      await (await visit(house, door.publicId, 'wren')).say('Hello');
      await settled();
    };

    it('rings again after 60 s, and the others after two minutes', async () => {
      await waits();
      await pass(59 * second);
      expect(push.came).toHaveLength(1);
      await pass(1 * second);
      expect(push.loadsOf('maren-phone').map((load) => load.say === 'ring' && load.cause)).toEqual([
        'first',
        'again',
      ]);
      expect(push.loadsOf('tobias-phone')).toHaveLength(0);
      await pass(60 * second);
      expect(push.loadsOf('tobias-phone')).toMatchObject([{ cause: 'others' }]);
    });

    it('stops for everybody when anybody looks, and says on the roll who', async () => {
      await waits();
      await pass(60 * second);
      await read(tobias);
      await pass(10 * minute);
      const [, , hush] = await came('maren-phone', 3);
      expect(hush).toEqual({ say: 'hush', talk: talkId(), waiting: 1, by: 'Tobias Ekwall' });
      expect(push.came).toHaveLength(3);
      const [first] = push.came;
      expect(push.came.at(-1)?.headers).toMatchObject({
        topic: first?.headers.topic,
        urgency: 'normal',
      });
      expect(
        roll('looked').map((entry) => entry.kind === 'looked' && nameOf(entry.memberId)),
      ).toEqual(['Tobias Ekwall']);
    });

    it.each([
      ['answered', { do: 'say', text: 'Yes', fileIds: [] }],
      ['wrapped up', { do: 'wrap-up' }],
    ])('stops when it is %s', async (_what, deed) => {
      await waits();
      const body = { id: clientId(), ...deed };
      const path = `/api/conversations/${talkId()}/deeds`;
      expect((await house.ask('POST', path, { cookie: maren, body })).status).toBe(200);
      await pass(10 * minute);
      expect(push.loadsOf('maren-phone').map(({ say }) => say)).toEqual(['ring', 'hush']);
      expect(push.loadsOf('tobias-phone')).toEqual([]);
    });

    it('is one look when two people open it at the same moment', async () => {
      await waits();
      await Promise.all([read(maren), read(tobias)]);
      await settled();
      expect(roll('looked')).toHaveLength(1);
    });

    it('does not take for a look what somebody read before the newest came', async () => {
      await waits();
      const id = talkId();
      const upTo = house.store.conversations.byId(id)?.state.saidSeq;
      await (await visit(house, door.publicId, 'wren')).say('And tomorrow?');
      const body = { do: 'read', id: clientId(), upTo };
      await house.ask('POST', `/api/conversations/${id}/deeds`, { cookie: maren, body });
      await pass(60 * second);
      expect(push.loadsOf('maren-phone').at(-1)).toMatchObject({ cause: 'again' });
    });

    it('goes by the rules as an owner has set them, and by what is switched off', async () => {
      const body = {
        againAfterMs: null,
        othersAfterMs: 20 * second,
        otherIds: null,
        mailAfterMs: null,
        mailIds: null,
      };
      expect((await house.ask('PUT', '/api/ring-on', { cookie: tobias, body })).status).toBe(403);
      expect((await house.ask('PUT', '/api/ring-on', { cookie: maren, body })).status).toBe(200);
      await waits();
      await pass(20 * second);
      expect(push.loadsOf('tobias-phone')).toHaveLength(1);
      await pass(10 * minute);
      expect(
        push.loadsOf('maren-phone').map((load) => load.say === 'ring' && load.cause),
      ).not.toContain('again');
    });

    it('waits as long as it was said, also where the clock is set meanwhile', async () => {
      await waits();
      house.clock.jump(-30 * minute);
      await house.tick();
      await pass(60 * second);
      expect(push.loadsOf('maren-phone').at(-1)).toMatchObject({ cause: 'again' });
    });

    it('goes on where what was said stands after two conversations became one', async () => {
      await waits();
      const from = talkId();
      house.clock.advance(1);
      await (await visit(house, door.publicId, 'robin')).say('Good day');
      await settled();
      const into = house.store.conversations.page('waiting', null, 5).find(({ id }) => id !== from);
      const body = { do: 'join', id: clientId(), other: from };
      const path = `/api/conversations/${into?.id}/deeds`;
      expect((await house.ask('POST', path, { cookie: maren, body })).status).toBe(200);
      await settled();
      expect(push.loadsOf('maren-phone').at(-1)).toMatchObject({ say: 'hush', talk: from });
      await pass(60 * second);
      expect(push.loadsOf('maren-phone').at(-1)).toMatchObject({ cause: 'again', talk: into?.id });
    });
  });

  describe('for those who only look', () => {
    const lands = async (page: string): Promise<void> => {
      await house.services.ringing.landed(door.id, page);
      await settled();
    };

    it('rings when somebody lands on a page that was chosen, and not again at once', async () => {
      await push.addDevice(house, maren, 'maren-phone');
      await push.addDevice(house, tobias, 'tobias-phone');
      await wish(maren, { pages: ['/delivery', '/plants/*'] });
      await lands('/delivery?from=news');
      await lands('/delivery');
      await lands('/about');
      // Whoever makes up pages below one that was chosen rings no more for it.
      for (let made = 0; made < 50; made += 1) await lands(`/plants/${made}`);
      expect(push.loadsOf('maren-phone')).toMatchObject([
        { cause: 'landed', talk: null, called: { by: 'page', what: '/delivery' } },
      ]);
      await pass(10 * minute);
      await lands('/delivery');
      expect(push.loadsOf('maren-phone')).toHaveLength(2);
      expect(push.loadsOf('tobias-phone')).toHaveLength(0);
    });

    it('rings when somebody who has written before is back, and not when they only change the page', async () => {
      await push.addDevice(house, maren, 'maren-phone');
      await wish(maren, { comesBack: true, messages: 'low' });
      const wren = await visit(house, door.publicId, 'wren');
      await wren.say('Hello');
      const leave = async (panel: typeof wren): Promise<void> => {
        panel.close();
        await until(() => (house.services.hub.visitorsHere().length === 0 ? true : undefined));
        await pass(minute);
      };
      await leave(wren);
      await leave(await visit(house, door.publicId, 'wren'));
      const body = { do: 'say', id: clientId(), text: 'Yes', fileIds: [] };
      await house.ask('POST', `/api/conversations/${talkId()}/deeds`, { cookie: maren, body });
      await pass(31 * minute);
      const before = push.came.length;
      await visit(house, door.publicId, 'wren');
      await came('maren-phone', before + 1);
      await settled();
      expect(push.came.slice(before).map(({ load }) => load)).toMatchObject([{ cause: 'back' }]);
    });
  });

  describe('when a push service has its own mind', () => {
    it.each([404, 410])(
      'forgets a device that has gone (%i), and says so on the roll',
      async (status) => {
        await push.addDevice(house, maren, 'maren-phone');
        push.answer('maren-phone', { status });
        await (await visit(house, door.publicId, 'wren')).say('Hello');
        await settled();
        const { body } = await house.ask('GET', '/api/doorbell', { cookie: maren });
        expect(body.devices).toEqual([]);
        expect(roll('rang')).toMatchObject([{ failed: 'push-gone' }]);
      },
    );

    it('says less where all of it is too much', async () => {
      await push.addDevice(house, maren, 'maren-phone');
      push.answer('maren-phone', { status: 413 });
      await (await visit(house, door.publicId, 'wren')).say('Hello');
      await settled();
      expect(push.loadsOf('maren-phone').map(({ say }) => say)).toEqual(['ring', 'bare']);
      expect(push.loadsOf('maren-phone')[1]).toEqual({ say: 'bare', talk: talkId() });
    });

    it('waits as long as it is told to', async () => {
      const id = await push.addDevice(house, maren, 'maren-phone');
      push.answer('maren-phone', { status: 429, headers: { 'retry-after': '50' } });
      await (await visit(house, door.publicId, 'wren')).say('Hello');
      await came('maren-phone', 1);
      const failing = async () => {
        const { body } = await house.ask('GET', '/api/doorbell', { cookie: maren });
        return body.devices.find((device: { id: string }) => device.id === id);
      };
      await until(() => (house.store.bellDevices.byId(id)?.why ? true : undefined));
      expect(await failing()).toMatchObject({ why: 'push-too-many', rungAt: null });
      house.clock.advance(49 * second);
      await house.tick();
      expect(push.came).toHaveLength(1);
      house.clock.advance(1 * second);
      await house.tick();
      await atRest();
      expect(push.came).toHaveLength(2);
      expect(await failing()).toMatchObject({ why: null, rungAt: expect.any(Number) });
    });

    it('does not ring a device later that was muted meanwhile', async () => {
      const id = await push.addDevice(house, maren, 'maren-phone');
      push.answer('maren-phone', { status: 429 });
      await (await visit(house, door.publicId, 'wren')).say('Hello');
      await until(() => (house.store.bellDevices.byId(id)?.why ? true : undefined));
      const mute = `/api/bell-devices/${id}/mute`;
      await house.ask('PUT', mute, { cookie: maren, body: { isMuted: true } });
      await passUntil(() => !house.store.jobs.isAnyUnder('push '));
      expect(push.came).toHaveLength(1);
    });

    it('tries again what is broken, and stops when somebody has looked meanwhile', async () => {
      await push.addDevice(house, maren, 'maren-phone');
      push.answer('maren-phone', { status: 500 });
      await (await visit(house, door.publicId, 'wren')).say('Hello');
      await came('maren-phone', 1);
      await read(maren);
      await came('maren-phone', 2);
      await passUntil(() => !house.store.jobs.isAnyUnder('push '));
      expect(push.loadsOf('maren-phone').map(({ say }) => say)).toEqual(['ring', 'hush']);
    });

    const ringsOnce = async (): Promise<void> => {
      await wish(maren, { notes: true });
      await house.ask('PUT', '/api/ring-on', {
        cookie: maren,
        body: {
          againAfterMs: null,
          othersAfterMs: null,
          otherIds: null,
          mailAfterMs: null,
          mailIds: null,
        },
      });
    };

    it('rings when an outage of three hours ends, and says meanwhile that it cannot', async () => {
      await ringsOnce();
      const id = await push.addDevice(house, maren, 'maren-phone');
      const beganAt = house.clock.now();
      push.answerAlways('maren-phone', { status: 503 });
      await (await visit(house, door.publicId, 'wren')).say('Hello');
      await passUntil(() => house.clock.now() - beganAt > 3 * 3_600_000);
      expect(house.store.bellDevices.byId(id)?.why).toBe('push-broken');
      push.answerAlways('maren-phone', null);
      await passUntil(() => !house.store.jobs.isAnyUnder('push '));
      expect(push.taken()).toHaveLength(1);
      expect(Number(push.taken()[0]?.headers.ttl)).toBeLessThanOrEqual(3_600);
      expect(house.store.bellDevices.byId(id)?.why).toBeNull();
      expect(roll('rang')).toMatchObject([{ by: 'push' }]);
    });

    it('rings once when an outage ends in which three messages came, with the newest', async () => {
      await ringsOnce();
      await push.addDevice(house, maren, 'maren-phone');
      push.answerAlways('maren-phone', { status: 503 });
      const wren = await visit(house, door.publicId, 'wren');
      for (const text of ['One', 'Two', 'Three']) {
        await wren.say(text);
        const tries = push.came.length;
        await passUntil(() => push.came.length > tries + 1);
      }
      push.answerAlways('maren-phone', null);
      await passUntil(() => !house.store.jobs.isAnyUnder('push '));
      expect(push.taken().map(({ load }) => load)).toMatchObject([{ words: 'Three', unread: 3 }]);
    });

    it.each([
      ['is being tried', true],
      ['is to be tried again', false],
    ])(
      'rings at once for the first message after an outage, also while the one before it %s',
      async (_while, isTried) => {
        await ringsOnce();
        await push.addDevice(house, maren, 'maren-phone');
        push.answerAlways('maren-phone', { status: 503 });
        const wren = await visit(house, door.publicId, 'wren');
        await wren.say('One');
        await passUntil(() => push.came.length >= 5);
        if (!isTried) await until(() => (house.store.jobs.isAnyLeased() ? undefined : true));
        push.answerAlways('maren-phone', null);
        await wren.say('Two');
        // No time passes.
        await until(() => push.taken()[0]);
        await atRest();
        expect(push.taken().map(({ load }) => load)).toMatchObject([{ words: 'Two', unread: 2 }]);
      },
    );

    it('gives a ring up after four hours and says why, without a word among the things that died', async () => {
      const id = await push.addDevice(house, maren, 'maren-phone');
      push.answerAlways('maren-phone', { status: 500 });
      await ringsOnce();
      const beganAt = house.clock.now();
      await (await visit(house, door.publicId, 'wren')).say('Hello');
      await passUntil(() => !house.store.jobs.isAnyUnder('push '));
      expect(house.clock.now() - beganAt).toBeGreaterThanOrEqual(4 * 3_600_000);
      expect(house.clock.now() - beganAt).toBeLessThan(4 * 3_600_000 + 120_000);
      expect(house.store.bellDevices.byId(id)?.why).toBe('push-broken');
      expect(roll('rang')).toMatchObject([{ failed: 'push-broken' }]);
      expect(house.store.jobs.deadCount()).toBe(0);
    });

    it('is not followed anywhere else', async () => {
      const id = await push.addDevice(house, maren, 'maren-phone');
      push.answer('maren-phone', {
        status: 307,
        headers: { location: `${push.origin}/to/elsewhere` },
      });
      await (await visit(house, door.publicId, 'wren')).say('Hello');
      await settled();
      expect(push.came).toHaveLength(1);
      expect(house.store.bellDevices.byId(id)?.why).toBe('push-refused');
    });

    it('keeps no other device waiting when it is slow', async () => {
      await push.addDevice(house, maren, 'slow-phone');
      await push.addDevice(house, tobias, 'tobias-phone');
      push.answer('slow-phone', 'hold');
      await (await visit(house, door.publicId, 'wren')).say('Hello');
      await came('tobias-phone', 1);
      await until(() => (roll('rang').length === 1 ? true : undefined));
      expect(house.store.jobs.isAnyUnder('push ')).toBe(true);
      push.release();
      await until(() => (roll('rang').length === 2 ? true : undefined));
    });

    it('asks for a new token before the old one is over, and not for each ring', async () => {
      await push.addDevice(house, maren, 'maren-phone');
      const wren = await visit(house, door.publicId, 'wren');
      for (const text of ['One', 'Two']) await wren.say(text);
      await came('maren-phone', 2);
      await settled();
      house.clock.advance(7 * 60 * minute);
      await (await visit(house, door.publicId, 'robin')).say('Hello');
      await settled();
      const tokens = push.came.map(({ headers }) => headers.authorization);
      expect(tokens[0]).toBe(tokens[1]);
      expect(tokens.at(-1)).not.toBe(tokens[0]);
    });
  });

  describe('a ring that somebody asks for', () => {
    it('is a real one, and says when it was taken and when it arrived', async () => {
      const id = await push.addDevice(house, maren, 'maren-phone');
      const path = `/api/bell-devices/${id}`;
      const sent = await house.ask('POST', `${path}/trial`, { cookie: maren });
      expect(sent.body).toMatchObject({ takenAt: null, arrivedAt: null, why: null });
      const [load] = await came('maren-phone', 1);
      await settled();
      expect(load).toMatchObject({ say: 'trial', ring: sent.body.id });
      const arrives = await house.ask('POST', `${path}/arrived`, {
        cookie: maren,
        body: { ring: sent.body.id },
      });
      expect(arrives.status).toBe(204);
      const { body } = await house.ask('GET', `${path}/trial`, { cookie: maren });
      expect(body).toMatchObject({ takenAt: expect.any(Number), arrivedAt: expect.any(Number) });
      expect(roll('rang')).toEqual([]);
    });

    it('says why where it did not go out, and is not asked for without end', async () => {
      const id = await push.addDevice(house, maren, 'maren-phone');
      push.answer('maren-phone', { status: 403 });
      const path = `/api/bell-devices/${id}`;
      await house.ask('POST', `${path}/trial`, { cookie: maren });
      await settled();
      const { body } = await house.ask('GET', `${path}/trial`, { cookie: maren });
      expect(body).toMatchObject({ takenAt: null, why: 'push-refused' });
      const statuses = [];
      for (let time = 0; time < 13; time += 1) {
        statuses.push((await house.ask('POST', `${path}/trial`, { cookie: maren })).status);
      }
      expect(statuses.at(-1)).toBe(429);
    });

    it('has not arrived because somebody else says so, or of another ring', async () => {
      const id = await push.addDevice(house, maren, 'maren-phone');
      const path = `/api/bell-devices/${id}`;
      const { body } = await house.ask('POST', `${path}/trial`, { cookie: maren });
      const says = (cookie: string, ring: string) =>
        house.ask('POST', `${path}/arrived`, { cookie, body: { ring } });
      expect((await says(tobias, body.id)).status).toBe(404);
      expect((await says(maren, 'another-ring-1')).status).toBe(404);
    });
  });

  it('rings once for what was written before it was stopped', async () => {
    const dir = mkdtempSync(join(tmpdir(), 'doorbell-'));
    const path = join(dir, 'porch.sqlite');
    const keys = keyInMemory();
    const first = await openHouse({ pushNear: [push.origin] }, path, { keys });
    const { cookie, door: front } = await setUp(first);
    await push.addDevice(first, cookie, 'maren-phone');
    // As a process does that ends between the commit and the push.
    first.services.jobs.stop();
    await (await visit(first, front.publicId, 'wren')).say('Hello');
    expect(push.came).toHaveLength(0);
    await first.close();
    const again = await openHouse({ pushNear: [push.origin] }, path, { keys });
    again.services.jobs.start();
    await again.tick();
    await came('maren-phone', 1);
    await until(() => (again.store.jobs.isAnyUnder('push ') ? undefined : true));
    await again.tick();
    expect(push.came).toHaveLength(1);
    await again.close();
    rmSync(dir, { recursive: true, force: true });
  });
});
