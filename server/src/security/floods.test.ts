import { type AddressInfo, connect } from 'node:net';
import { PassThrough } from 'node:stream';
import type { FastifyRequest } from 'fastify';
import { type House, openHouse, setUp, site } from '../../test-kit/house';
import {
  clientId,
  openDevice,
  openPanel,
  until,
  visit,
  visitorToken,
  write,
} from '../../test-kit/panel';
import { inGoodTime } from './bodies';

describe('a flood from one visitor', () => {
  let house: House;
  let door: string;
  let cookie: string;
  const open = async (limits = {}) => {
    house = await openHouse({ limits });
    const made = await setUp(house);
    door = made.door.publicId;
    cookie = made.cookie;
  };
  afterEach(() => house.close());

  const entriesNow = () => house.store.entries.newestSeq();

  it('of how far they have read appends no more than there is to read', async () => {
    await open();
    const panel = await visit(house, door, 'wren');
    await panel.say('Hello');
    const before = entriesNow();
    for (let ahead = 1; ahead <= 60; ahead += 1) {
      panel.tell({ do: ahead % 2 ? 'has' : 'read', upTo: 1_000_000 * ahead });
    }
    panel.tell({ do: 'pulse' });
    await panel.hear('pulse');
    await panel.say('Still here');
    // Once that it has come, once that it was read; then the second message.
    expect(entriesNow() - before).toBeLessThanOrEqual(3);
  });

  it('of how far the team has read appends no more than there is to read', async () => {
    await open();
    await (await visit(house, door, 'wren')).say('Hello');
    const [conversation] = house.store.conversations.page('waiting', null, 1);
    const before = entriesNow();
    for (let count = 0; count < 5; count += 1) {
      await house.ask('POST', `/api/conversations/${conversation?.id}/deeds`, {
        cookie,
        body: { do: 'read', id: clientId(), upTo: 1_000_000 },
      });
    }
    expect(entriesNow() - before).toBe(1);
  });

  it('of hellos is cut off, and what else it says is not heard', async () => {
    await open({ panelWordsAMinute: 20 });
    const panel = await openPanel(house, door);
    const ends = panel.closed();
    for (let count = 0; count < 40; count += 1) {
      panel.tell({ do: 'hello', token: visitorToken('wren'), since: 0, site });
    }
    panel.tell({ do: 'say', id: clientId(), text: 'After it all', fileIds: [], page: null });
    expect(await ends).toBe(4429);
    expect(panel.heard.filter(({ say }) => say === 'welcome').length).toBeLessThanOrEqual(20);
    expect(house.store.conversations.counts().waiting).toBe(0);
  });

  it('behind a frame that is none of ours is not heard, though it came in the same packet', async () => {
    await open();
    const panel = await visit(house, door, 'wren');
    const ends = panel.closed();
    panel.tellRaw('no frame of ours');
    panel.tell({ do: 'say', id: clientId(), text: 'Behind it', fileIds: [], page: null });
    expect(await ends).toBe(4400);
    await house.tick();
    expect(house.store.conversations.counts().waiting).toBe(0);
  });

  it('of hellos over many sockets is held back by its address', async () => {
    await open({ hellosAMinute: 5 });
    for (let count = 0; count < 5; count += 1) await visit(house, door, `visitor-${count}`);
    const panel = await openPanel(house, door);
    panel.tell({ do: 'hello', token: visitorToken('one-more'), since: 0, site });
    expect((await panel.hear('refused')).refusal.code).toBe('too-many');
    house.clock.advance(60_000);
    await visit(house, door, 'later');
  });

  it('of typing is told to the team a bounded number of times', async () => {
    await open({ visitorHintsAMinute: 10 });
    const panel = await visit(house, door, 'wren');
    await panel.say('Hello');
    const device = await openDevice(house, cookie);
    for (let count = 0; count < 50; count += 1) panel.tell({ do: 'typing' });
    panel.tell({ do: 'pulse' });
    await panel.hear('pulse');
    await panel.say('Done');
    await device.hear('entries');
    expect(device.heard.filter(({ say }) => say === 'typing').length).toBeLessThanOrEqual(10);
  });

  it('of words of the team is cut off as well', async () => {
    await open({ deviceWordsAMinute: 10 });
    const device = await openDevice(house, cookie);
    const ends = device.closed();
    for (let count = 0; count < 20; count += 1) device.tell({ do: 'pulse' });
    expect(await ends).toBe(4429);
  });

  it('of letters is held back by its address, before any is read', async () => {
    await open({ lettersAMinute: 3 });
    for (let count = 0; count < 3; count += 1) await write(house, door, 'wren', []);
    const response = await house.ask('POST', `/door/${door}/letters`, {
      body: { not: 'a letter' },
    });
    expect(response.body.code).toBe('too-many');
  });

  it('of new visitors is not walked around by saying hello as the next one meanwhile', async () => {
    await open({ newVisitorsAnHour: 2 });
    const panel = await openPanel(house, door);
    const hello = (index: number) =>
      panel.tell({ do: 'hello', token: visitorToken(`made-up-${index}`), since: 0, site });
    hello(0);
    for (let index = 0; index < 6; index += 1) {
      const id = clientId();
      panel.tell({ do: 'say', id, text: 'Hello', fileIds: [], page: null });
      // The next one comes before this one has been answered.
      hello(index + 1);
      await until(() => panel.heard.find((one) => 'id' in one && one.id === id));
    }
    expect(house.store.conversations.counts().waiting).toBe(2);
  });

  it('of uploads is held back by its address before a byte of them is read', async () => {
    await open({ uploadsAnHour: 2 });
    await (await visit(house, door, 'wren')).say('Hello');
    const put = (index: number, body: unknown, type = 'application/octet-stream') =>
      house.ask('PUT', `/door/${door}/files/file-of-wren-${index}`, {
        body,
        headers: {
          authorization: `Bearer ${visitorToken('wren')}`,
          'x-site': site,
          'content-type': type,
        },
      });
    expect((await put(1, Buffer.from('one'))).status).toBe(200);
    expect((await put(2, Buffer.from('two'))).status).toBe(200);
    expect((await put(3, Buffer.from('three'))).body.code).toBe('too-many');
    // What could not even be parsed is refused for the same reason: it was not looked at.
    expect((await put(4, '{', 'application/json')).body.code).toBe('too-many');
  });
});

describe('before a body is read', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  const put = (url: string, headers = {}) =>
    house.ask('PUT', url, {
      body: Buffer.alloc(11 * 1024 * 1024),
      headers: { 'content-type': 'application/octet-stream', ...headers },
    });

  it('door, token, website and session are looked at: what is too large is refused for those first', async () => {
    const { door } = await setUp(house);
    const mine = { authorization: `Bearer ${visitorToken('wren')}` };
    const at = `/door/${door.publicId}/files/some-file-0001`;
    expect((await put('/door/no-such-door-1/files/some-file-0001', mine)).body.code).toBe(
      'not-found',
    );
    expect((await put(at)).body.code).toBe('token-unknown');
    expect((await put(at, { ...mine, 'x-site': 'https://evil.example' })).body.code).toBe(
      'site-not-listed',
    );
    expect((await put('/api/files/some-file-0001')).body.code).toBe('sign-in-needed');
    expect((await put(at, { ...mine, 'x-site': site })).body.code).toBe('too-large');
  });

  it('is waited for no longer once there is an answer, though nobody read it', async () => {
    jest.useFakeTimers({ doNotFake: ['setImmediate', 'nextTick', 'queueMicrotask'] });
    try {
      const answer = new PassThrough();
      const request = { headers: { 'content-length': '10' } } as FastifyRequest;
      inGoodTime(request, { raw: answer } as never, new PassThrough(), 1_000);
      expect(jest.getTimerCount()).toBe(1);
      answer.resume().end('too large');
      await until(() => (jest.getTimerCount() === 0 ? true : undefined));
    } finally {
      jest.useRealTimers();
    }
  });
});

describe('a body that is not sent', () => {
  it('is given up after a while, and the server says why', async () => {
    const house = await openHouse({ bodyLongestMs: 50 });
    const { cookie } = await setUp(house);
    await house.app.listen({ port: 0, host: '127.0.0.1' });
    const { port } = house.app.server.address() as { port: number };
    const { request } = await import('node:http');
    const status = await new Promise<number>((resolve, reject) => {
      const asking = request(
        {
          port,
          method: 'PUT',
          path: '/api/lamp',
          headers: {
            host: `127.0.0.1:${port}`,
            origin: `http://127.0.0.1:${port}`,
            cookie,
            'content-type': 'application/json',
            'content-length': 30,
          },
        },
        (response) => {
          response.resume();
          resolve(response.statusCode ?? 0);
        },
      );
      asking.on('error', reject);
      asking.write('{"state":');
    });
    expect(status).toBe(408);
    await house.close();
  });
});

describe('lasting connections', () => {
  it('are so many for an address, and one that ends makes room', async () => {
    const house = await openHouse({ limits: { connectionsOfAnAddress: 2 } });
    const { door, cookie } = await setUp(house);
    const first = await openPanel(house, door.publicId);
    await openDevice(house, cookie);
    await expect(openPanel(house, door.publicId)).rejects.toThrow('429');
    const lamp = await house.ask('GET', `/door/${door.publicId}/lamp`, {
      headers: { origin: site },
    });
    expect(lamp.body.code).toBe('too-many');
    const ends = first.closed();
    first.close();
    await ends;
    await until(() => (house.services.connections.open('127.0.0.1') < 2 ? true : undefined));
    await openPanel(house, door.publicId);
    await house.close();
  });

  it('are cut off before they say anything, beyond twice as many, unless they come through a proxy', async () => {
    const dialled = async (house: House): Promise<string[]> => {
      await house.app.listen({ port: 0, host: '127.0.0.1' });
      const { port } = house.app.server.address() as AddressInfo;
      const ends = await Promise.all(
        Array.from({ length: 6 }, async () => {
          const socket = connect(port, '127.0.0.1');
          socket.on('error', () => undefined);
          const cut = new Promise<string>((resolve) =>
            socket.on('close', () => resolve('cut off')),
          );
          const heard = new Promise<string>((resolve) => {
            socket.on('data', () => resolve('answered'));
          });
          socket.write('GET /healthz HTTP/1.1\r\nhost: porch\r\n\r\n');
          return Promise.race([cut, heard]);
        }),
      );
      await house.close();
      return ends.sort();
    };
    const limits = { connectionsOfAnAddress: 2 };
    const answered = (many: number) => new Array(many).fill('answered');
    expect(await dialled(await openHouse({ limits }))).toEqual([
      ...answered(4),
      'cut off',
      'cut off',
    ]);
    expect(await dialled(await openHouse({ limits, trustProxy: 1 }))).toEqual(answered(6));
  });

  it('that read nothing of what they are told are cut off, and told anew when they come back', async () => {
    const { sendTo } = await import('../live/sockets');
    const done: string[] = [];
    const socket = {
      OPEN: 1,
      readyState: 1,
      bufferedAmount: 0,
      send: () => done.push('sent'),
      terminate: () => done.push('cut off'),
    };
    sendTo(socket as never, 'x', 1_000);
    socket.bufferedAmount = 1_001;
    sendTo(socket as never, 'x', 1_000);
    socket.readyState = 3;
    sendTo(socket as never, 'x', 1_000);
    expect(done).toEqual(['sent', 'cut off']);
  });

  it('that say nothing for long are gone, as a phone in a tunnel is', async () => {
    jest.useFakeTimers({ doNotFake: ['setImmediate', 'nextTick', 'queueMicrotask'] });
    try {
      const { listen, SILENCE_LONGEST_MS } = await import('../live/sockets');
      const { EventEmitter } = await import('node:events');
      const { z } = await import('zod');
      const socket = Object.assign(new EventEmitter(), { terminate: jest.fn(), close: jest.fn() });
      const options = { mayGoOn: () => true, handle: () => {} };
      listen(socket as never, { debug: () => {}, error: () => {} } as never, z.unknown(), options);
      jest.advanceTimersByTime(SILENCE_LONGEST_MS - 1);
      socket.emit('message', '1');
      jest.advanceTimersByTime(SILENCE_LONGEST_MS - 1);
      expect(socket.terminate).not.toHaveBeenCalled();
      jest.advanceTimersByTime(1);
      expect(socket.terminate).toHaveBeenCalledTimes(1);
    } finally {
      jest.useRealTimers();
    }
  });
});
