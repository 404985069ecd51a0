import { createHmac } from 'node:crypto';
import { mkdtempSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Delivery } from '@porch/contract/doors';
import { MESSAGE_LONGEST } from '@porch/core/text';
import Database from 'better-sqlite3';
import { type House, openHouse, setUp } from '../../test-kit/house';
import { clientId, until } from '../../test-kit/panel';
import { JobFailed } from '../jobs/worker';
import { Refused } from '../refused';
import { createSeal, keyFile, keyInMemory, keyPath } from '../security/seal';
import { createRegistry, type DoorKind, type Sending } from './registry';
import { websiteCan } from './website/kind';

const second = 1_000;

/** How the made-up network signs what it hands over: of the bytes, whatever they mean. */
const markOf = (body: Buffer, secret: string): string =>
  createHmac('sha256', secret).update(body).digest('hex');

/** A made-up network: what is sent to it stands in a list, and it answers as a test says. */
const openNetwork = () => {
  const sent: Sending[] = [];
  const answers: (Delivery | JobFailed)[] = [];
  const kind: DoorKind = {
    kind: 'carrier-snail',
    way: 'snail',
    can: { ...websiteCan, textLongest: 20, receipts: 'read' },
    send: async (sending) => {
      sent.push(sending);
      const answer = answers.shift() ?? { networkId: `net-${sent.length}`, step: 'sent' };
      if (answer instanceof JobFailed) throw answer;
      return answer;
    },
    hear: ({ body, headers, secret }) => {
      if (headers['x-snail-mark'] !== markOf(body, secret ?? '')) {
        throw new Refused('signature-wrong');
      }
      return JSON.parse(String(body));
    },
  };
  return { sent, answers, kind };
};

const open = async (path = ':memory:', keys = keyInMemory()) => {
  const network = openNetwork();
  const house = await openHouse({}, path, { doorKinds: [network.kind], keys });
  const { cookie, door } = await setUp(house);
  const add = (id: string, kind = network.kind.kind) => {
    const settings = {};
    const made = { id, publicId: `${id}-public`, kind, name: id, settings };
    house.store.doors.add(
      { ...made, memberIds: null, closedAt: null, removedAt: null },
      house.clock.now(),
    );
    return id;
  };
  const doorId = add('snail-door-01');
  const comes = (networkId: string, change: object = {}) =>
    house.services.write(() =>
      house.services.receive.inboundNow({
        doorId,
        networkId,
        from: 'wren@snails',
        name: 'Wren',
        text: `Words of ${networkId}`,
        fileIds: [],
        proves: [],
        ...change,
      }),
    );
  const answer = (conversationId: string, text = 'Yes', change: object = {}) =>
    house.ask('POST', `/api/conversations/${conversationId}/deeds`, {
      cookie,
      body: { do: 'say', id: clientId(), text, fileIds: [], ...change },
    });
  const receiptsOf = async (id: string) =>
    (await house.ask('GET', `/api/conversations/${id}`, { cookie })).body.receipts;
  const reaches = async (id: string, step: string) => {
    await until(() => (house.store.deliveries.bySeq(seqOf(id))?.step === step ? true : undefined));
    return receiptsOf(id);
  };
  const seqOf = (id: string): number => {
    const entries = house.store.entries.allOf(id).filter(({ kind }) => kind === 'team-said');
    return entries[entries.length - 1]?.seq ?? 0;
  };
  return {
    ...network,
    house,
    cookie,
    door,
    add,
    doorId,
    comes,
    answer,
    receiptsOf,
    reaches,
    seqOf,
  };
};

describe('what comes in by a network', () => {
  let here: Awaited<ReturnType<typeof open>>;
  let house: House;
  beforeEach(async () => {
    here = await open();
    house = here.house;
  });
  afterEach(() => house.close());

  it('stands in the line like all else, under the name that is said there', async () => {
    const id = await here.comes('in-1');
    const { body } = await house.ask('GET', `/api/conversations/${id}`, { cookie: here.cookie });
    expect(body.row).toMatchObject({
      doorId: here.doorId,
      group: 'waiting',
      state: { name: 'Wren', lastWords: 'Words of in-1', isHere: false },
    });
    expect(house.store.doors.health(here.doorId).heardAt).toBe(house.clock.now());
  });

  it('is there once for each of the network’s own ids and doors, however often and by whomever', async () => {
    const other = here.add('snail-door-02');
    const [first, again] = await Promise.all([here.comes('in-1'), here.comes('in-1')]);
    expect(again).toBe(first);
    expect(await here.comes('in-1', { from: 'somebody-else', text: 'Other words' })).toBe(first);
    expect(await here.comes('in-1', { doorId: other })).not.toBe(first);
    expect(await here.comes('in-2')).toBe(first);
    const said = house.store.entries.allOf(first).filter(({ kind }) => kind === 'visitor-said');
    expect(said).toHaveLength(2);
  });

  const rolled = (id: string) => house.store.entries.allOf(id);
  const change = (networkId: string, text: string | null, more: object = {}) =>
    house.services.write(() =>
      house.services.receive.changedNow({
        doorId: here.doorId,
        networkId,
        from: 'wren@snails',
        text,
        saidAt: house.clock.now(),
        ...more,
      }),
    );

  it('is changed and taken back by whoever said it, once, and the line shows what it is now', async () => {
    const id = await here.comes('in-1');
    const saidAt = house.clock.now();
    await change('in-1', 'Better words');
    await change('in-1', 'Better words', { saidAt });
    const stateOf = () => house.store.conversations.byId(id)?.state;
    expect(stateOf()).toMatchObject({ lastWords: 'Better words', unread: [expect.any(Number)] });
    await change('in-1', 'Words of somebody else', { from: 'robin@snails', saidAt: saidAt + 1 });
    await change('in-1', null, { saidAt: saidAt + 2 });
    const [said] = rolled(id).filter(({ kind }) => kind === 'visitor-said');
    expect(rolled(id).filter(({ kind }) => /changed|withdrew/.test(kind))).toMatchObject([
      { kind: 'visitor-changed', of: said?.seq, text: 'Better words', saidAt },
      { kind: 'visitor-withdrew', of: said?.seq, saidAt: saidAt + 2 },
    ]);
    expect(stateOf()).toMatchObject({ lastWords: '', unread: [] });
  });

  it('is changed also where that was handed over before it, by the latest that was', async () => {
    const now = house.clock.now();
    await change('in-1', 'Third words', { saidAt: now });
    await change('in-1', 'Second words', { saidAt: now - 1_000 });
    const id = await here.comes('in-1');
    expect(rolled(id).filter(({ kind }) => kind === 'visitor-changed')).toMatchObject([
      { text: 'Third words', saidAt: now },
    ]);
  });

  it('has its moment from the network, where that can be', async () => {
    const now = house.clock.now();
    const minute = 60_000;
    await here.comes('in-1', { saidAt: now - 5 * minute });
    await here.comes('in-2', { saidAt: now + minute });
    await here.comes('in-3', { saidAt: now - 60 * 24 * 60 * minute });
    const id = await here.comes('in-4');
    const moments = rolled(id).flatMap((one) => (one.kind === 'visitor-said' ? [one.saidAt] : []));
    expect(moments).toEqual([now - 5 * minute, undefined, undefined, undefined]);
  });

  it('is one person’s with what was proven to be theirs before, and with nothing that was only said', async () => {
    const proves = (address: string) => ({ proves: [{ kind: 'email', address }] });
    const first = await here.comes('in-1', { from: 'a', ...proves('Wren@Post.EXAMPLE') });
    const second = await here.comes('in-2', { from: 'b', ...proves('wren@post.example') });
    const standing = house.services.persons.standing(second);
    expect(standing?.id).toBe(first);
    expect(standing?.threads).toHaveLength(2);
    const joined = house.store.entries.since(0, 50).find(({ kind }) => kind === 'joined');
    expect(joined).toMatchObject({ memberId: null, from: second, conversationId: first });

    const { visiting } = house.services;
    const visitor = { doorId: here.door.id, tokenHash: 'hash-of-robin' };
    const message = { id: clientId(), text: 'Hello', fileIds: [], page: null };
    const third = await visiting.message(visitor, message, true);
    await visiting.details(visitor, clientId(), { email: 'robin@post.example' });
    const fourth = await here.comes('in-3', { from: 'c', ...proves('robin@post.example') });
    expect(fourth).not.toBe(third);
    expect(house.services.persons.standing(fourth)?.threads).toHaveLength(1);
  });
});

describe('people who have one number', () => {
  const number = '+447700900123';
  const proves = { proves: [{ kind: 'phone', address: number }] };

  it('stay two once somebody has parted them, whoever of them writes next', async () => {
    const here = await open();
    const one = await here.comes('in-1', { from: 'a', ...proves });
    const two = await here.comes('in-2', { from: 'b', ...proves });
    const standing = (id: string) => here.house.services.persons.standing(id)?.id;
    expect(standing(two)).toBe(one);
    const parted = await here.house.ask('POST', `/api/conversations/${one}/deeds`, {
      cookie: here.cookie,
      body: { do: 'part', id: clientId(), otherId: clientId(), threadIds: [two] },
    });
    expect(parted.status).toBe(200);
    await here.comes('in-3', { from: 'b', ...proves });
    await here.comes('in-4', { from: 'a', ...proves });
    expect([standing(one), standing(two)]).toEqual([one, two]);
  });

  it('are called as whoever has it now, and the roll says when that changed, once', async () => {
    const here = await open();
    const id = await here.comes('in-1', { name: 'Wren' });
    await here.comes('in-2', { name: 'Robin' });
    await here.comes('in-3', { name: 'Robin' });
    await here.comes('in-4', { name: '' });
    const { entries } = here.house.store;
    const names = entries.allOf(id).flatMap((one) => (one.kind === 'details' ? [one.name] : []));
    expect(names).toEqual(['Wren', 'Robin']);
    expect(here.house.services.persons.standing(id)?.state.name).toBe('Robin');
  });
});

describe('what goes out by a network', () => {
  let here: Awaited<ReturnType<typeof open>>;
  let house: House;
  let id: string;
  beforeEach(async () => {
    here = await open();
    house = here.house;
    id = await here.comes('in-1');
  });
  afterEach(() => house.close());

  it('is carried once, to whom it is for, and says how far it has come as the network tells', async () => {
    const { body } = await here.answer(id);
    expect(body.entries[0]).toMatchObject({ kind: 'team-said', way: 'snail', threadId: id });
    expect(await here.reaches(id, 'sent')).toMatchObject([{ step: 'sent', why: null }]);
    expect(here.sent.map(({ outbound }) => outbound)).toEqual([
      { key: `deliver ${here.seqOf(id)}`, to: 'wren@snails', text: 'Yes', files: [] },
    ]);
    // Out of order, and twice.
    for (const step of ['read', 'arrived', 'read', 'failed'] as const) {
      await house.services.write(() =>
        house.services.delivering.reportNow(here.doorId, { networkId: 'net-1', step }),
      );
    }
    expect(await here.receiptsOf(id)).toMatchObject([{ step: 'read' }]);
    const receipts = house.store.entries.allOf(id).filter(({ kind }) => kind === 'receipt');
    expect(receipts).toMatchObject([
      { of: here.seqOf(id), step: 'sent' },
      { of: here.seqOf(id), step: 'read' },
    ]);
  });

  it('knows what was told of it before the network had said which one it is', async () => {
    await house.services.write(() =>
      house.services.delivering.reportNow(here.doorId, { networkId: 'net-1', step: 'arrived' }),
    );
    await here.answer(id);
    expect(await here.reaches(id, 'arrived')).toMatchObject([{ step: 'arrived' }]);
    house.clock.advance(25 * 3_600 * second);
    house.services.delivering.tidy();
    expect(house.store.deliveries.takeEarly(here.doorId, 'net-1')).toEqual([]);
  });

  it('is tried again while the network is gone, and the door is said to fail until it is not', async () => {
    here.answers.push(new JobFailed('gone'));
    await here.answer(id);
    await until(() =>
      house.store.jobs.byKey(`deliver ${here.seqOf(id)}`)?.state === 'ready' ? true : undefined,
    );
    const doors = async () =>
      (await house.ask('GET', '/api/house', { cookie: here.cookie })).body.doors;
    const health = async () =>
      (await doors()).find((door: { id: string }) => door.id === here.doorId).health;
    expect(await health()).toMatchObject({ failingSince: house.clock.now(), why: 'gone' });
    expect(await here.receiptsOf(id)).toMatchObject([{ step: 'waiting' }]);
    house.clock.advance(10 * second);
    await house.tick();
    await here.reaches(id, 'sent');
    expect(await health()).toMatchObject({ failingSince: null, why: null });
    expect(here.sent.map(({ outbound }) => outbound.key)).toEqual(
      Array(2).fill(`deliver ${here.seqOf(id)}`),
    );
  });

  it('says that it failed and why when it is given up, and goes out when it is tried again', async () => {
    here.answers.push(new JobFailed('refused', true));
    await here.answer(id);
    expect(await here.reaches(id, 'failed')).toMatchObject([{ step: 'failed', why: 'refused' }]);
    const [dead] = house.store.jobs.dead();
    await house.ask('POST', `/api/jobs/${dead?.id}/again`, { cookie: here.cookie });
    expect(await here.reaches(id, 'sent')).toMatchObject([{ step: 'sent', why: null }]);
  });

  it('is refused before it is written where the network would not take it', async () => {
    const { body } = await here.answer(id, 'x'.repeat(21));
    expect(body).toEqual({ code: 'text-too-long', limit: 20 });
    const visitor = { doorId: here.door.id, tokenHash: 'hash-of-robin' };
    const message = { id: clientId(), text: 'Hello', fileIds: [], page: null };
    const other = await house.services.visiting.message(visitor, message, true);
    expect((await here.answer(other, 'x'.repeat(MESSAGE_LONGEST))).status).toBe(200);
    expect(house.store.deliveries.bySeq(here.seqOf(other))).toBeNull();
  });

  it('goes nowhere by a door of a kind that is not there any more, and says so', async () => {
    const gone = here.add('lost-door-001', 'carrier-bat');
    const lost = await here.comes('in-9', { doorId: gone, from: 'x' });
    expect((await here.answer(lost)).body.code).toBe('door-closed');
    expect(here.sent).toEqual([]);
  });
});

describe('what a network hands over', () => {
  const secret = 'shared with the snails';
  let here: Awaited<ReturnType<typeof open>>;
  let house: House;
  beforeEach(async () => {
    here = await open();
    house = here.house;
    house.services.registry.setSecret(here.doorId, secret);
  });
  afterEach(() => house.close());

  /** From nowhere of ours, and with whatever cookie. */
  const hand = (text: string, change: { mark?: string; door?: string; type?: string } = {}) =>
    house.ask('POST', `/in/${change.door ?? `${here.doorId}-public`}`, {
      cookie: here.cookie,
      headers: {
        origin: 'https://snails.example',
        'content-type': change.type ?? 'application/json',
        'x-snail-mark': change.mark ?? markOf(Buffer.from(text), secret),
      },
      body: Buffer.from(text),
    });
  const said = (...networkIds: string[]) => ({
    inbounds: networkIds.map((networkId) => ({ networkId, from: 'wren@snails', text: networkId })),
  });
  const count = (): number => house.store.conversations.counts().waiting;

  it('is taken once it is proved, by the bytes as they came; what was taken is on disk', async () => {
    // As no parser would write it again.
    const odd = `{ "inbounds" :[{"networkId":"in-1",\n"from":"wren@snails","text":"\\u0041 slow hello"}] }`;
    const { status } = await hand(odd);
    expect([status, count()]).toEqual([204, 1]);
    const [row] = house.store.conversations.page('waiting', null, 1);
    expect(row?.state.lastWords).toBe('A slow hello');
    await hand(odd, { type: 'application/x-www-form-urlencoded' });
    expect(house.store.entries.allOf(row?.id ?? '').map(({ kind }) => kind)).toEqual([
      'visitor-said',
    ]);
  });

  it('says what became of what went out', async () => {
    const id = await here.comes('in-1');
    await here.answer(id);
    await here.reaches(id, 'sent');
    const { status } = await hand('{"deliveries":[{"networkId":"net-1","step":"arrived"}]}');
    expect([status, await here.receiptsOf(id)]).toMatchObject([204, [{ step: 'arrived' }]]);
  });

  it.each<[string, () => ReturnType<typeof hand>, number, string]>([
    ['is not signed', () => hand('{}', { mark: '' }), 401, 'signature-wrong'],
    [
      'was changed on the way',
      () => hand('{ }', { mark: markOf(Buffer.from('{}'), secret) }),
      401,
      'signature-wrong',
    ],
    ['is for no door', () => hand('{}', { door: 'no-such-door-01' }), 404, 'not-found'],
    [
      'is for a door that hears nothing that way',
      () => hand('{}', { door: here.door.publicId }),
      404,
      'not-found',
    ],
    ['is too much at once', () => hand('x'.repeat(1_100_000)), 413, 'too-large'],
    [
      'is more than one goes over in one go',
      () => hand(JSON.stringify(said(...Array.from({ length: 501 }, (_, at) => `in-${at}`)))),
      400,
      'bad-request',
    ],
    [
      'is nothing that could be kept',
      () => hand('{"inbounds":[{"networkId":7},{"from":"b","text":"c"}]}'),
      400,
      'bad-request',
    ],
  ])('is refused as a whole when it %s', async (_name, handed, status, code) => {
    const response = await handed();
    expect([response.status, response.body.code, count()]).toEqual([status, code, 0]);
  });

  it('is taken as far as it can be kept, whatever stands beside it', async () => {
    const two = '{"inbounds":[{"networkId":7},{"networkId":"a","from":"b","text":"c"}]}';
    expect([(await hand(two)).status, count()]).toEqual([204, 1]);
  });

  it('is to come again while the key is missing that opens the secret', async () => {
    const door = house.store.doors.byId(here.doorId);
    house.store.doors.setSealedSecret(door?.id ?? '', Buffer.alloc(60));
    const { status, body } = await hand(JSON.stringify(said('in-1')));
    expect([status, body]).toEqual([503, { code: 'secret-sealed' }]);
  });

  it('is refused at a door that is closed', async () => {
    const door = house.store.doors.byId(here.doorId);
    if (door) house.store.doors.update({ ...door, closedAt: 1 });
    expect((await hand(JSON.stringify(said('in-1')))).body.code).toBe('door-closed');
  });

  it('is not taken from a flood', async () => {
    const few = await openHouse({ limits: { networksAMinute: 2 } }, ':memory:', {
      doorKinds: [here.kind],
    });
    const { door } = await setUp(few);
    const made = { ...door, id: 'snail-door-01', publicId: 'snail-door-01', kind: here.kind.kind };
    few.store.doors.add(made, 0);
    const outcomes = await Promise.all(
      [1, 2, 3].map(() => few.ask('POST', '/in/snail-door-01', { body: Buffer.from('{}') })),
    );
    expect(outcomes.map(({ status }) => status).sort()).toEqual([401, 401, 429]);
    // Another network that comes from the same address is another.
    few.store.doors.add({ ...made, id: 'snail-door-02', publicId: 'snail-door-02' }, 0);
    const other = await few.ask('POST', '/in/snail-door-02', { body: Buffer.from('{}') });
    expect(other.status).toBe(401);
    await few.close();
  });
});

describe('a door’s secret', () => {
  let dir: string;
  beforeEach(() => {
    dir = mkdtempSync(join(tmpdir(), 'sealed-'));
  });
  afterEach(() => rmSync(dir, { recursive: true, force: true }));

  const path = () => join(dir, 'porch.sqlite');
  const secret = 'a secret of the network';

  it('is not to be read in the database; its key lies beside it, for nobody else', async () => {
    const here = await open(path(), keyFile(keyPath(dir)));
    here.house.services.registry.setSecret(here.doorId, secret);
    const door = here.house.store.doors.byId(here.doorId);
    if (!door) throw new Error('no door');
    expect(here.house.services.registry.secretOf(door)).toBe(secret);
    await here.house.close();
    const db = new Database(path());
    db.pragma('wal_checkpoint(TRUNCATE)');
    db.close();
    expect(readFileSync(path()).includes(Buffer.from(secret))).toBe(false);
    expect((statSync(keyPath(dir)).mode & 0o777).toString(8)).toBe('600');
  });

  it.each([
    ['missing', () => rmSync(join(dir, 'porch.key'))],
    ['another one', () => keyFile(join(dir, 'porch.key')).make()],
  ])(
    'opens nothing where the key is %s; nothing is lost, and all is well once it is back',
    async (_name, spoil) => {
      const here = await open(path(), keyFile(keyPath(dir)));
      const { house, doorId } = here;
      house.services.registry.setSecret(doorId, secret);
      const id = await here.comes('in-1');
      const kept = readFileSync(keyPath(dir));
      spoil();
      expect(house.services.registry.sealedShut().map((door) => door.id)).toEqual([doorId]);
      await here.answer(id);
      await until(() => house.store.doors.health(doorId).why ?? undefined);
      expect(house.store.doors.health(doorId).why).toBe('secret-sealed');
      expect(here.sent).toEqual([]);
      const back = join(dir, 'porch.key.back');
      writeFileSync(back, kept);
      renameSync(back, keyPath(dir));
      house.clock.advance(10 * second);
      await house.tick();
      await here.reaches(id, 'sent');
      expect(here.sent[0]?.secret).toBe(secret);
      await house.close();
    },
  );

  it('gets a new key where the old one cannot be read, and leaves that one beside it', () => {
    const keys = keyFile(keyPath(dir));
    writeFileSync(keyPath(dir), 'half a k');
    const seal = createSeal(keys);
    const sealed = seal.seal(secret, 'door-1');
    expect(seal.open(sealed, 'door-1')).toBe(secret);
    expect(readFileSync(`${keyPath(dir)}.unreadable`, 'utf8')).toBe('half a k');
  });

  it('is one door’s: put beside another it does not open', () => {
    const seal = createSeal(keyInMemory());
    const sealed = seal.seal(secret, 'door-1');
    expect(seal.open(sealed, 'door-1')).toBe(secret);
    expect(seal.open(sealed, 'door-2')).toBeNull();
    expect(seal.open(Buffer.from(sealed).fill(1, 30), 'door-1')).toBeNull();
    expect(seal.open(Buffer.alloc(5), 'door-1')).toBeNull();
    expect(seal.seal(secret, 'door-1').equals(sealed)).toBe(false);
  });
});

describe('the registry of doors', () => {
  it('knows each kind once', async () => {
    const { house, kind } = await open();
    const { store } = house;
    const kinds = [kind, kind];
    expect(() =>
      createRegistry({ store, seal: createSeal(keyInMemory()), kinds, withStreet: true }),
    ).toThrow(/same kind/);
    await house.close();
  });
});
