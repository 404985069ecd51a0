import { inOrderSaid } from '@porch/core/conversation';
import sharp from 'sharp';
import { becomes, type NetworkHouse, openNetworkHouse } from '../../test-kit/network-house';
import { madeNetworks } from '../../test-kit/networks';
import { clientId } from '../../test-kit/panel';
import { Refused } from '../refused';

const hour = 3_600_000;

describe.each(madeNetworks.map((network) => [network.kind, network] as const))(
  'a door to %s',
  (kind, network) => {
    let here: NetworkHouse;
    beforeEach(async () => {
      here = await openNetworkHouse(network);
    });
    afterEach(() => here.house.close());

    it('takes what somebody says, once, however often it is handed over', async () => {
      for (let nth = 0; nth < 3; nth += 1) expect(await here.says('a')).toBe(204);
      await here.says('b');
      const said = here.roll('visitor-said');
      expect(said.map(({ text }) => text)).toEqual(['Words of a', 'Words of b']);
      expect(new Set(said.map(({ threadId }) => threadId)).size).toBe(1);
      const thread = here.house.store.threads.byId(said[0]?.threadId ?? '');
      expect(thread).toMatchObject({ doorId: here.doorId, address: network.from });
      expect(here.house.store.doors.health(here.doorId).heardAt).not.toBeNull();
    });

    it('shows what was said in the order in which it was said, whenever it comes', async () => {
      await here.says('second', 10_000);
      await here.says('first', 20_000);
      const [second, first] = here.roll('visitor-said');
      expect([first?.text, second?.text]).toEqual(['Words of first', 'Words of second']);
      expect(first?.saidAt).toBeLessThan(second?.saidAt ?? 0);
    });

    it('takes nothing that another word proves, nothing that was changed on its way, and nothing for another door', async () => {
      const body =
        network.body({ what: 'said', id: 'a', text: 'Me' }, here.house.clock.now()) ?? '';
      expect((await here.handBody(body, `${here.word}x`)).status).toBe(401);
      const headers = network.prove(body, here.word, here.house.clock.now());
      expect(
        (await here.house.ask('POST', here.address, { body: `${body} `, headers })).status,
      ).toBe(401);
      expect((await here.house.ask('POST', here.address, { body })).status).toBe(401);
      const other = await here.doors('POST', '', { kind, name: 'Other', given: network.given });
      const elsewhere = new URL(other.body.shows.address).pathname;
      expect((await here.handBody(body, here.word, elsewhere)).status).toBe(401);
      await here.house.tick();
      expect(here.house.store.deliveries.seen(other.body.id, 'a')).toBeNull();
    });

    it('says once more nothing that was handed over a day ago', async () => {
      const body =
        network.body({ what: 'said', id: 'a', text: 'Me' }, here.house.clock.now()) ?? '';
      const headers = network.prove(body, here.word, here.house.clock.now());
      await here.house.ask('POST', here.address, { body, headers });
      await here.house.tick();
      here.house.clock.advance(24 * hour);
      await here.house.ask('POST', here.address, { body, headers });
      await here.house.tick();
      await becomes(here.isQuiet);
      expect(here.roll('visitor-said')).toHaveLength(1);
    });

    it('refuses nonsense in plain words, and a body that is too large', async () => {
      for (const body of ['', 'x', '{}x', '[]', '{"letters":{}}', '%00']) {
        const { status } = await here.handBody(body);
        expect([204, 400]).toContain(status);
      }
      expect((await here.handBody('x'.repeat(5_000_000))).status).toBe(413);
      expect(here.roll('visitor-said')).toHaveLength(0);
    });

    it('hears whoever calls themselves three hundred emoji, and all of what is very long', async () => {
      const text = 'Leaf after leaf. '.repeat(600);
      expect(await here.says('a', 0, { name: '🌿'.repeat(300), text })).toBe(204);
      const [said] = here.roll('visitor-said');
      expect(said?.hasRest).toBe(true);
      const path = `/api/conversations/${here.talk()}/entries/${said?.id}/rest`;
      const { body } = await here.house.ask('GET', path, { cookie: here.cookie });
      expect(`${said?.text}${body.text}`.replace(/\s/g, '')).toBe(text.replace(/\s/g, ''));
    });

    it('shows what somebody changed or took back, and what it cannot show as something that was said', async () => {
      await here.says('a');
      const changed = await here.hand({ what: 'changed', id: 'c', of: 'a', text: 'Others' });
      if (changed !== null)
        expect(here.roll('visitor-changed')).toMatchObject([{ text: 'Others' }]);
      const withdrawn = await here.hand({ what: 'withdrawn', id: 'd', of: 'a' }, -1);
      if (withdrawn !== null) expect(here.roll('visitor-withdrew')).toHaveLength(1);
      const odd = await here.hand({ what: 'odd', id: 'e' });
      if (odd !== null) expect(here.roll('visitor-said').at(-1)?.text).toContain('hologram');
    });

    it('carries an answer once, and tells what became of it', async () => {
      await here.says('a');
      expect((await here.answer('It is')).status).toBe(200);
      await becomes(() => here.steps().includes('sent'));
      expect(here.far.carried().map(({ body }) => network.textIn(body))).toEqual(['It is']);
      await here.hand({ what: 'reached', of: 'net-1', step: 'arrived' });
      const again = await here.hand({ what: 'reached', of: 'net-1', step: 'arrived' });
      expect(here.steps()).toEqual(again === null ? ['sent'] : ['sent', 'arrived']);
    });

    it('tries again when the network wants it later, and says meanwhile that the door fails', async () => {
      await here.says('a');
      here.far.next.push(...Array(3).fill({ status: 429, headers: { 'retry-after': '30' } }));
      await here.answer();
      const why = () => here.house.store.doors.health(here.doorId).why;
      await becomes(() => why() === 'network-too-many');
      here.far.next.length = 0;
      here.house.clock.advance(31_000);
      await here.house.tick();
      await becomes(() => here.steps().includes('sent'));
      expect(here.house.store.doors.health(here.doorId)).toMatchObject({
        failingSince: null,
        why: null,
      });
    });

    it('says that a key was refused, and sends what waited once there is another', async () => {
      await here.says('a');
      here.far.next.push(...Array(4).fill({ status: 401 }));
      await here.answer();
      await becomes(() => here.house.store.doors.health(here.doorId).why === 'key-refused');
      here.far.next.length = 0;
      await here.doors('PUT', `/${here.doorId}`, { given: { key: 'another key' } });
      here.house.clock.advance(hour);
      await here.house.tick();
      await becomes(() => here.steps().includes('sent'));
      const proofs = JSON.stringify(here.far.asked.map(({ headers }) => headers));
      const encoded = ['another key', Buffer.from(`quillfern:another key`).toString('base64')];
      expect(encoded.some((one) => proofs.includes(one))).toBe(true);
    });

    it.each([500, 429, 401])(
      'carries what is said to somebody in the order in which it was said, after three faults too (%d)',
      async (status) => {
        await here.says('a');
        here.far.sendsFail = { status };
        for (const text of ['a0', 'a1', 'a2']) {
          await here.answer(text);
          await becomes(() => here.roll('receipt').some(({ why }) => why !== undefined));
        }
        expect(here.roll('receipt').at(-1)).toMatchObject({ step: 'waiting' });
        here.far.sendsFail = null;
        // It is not waited for: whoever writes now is there and cares.
        await here.answer('a3');
        await becomes(() => here.far.took().length === 4);
        expect(here.far.took()).toEqual(['a0', 'a1', 'a2', 'a3']);
      },
    );

    it('tells once that an answer waits, however its network fails meanwhile, and again where somebody has to mend it', async () => {
      await here.says('a');
      here.far.sendsFail = { status: 503 };
      await here.answer('first');
      const waits = () => here.roll('receipt').map(({ why }) => why);
      await becomes(() => waits().length === 1 && here.isAtRest());
      for (const status of [429, 503, 429, 503, 401]) {
        const asked = here.far.asked.length;
        here.far.sendsFail = { status };
        here.house.clock.advance(120_000);
        await here.house.tick();
        await becomes(() => here.far.asked.length > asked && here.isAtRest());
      }
      await becomes(() => waits().length === 2);
      expect(waits()).toEqual(['network-broken', 'key-refused']);
    });

    it('holds up nobody else with what it does not take for one', async () => {
      await here.says('a');
      here.far.next.push({ status: 500 });
      await here.answer('held up');
      await becomes(() => here.steps().includes('waiting'));
      const other = here.otherWriter();
      await here.answerTo(other, 'goes');
      await becomes(() => here.far.took().includes('goes'));
      expect(here.far.took()).toEqual(['goes']);
    });

    it('sends by itself what waited for a day, as soon as anything goes through', async () => {
      await here.says('a');
      here.far.sendsFail = { status: 503 };
      await here.answer('first');
      await becomes(() => here.steps().includes('waiting'));
      for (let hours = 0; hours < 22; hours += 1) {
        const asked = here.far.asked.length;
        here.house.clock.advance(hour);
        await here.house.tick();
        await becomes(() => here.far.asked.length > asked && here.isAtRest());
      }
      expect(here.far.took()).toEqual([]);
      expect(here.steps()).not.toContain('failed');
      here.far.sendsFail = null;
      const other = here.otherWriter();
      await here.answerTo(other, 'second');
      await becomes(() => here.far.took().length === 2);
      expect([...here.far.took()].sort()).toEqual(['first', 'second']);
    });

    it('gives up when nobody waits for it any more, or the network lets it through no more', async () => {
      await here.says('a');
      const { can } = (await here.doors('GET', `/${here.doorId}`)).body;
      const worthMs = Math.min(72 * hour, can.windowMs ?? Number.MAX_SAFE_INTEGER);
      here.far.sendsFail = { status: 500 };
      await here.answer('first');
      await becomes(() => here.steps().includes('waiting'));
      here.house.clock.advance(worthMs - 60_000);
      await here.house.tick();
      await becomes(() => here.isAtRest());
      expect(here.steps()).not.toContain('failed');
      here.house.clock.advance(60_000);
      await here.house.tick();
      await becomes(() => here.steps().includes('failed'));
      const why =
        can.windowMs !== null && can.windowMs < 72 * hour ? 'window-closed' : 'network-broken';
      expect(here.roll('receipt').at(-1)?.why).toBe(why);
    });

    it('keeps the order in which somebody wrote, however near in time and however late it comes', async () => {
      const now = here.house.clock.now();
      const say = (id: string, agoMs: number, nth: number) =>
        here.hand({ what: 'said', id, text: id, nth }, agoMs);
      await say('third', 0, 3);
      await say('first', 1_000, 1);
      // A gateway that knows seconds only counts what it hands over in one.
      await say('second', kind === 'text' ? 1_000 : 500, 2);
      await say('fourth', -3_000, 4);
      const roll = here.house.store.entries.since(0, 500);
      const inOrder = inOrderSaid(roll).filter((entry) => entry.kind === 'visitor-said');
      expect(inOrder.map(({ text }) => text)).toEqual(['first', 'second', 'third', 'fourth']);
      expect(inOrder.every(({ at }) => at >= now)).toBe(true);
    });

    it('says so of a message that the network lets through no more, and lets it be tried again', async () => {
      await here.says('a');
      if (kind === 'tintype') await here.doors('POST', `/${here.doorId}/check`, {});
      here.far.next.push({ status: 422, body: network.shut });
      await here.answer();
      await becomes(() => here.steps().includes('failed'));
      const [failed] = here.roll('receipt');
      expect(['window-closed', 'person-stopped']).toContain(failed?.why);
      // It is wrong with the message, not with the door.
      expect(here.house.store.doors.health(here.doorId).failingSince).toBeNull();
      const [said] = here.roll('team-said');
      const path = `/api/conversations/${here.talk()}/entries/${said?.id}/again`;
      expect((await here.house.ask('POST', path, { cookie: here.cookie, body: {} })).status).toBe(
        204,
      );
      await becomes(() => here.steps().includes('sent'));
      expect(here.steps()).toEqual(['failed', 'waiting', 'sent']);
    });

    it('never shows its key again, and keeps it when nothing is typed in its place', async () => {
      const { body } = await here.doors('GET', `/${here.doorId}`);
      expect(JSON.stringify(body)).not.toContain('the key');
      const key = body.fields.find(({ id }: { id: string }) => id === 'key');
      expect(key).toMatchObject({ isSecret: true, isSet: true, value: '' });
      const kept = await here.doors('PUT', `/${here.doorId}`, { given: { key: '' } });
      expect(kept.body.fields).toEqual(body.fields);
      const stored = here.house.store.doors.sealedSecret(here.doorId)?.toString('latin1');
      expect(stored).not.toContain('the key');
    });

    it.each(Object.keys(network.given))('is not opened without its %s', async (field) => {
      const given = { ...network.given, [field]: ' ' };
      const { status, body } = await here.doors('POST', '', { kind, name: 'x', given });
      expect([status, body.field]).toEqual([400, field]);
    });

    it('is asked whether all is well, and says what is wrong', async () => {
      expect((await here.doors('POST', `/${here.doorId}/check`, {})).body.problem).toBeNull();
      here.far.next.push(...Array(3).fill({ status: 401 }));
      expect((await here.doors('POST', `/${here.doorId}/check`, {})).body.problem).toBe(
        'key-refused',
      );
    });

    it('lets nothing out that waited when it was closed, and says so', async () => {
      await here.says('a');
      here.far.next.push(...Array(3).fill({ status: 500 }));
      await here.answer();
      await becomes(() => here.house.store.doors.health(here.doorId).why === 'network-broken');
      here.far.next.length = 0;
      const path = `/api/doors/${here.doorId}`;
      await here.house.ask('PUT', path, { cookie: here.cookie, body: { isClosed: true } });
      const before = here.far.carried().length;
      here.house.clock.advance(hour);
      await here.house.tick();
      await becomes(() => here.steps().includes('failed'));
      expect(here.roll('receipt').at(-1)?.why).toBe('door-closed');
      expect(here.far.carried()).toHaveLength(before);
    });

    it('keeps what was changed of it while it was asked whether all is well', async () => {
      here.far.whileAsked = () => {
        const door = here.house.store.doors.byId(here.doorId);
        if (!door) throw new Error('the door is gone');
        const settings = { ...door.settings, isOffered: true };
        here.house.store.doors.update({ ...door, settings });
      };
      expect((await here.doors('POST', `/${here.doorId}/check`, {})).body.problem).toBeNull();
      expect(here.house.store.doors.byId(here.doorId)?.settings.isOffered).toBe(true);
    });

    it('refuses a text that is too long with a link in it for a file', async () => {
      await here.says('a');
      const { can } = (await here.doors('GET', `/${here.doorId}`)).body;
      const files = [];
      for (let nth = 0; nth <= can.filesMost; nth += 1) {
        const id = clientId();
        const path = `/api/files/${id}`;
        const headers = { 'content-type': 'application/octet-stream', 'x-file-name': 'a.txt' };
        const body = Buffer.from('a file');
        const { status } = await here.house.ask('PUT', path, {
          cookie: here.cookie,
          headers,
          body,
        });
        expect(status).toBe(200);
        files.push(id);
      }
      const text = 'x'.repeat(can.textLongest - 50);
      expect((await here.answer(text, { fileIds: files })).body.code).toBe('text-too-long');
      expect((await here.answer(text)).status).toBe(200);
    });

    it('can be read and not answered once it was taken away', async () => {
      await here.says('a');
      expect((await here.doors('DELETE', `/${here.doorId}`)).status).toBe(200);
      expect((await here.answer()).body.code).toBe('door-closed');
      const rolled = await here.house.ask('GET', `/api/conversations/${here.talk()}`, {
        cookie: here.cookie,
      });
      expect(rolled.body.entries).not.toHaveLength(0);
      const { body } = await here.house.ask('GET', '/api/house', { cookie: here.cookie });
      expect(body.formerDoors).toMatchObject([{ id: here.doorId, name: 'Far' }]);
      expect(body.doors.map(({ id }: { id: string }) => id)).not.toContain(here.doorId);
      expect(here.house.store.doors.sealedSecret(here.doorId)).toBeNull();
      expect((await here.doors('GET', `/${here.doorId}`)).status).toBe(404);
      expect(await here.says('b')).toBe(410);
    });
  },
);

/** Networks that carry pictures. */
const pictured = madeNetworks.filter((network) => network.picture('x') !== '');

describe.each(pictured.map((network) => [network.kind, network] as const))(
  'pictures by a door to %s',
  (_kind, network) => {
    let here: NetworkHouse;
    beforeEach(async () => {
      here = await openNetworkHouse(network);
    });
    afterEach(() => here.house.close());

    const leafPng = () =>
      sharp({ create: { width: 4, height: 4, channels: 3, background: '#2f6247' } })
        .png()
        .toBuffer();
    const cameFor = (of: number | undefined) =>
      here.roll('file-came').filter((one) => one.of === of);

    it('fetches pictures from the network itself, encodes them anew, and says what cannot be had', async () => {
      here.far.files.set('leaf', await leafPng());
      here.far.files.set('none', Buffer.from('no picture'));
      await here.says('a', 0, { pictures: [network.picture('leaf')] });
      await becomes(() => here.roll('file-came').length === 1);
      const [said] = here.roll('visitor-said');
      expect(said?.coming).toHaveLength(1);
      expect(cameFor(said?.seq)).toMatchObject([
        { place: 0, file: { picture: { width: 4, height: 4 } } },
      ]);
      if (network.picture('x').startsWith('https:')) {
        await here.says('b', 0, { pictures: ['https://elsewhere.example/leaf'] });
        await becomes(() => here.roll('file-came').length === 2);
        expect(cameFor(here.roll('visitor-said')[1]?.seq)).toMatchObject([{ file: null }]);
      }
      const fetched = here.far.asked.filter((one) => one.address.includes('elsewhere'));
      expect(fetched).toEqual([]);
    });

    it('shows words at once while the network is down, says that its door fails, and fills the place a day later', async () => {
      here.far.coming.add('leaf');
      here.far.filesFail = { status: 503 };
      await here.says('urgent', 0, { pictures: [network.picture('leaf')] });
      const [said] = here.roll('visitor-said');
      expect(said).toMatchObject({ text: 'Words of urgent', files: [] });
      expect(said?.coming?.[0]).toContain('leaf');
      expect(
        here.house.store.conversations.counts().waiting +
          here.house.store.conversations.counts().note,
      ).toBe(1);
      await becomes(() => here.house.store.doors.health(here.doorId).why === 'network-broken');
      // What else works does not speak for the files.
      await here.says('b');
      expect(here.house.store.doors.health(here.doorId).why).toBe('network-broken');
      const leaf = await leafPng();
      await becomes(() => here.isAtRest());
      here.far.files.set('leaf', leaf);
      here.far.filesFail = null;
      here.house.clock.advance(24 * hour);
      await here.house.tick();
      await becomes(() => here.roll('file-came').length === 1);
      expect(cameFor(said?.seq)).toMatchObject([{ place: 0, file: { type: 'image/jpeg' } }]);
      expect(here.house.store.doors.health(here.doorId).failingSince).toBeNull();
    });

    it('is had at once when its owner makes sure that the network works again', async () => {
      here.far.coming.add('leaf');
      here.far.filesFail = { status: 503 };
      await here.says('a', 0, { pictures: [network.picture('leaf')] });
      await becomes(
        () => here.house.store.doors.health(here.doorId).why !== null && here.isAtRest(),
      );
      here.far.filesFail = null;
      here.far.files.set('leaf', await leafPng());
      expect((await here.doors('POST', `/${here.doorId}/check`, {})).body.problem).toBeNull();
      await becomes(() => here.roll('file-came').length === 1);
      expect(here.roll('file-came')[0]?.file).not.toBeNull();
    });

    it('says after an hour that a picture is not there, and looks again when somebody asks for it', async () => {
      here.far.coming.add('leaf');
      await here.says('a', 0, { pictures: [network.picture('leaf')] });
      const [said] = here.roll('visitor-said');
      // Of one file that is not there its network cannot be told to fail.
      await becomes(() => here.isAtRest());
      expect(here.house.store.doors.health(here.doorId).failingSince).toBeNull();
      here.house.clock.advance(hour);
      await here.house.tick();
      await becomes(() => here.roll('file-came').length === 1);
      expect(cameFor(said?.seq)).toMatchObject([{ file: null, canRetry: true }]);
      here.far.files.set('leaf', await leafPng());
      const path = `/api/conversations/${here.talk()}/entries/${said?.id}/again`;
      expect((await here.house.ask('POST', path, { cookie: here.cookie, body: {} })).status).toBe(
        204,
      );
      await becomes(() => here.roll('file-came').length === 2);
      expect(cameFor(said?.seq).at(-1)?.file).not.toBeNull();
    });

    it('loses no picture because there was too much at once', async () => {
      here.far.files.set('leaf', await leafPng());
      const { encode } = here.house.services.darkroom;
      const crowded = jest.spyOn(here.house.services.darkroom, 'encode');
      crowded.mockImplementationOnce(async () => {
        throw new Refused('too-many', { waitMs: 1 });
      });
      await here.says('a', 0, { pictures: [network.picture('leaf')] });
      await becomes(() => crowded.mock.calls.length === 1 && here.isAtRest());
      expect(here.roll('file-came')).toEqual([]);
      expect(here.house.store.doors.health(here.doorId).failingSince).toBeNull();
      crowded.mockImplementation(encode);
      here.house.clock.advance(5_000);
      await here.house.tick();
      await becomes(() => here.roll('file-came').length === 1);
      expect(here.roll('file-came')[0]?.file).not.toBeNull();
    });

    it('asks for nothing more once its door was taken away', async () => {
      here.far.coming.add('leaf');
      here.far.filesFail = { status: 503 };
      await here.says('a', 0, { pictures: [network.picture('leaf')] });
      await becomes(
        () => here.house.store.doors.health(here.doorId).why !== null && here.isAtRest(),
      );
      await here.doors('DELETE', `/${here.doorId}`);
      const asked = here.far.asked.length;
      await becomes(() => here.roll('file-came').length === 1);
      expect(here.far.asked).toHaveLength(asked);
      expect(here.house.store.jobs.hasReady('fetch-file')).toBe(false);
      expect(here.house.store.jobs.deadCount()).toBe(0);
    });

    it('takes more pictures at once than a message has, all of them', async () => {
      const pictures = Array.from({ length: 20 }, (_, at) => network.picture(`leaf-${at}`));
      const leaf = await sharp({
        create: { width: 4, height: 4, channels: 3, background: '#2f6247' },
      })
        .png()
        .toBuffer();
      for (let at = 0; at < 20; at += 1) here.far.files.set(`leaf-${at}`, leaf);
      await here.says('a', 0, { pictures });
      await becomes(() => here.roll('file-came').filter(({ file }) => file).length === 20);
      expect(here.roll('visitor-said').flatMap(({ coming = [] }) => coming)).toHaveLength(20);
      expect(here.roll('visitor-said').filter(({ text }) => text === 'Words of a')).toHaveLength(1);
    });
  },
);
