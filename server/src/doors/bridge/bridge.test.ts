import { type Entry, inOrderSaid } from '@porch/core/conversation';
import sharp from 'sharp';
import { type Bridge, openBridge } from '../../../test-kit/bridge';
import { type House, openHouse, setUp } from '../../../test-kit/house';
import { clientId, until } from '../../../test-kit/panel';
import { addHelper } from '../../../test-kit/routes';

const minute = 60_000;

describe('a door by a bridge', () => {
  let bridge: Bridge;
  let house: House;
  let cookie: string;
  let doorId: string;
  let address: string;

  const networkDoor = (method: 'GET' | 'POST' | 'PUT', path: string, body?: object) =>
    house.ask(method, `/api/network-doors${path}`, { cookie, ...(body ? { body } : {}) });

  beforeEach(async () => {
    bridge = await openBridge();
    house = await openHouse({
      networksNear: [bridge.origin],
      publicOrigin: 'http://porch.example',
    });
    ({ cookie } = await setUp(house));
    const given = { url: bridge.url };
    const made = await networkDoor('POST', '', { kind: 'bridge', name: 'Snails', given });
    doorId = made.body.id;
    bridge.setKey(made.body.shows.key);
    address = new URL(made.body.shows.address).pathname;
    await networkDoor('POST', `/${doorId}/check`, {});
  });
  afterEach(async () => {
    await house.close();
    await bridge.close();
  });

  let handed = 0;
  const hand = (what: object, change: object = {}, by?: string) => {
    handed += 1;
    const at = new Date(house.clock.now());
    const { body, headers } = bridge.signed(`msg-${handed}`, what, at, by);
    return house.ask('POST', address, { body, headers: { ...headers, ...change } });
  };
  const moment = (ago = 0): string => new Date(house.clock.now() - ago).toISOString();
  const says = (id: string, data: object = {}, ago = 0) => ({
    type: 'message',
    timestamp: moment(ago),
    data: { id, from: { id: 'wren@snails', name: 'Wren' }, text: `Words of ${id}`, ...data },
  });
  const roll = <Kind extends Entry['kind']>(kind: Kind) =>
    house.store.entries
      .since(0, 500)
      .filter((entry): entry is Extract<Entry, { kind: Kind }> => entry.kind === kind);
  const talk = (): string => roll('visitor-said')[0]?.conversationId ?? '';
  const answer = (text: string, fileIds: string[] = []) =>
    house.ask('POST', `/api/conversations/${talk()}/deeds`, {
      cookie,
      body: { do: 'say', id: clientId(), text, fileIds },
    });
  const asked = (type: string) => bridge.asked.filter((one) => one.type === type);
  /** Whether what the first message has is to be fetched once more. */
  const isFetchPut = (): boolean => {
    const { threadId = '', id = '' } = roll('visitor-said').find(({ coming }) => coming) ?? {};
    const job = house.store.jobs.byKey(`fetch ${threadId} ${id} 0`);
    return job?.state === 'ready' && job.notBefore > house.clock.now();
  };
  const picture = () =>
    sharp({ create: { width: 4, height: 4, channels: 3, background: '#2f6247' } })
      .png()
      .toBuffer();

  it('is opened with an address, and learns what its network can do', async () => {
    const { body } = await networkDoor('GET', `/${doorId}`);
    expect(body).toMatchObject({
      kind: 'bridge',
      fields: [{ id: 'url', value: bridge.url, isSet: true }],
      shows: { address: expect.stringContaining('http://porch.example/in/') },
      can: { textLongest: 500, filesMost: 1, receipts: 'read', windowMs: null },
      problem: null,
    });
    expect(asked('capabilities')).toHaveLength(1);
    bridge.answers.push({ status: 500 }, { status: 401 }, { status: 200, body: '{"name":""}' });
    const problems = [];
    for (let nth = 0; nth < 3; nth += 1) {
      problems.push((await networkDoor('POST', `/${doorId}/check`, {})).body.problem);
    }
    expect(problems).toEqual(['network-broken', 'key-refused', 'answer-not-understood']);
  });

  it.each([
    ['into the local network', 'https://192.168.1.9/porch'],
    ['not encrypted', 'http://bridge.example/porch'],
    ['nowhere', ''],
    ['in no form', 'bridge'],
  ])('is opened with no address that leads %s', async (_what, url) => {
    const made = await networkDoor('POST', '', { kind: 'bridge', name: 'x', given: { url } });
    expect([made.status, made.body.field]).toEqual([400, 'url']);
  });

  it('is its owner’s to open and to see', async () => {
    const helper = await addHelper(house, cookie);
    for (const [method, path] of [
      ['GET', `/${doorId}`],
      ['POST', ''],
      ['PUT', `/${doorId}`],
      ['POST', `/${doorId}/key`],
      ['POST', `/${doorId}/check`],
    ] as const) {
      const url = `/api/network-doors${path}`;
      const body = method === 'GET' ? {} : { body: { kind: 'bridge', name: 'x', given: {} } };
      expect((await house.ask(method, url, { cookie: helper, ...body })).status).toBe(403);
      expect((await house.ask(method, url, body)).status).toBe(401);
    }
  });

  it('brings in what is said there, once, at its moment, with who it is and what was in it besides', async () => {
    const data = {
      from: { id: 'wren@snails', name: 'Wren', email: 'wren@post.example' },
      parts: [
        { kind: 'location', latitude: 51.5, longitude: -0.1, text: 'The gate' },
        { kind: 'contact', name: 'Robin', phone: '+447700900123' },
        { kind: 'sticker' },
      ],
    };
    const what = says('1', data, 5 * minute);
    expect((await hand(what)).status).toBe(204);
    expect((await hand(what)).status).toBe(204);
    expect(roll('visitor-said')).toMatchObject([
      {
        text: 'Words of 1\nThe gate (geo:51.5,-0.1)\nRobin · +447700900123\n[sticker]',
        saidAt: house.clock.now() - 5 * minute,
      },
    ]);
    expect(house.store.conversations.byId(talk())?.state).toMatchObject({ name: 'Wren' });
    expect(house.store.ways.of(talk())).toMatchObject([{ source: 'proven', kind: 'email' }]);
  });

  it('takes nothing that is not proved to come from there, and passes over what it does not know', async () => {
    const other = await networkDoor('POST', '', {
      kind: 'bridge',
      name: 'Other',
      given: { url: bridge.url },
    });
    const wrong = [
      await hand(says('1'), { 'webhook-signature': 'v1,AAAA' }),
      await hand(says('1'), { 'webhook-timestamp': '1' }),
      await hand(says('1'), {}, other.body.shows.key),
    ];
    expect(wrong.map(({ status }) => status)).toEqual([401, 401, 401]);
    expect((await hand({ type: 'message', timestamp: 'now', data: {} })).status).toBe(400);
    expect((await hand({ type: 'reaction.added', timestamp: moment(), data: {} })).status).toBe(
      204,
    );
    expect(roll('visitor-said')).toEqual([]);
  });

  it('says which fields of it nobody reads, and takes the rest', async () => {
    const from = { id: 'wren@snails', nickname: 'W' };
    const odd = { kind: 'location', latitude: 55.1, longitude: -1.6, accuracy: 4 };
    const taken = await hand(says('a', { from, mood: 'glad', 'ill named': 1, parts: [odd] }));
    expect(taken.status).toBe(204);
    expect(taken.headers['ignored-fields']).toBe(
      'data.from.nickname, data.mood, data.parts.0.accuracy',
    );
    expect(roll('visitor-said')).toHaveLength(1);
    expect((await hand(says('b'))).headers['ignored-fields']).toBe(undefined);
  });

  it('goes on by either key while one is changed', async () => {
    const { body } = await networkDoor('POST', `/${doorId}/key`, {});
    expect((await hand(says('1'))).status).toBe(204);
    await answer('Yes');
    await until(() => asked('message')[0]);
    bridge.setKey(body.shows.key);
    expect((await hand(says('2'))).status).toBe(204);
    await answer('And yes');
    await until(() => asked('message')[1]);
    expect(bridge.unproven).toEqual([]);
  });

  it('brings in changes, receipts and that somebody types', async () => {
    await hand(says('1'));
    await hand({
      type: 'message.changed',
      timestamp: moment(),
      data: { id: '1', from: { id: 'wren@snails' }, text: 'Better words' },
    });
    await answer('Yes');
    const { id } = (await until(() => asked('message')[0])).data;
    expect(id).toMatch(/^deliver-/);
    await until(() => (roll('receipt').length > 0 ? true : undefined));
    for (const step of ['read', 'arrived']) {
      const data = { id: `snail ${bridge.asked.length}`, step };
      await hand({ type: 'receipt', timestamp: moment(), data });
    }
    expect(roll('receipt').map(({ step }) => step)).toEqual(['sent', 'read']);
    expect(roll('visitor-changed')).toMatchObject([{ text: 'Better words' }]);
    const typing = { type: 'typing', timestamp: moment(), data: { from: { id: 'wren@snails' } } };
    expect((await hand(typing)).status).toBe(204);
  });

  it('fetches files from the bridge after it has taken the message, and says which it could not have', async () => {
    bridge.files.set('/leaf.png', await picture());
    bridge.files.set('/notes.txt', Buffer.from('Water twice'));
    const files = [
      { url: `${bridge.origin}/leaf.png`, name: 'leaf.png' },
      { url: `${bridge.origin}/notes.txt`, name: 'notes.txt' },
      { url: 'https://elsewhere.example/secret.txt', name: 'secret.txt' },
      { url: `${bridge.origin}/notes.txt`, name: 'not-a-picture.png' },
    ];
    const what = says('1', { files, text: '' });
    expect((await hand(what)).status).toBe(204);
    await hand(what);
    expect(roll('visitor-said')).toMatchObject([
      { coming: ['leaf.png', 'notes.txt', 'secret.txt', 'not-a-picture.png'] },
    ]);
    await until(() => (roll('file-came').length === 4 ? true : undefined));
    const came = roll('file-came').sort((a, b) => a.place - b.place);
    expect(came.map(({ file }) => file)).toMatchObject([
      { name: 'leaf.jpg', picture: { width: 4 } },
      { name: 'notes.txt' },
      null,
      null,
    ]);
    // There is nothing that anybody could do about those.
    expect(house.store.jobs.deadCount()).toBe(0);
  });

  it('shows the words while their file is not there yet, and takes the file when it is', async () => {
    const files = [{ url: `${bridge.origin}/late.txt`, name: 'late.txt' }];
    await hand(says('1', { files }, minute));
    await hand(says('2'));
    const said = inOrderSaid(roll('visitor-said'));
    expect(said).toMatchObject([{ text: 'Words of 1' }, { text: 'Words of 2' }]);
    bridge.files.set('/late.txt', Buffer.from('Here'));
    // The first try may be under way yet.
    await until(() => (isFetchPut() ? true : undefined));
    house.clock.advance(10_000);
    await house.tick();
    await until(() => roll('file-came')[0]);
    expect(roll('file-came')).toMatchObject([{ of: said[0]?.seq, file: { name: 'late.txt' } }]);
  });

  it('carries out files as the network takes them, and as links where it does not', async () => {
    await hand(says('1'));
    const upload = (id: string, bytes: Buffer) =>
      house.ask('PUT', `/api/files/${id}`, {
        cookie,
        body: bytes,
        headers: { 'content-type': 'application/octet-stream', 'x-file-name': `${id}.txt` },
      });
    await upload('small-file-1', Buffer.from('small'));
    await upload('large-file-1', Buffer.alloc(2_000, 'a'));
    await answer('Small', ['small-file-1']);
    const small = (await until(() => asked('message')[0])).data as {
      files: { url: string; name: string }[];
    };
    expect(small.files).toMatchObject([{ name: 'small-file-1.txt', sizeBytes: 5 }]);
    await answer('Large', ['large-file-1']);
    const large = (await until(() => asked('message')[1])).data as { text: string; files: [] };
    expect(large.files).toEqual([]);
    const link = /^Large\nhttp:\/\/porch\.example(\/f\/\S+)$/.exec(large.text)?.[1] ?? '';
    const got = await house.ask('GET', link);
    expect([got.status, got.bytes.length]).toEqual([200, 2_000]);
    expect((await house.ask('GET', `${link}x`)).status).toBe(410);
    house.clock.advance(31 * 24 * 60 * minute);
    expect((await house.ask('GET', link)).status).toBe(410);
  });

  it('waits as long as the network asks, says why it fails, and gives up what is refused', async () => {
    await hand(says('1'));
    bridge.answers.push({ status: 429, retryAfter: '60' });
    await answer('Yes');
    await until(() => (house.store.doors.health(doorId).why ? true : undefined));
    expect(house.store.doors.health(doorId).why).toBe('network-too-many');
    house.clock.advance(59_000);
    await house.tick();
    expect(asked('message')).toEqual([]);
    house.clock.advance(2_000);
    await house.tick();
    await until(() => asked('message')[0]);
    await until(() => (house.store.doors.health(doorId).why === null ? true : undefined));
    bridge.answers.push({ status: 422 });
    await answer('No');
    await until(() => roll('receipt').find(({ step }) => step === 'failed'));
    expect(roll('receipt').at(-1)).toMatchObject({ step: 'failed', why: 'network-refused' });
  });
});
