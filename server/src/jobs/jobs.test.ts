import { createServer, type Server } from 'node:http';
import { jobNames } from '@porch/contract/jobs';
import { type House, openHouse, setUp } from '../../test-kit/house';
import { until, visit } from '../../test-kit/panel';
import { addHelper } from '../../test-kit/routes';
import { createServices } from '../services';
import { toSettings } from '../settings';
import { JobFailed, type JobKind, waitBefore } from './worker';

const second = 1_000;

/** Something outside that counts what it is asked to do, by key, and fails as a test says. */
const openStandIn = async () => {
  const asked: string[] = [];
  const answers: ('taken' | 'gone' | 'slow')[] = [];
  const held: (() => void)[] = [];
  const server: Server = createServer((request, response) => {
    asked.push(String(request.headers['idempotency-key']));
    const answer = answers.shift() ?? 'taken';
    const end = () => response.writeHead(answer === 'gone' ? 503 : 200).end();
    if (answer === 'slow') held.push(end);
    else end();
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as { port: number };
  return {
    asked,
    answers,
    url: `http://127.0.0.1:${port}/`,
    release: () => {
      for (const end of held.splice(0)) end();
    },
    close: () => {
      server.closeAllConnections();
      server.close();
    },
  };
};

type StandIn = Awaited<ReturnType<typeof openStandIn>>;

const post = async (url: string, key: string, signal: AbortSignal): Promise<void> => {
  const headers = { 'idempotency-key': key };
  const { status } = await fetch(url, { method: 'POST', headers, signal }).catch(() => ({
    status: 0,
  }));
  if (status === 503 || status === 0) throw new JobFailed('gone');
  if (status === 410) throw new JobFailed('refused', true);
};

describe('what must happen outside', () => {
  let standIn: StandIn;
  let house: House;
  let noted: string[];
  const kindOf = (name: string, change: Partial<JobKind> = {}): JobKind =>
    ({
      name,
      atOnce: 2,
      leaseMs: 30 * second,
      triesMost: 3,
      firstWaitMs: 10 * second,
      longestWaitMs: 60 * second,
      do: (_load: { n: number }, { key, signal }: { key: string; signal: AbortSignal }) =>
        post(standIn.url, key, signal),
      note: ({ n }: { n: number }) => {
        noted.push(`${name} ${n}`);
        return { result: null, news: [] };
      },
      ...change,
    }) as JobKind;
  beforeEach(async () => {
    standIn = await openStandIn();
    noted = [];
    house = await openHouse({}, ':memory:', { jobKinds: [kindOf('post'), kindOf('other')] });
  });
  afterEach(async () => {
    standIn.close();
    await house.close();
  });

  const add = (n: number, kind = 'post', notBefore = house.clock.now()) =>
    house.services.write(() => {
      house.services.jobs.add({ key: `${kind} ${n}`, kind, load: { n }, notBefore });
      return { result: null, news: [] };
    });
  const later = async (ms: number): Promise<void> => {
    house.clock.advance(ms);
    await house.tick();
  };

  it('happens by itself once its cause is written, and is struck off', async () => {
    await add(1);
    await until(() => (noted.length > 0 ? true : undefined));
    expect([standIn.asked, noted]).toEqual([['post 1'], ['post 1']]);
    expect(house.store.jobs.byKey('post 1')).toBeNull();
  });

  it('has nobody look for it before it is due', async () => {
    const looked = jest.spyOn(house.store.jobs, 'hasReady');
    await add(1, 'post', house.clock.now() + second);
    expect(looked).not.toHaveBeenCalled();
    await later(second);
    await until(() => (noted.length > 0 ? true : undefined));
    expect(standIn.asked).toEqual(['post 1']);
  });

  it('is told to end once its lease has run out', async () => {
    const signals: AbortSignal[] = [];
    const never = kindOf('never', {
      do: (_load, { signal }) => {
        signals.push(signal);
        return new Promise((_resolve, reject) => {
          signal.addEventListener('abort', () => reject(new Error('ended')));
        });
      },
    });
    const own = await openHouse({}, ':memory:', { jobKinds: [never] });
    await own.services.write(() => {
      own.services.jobs.add({ key: 'never 1', kind: 'never', load: {}, notBefore: 0 });
      return { result: null, news: [] };
    });
    await until(() => signals[0]);
    own.clock.advance(29 * second);
    await own.tick();
    expect(signals[0]?.aborted).toBe(false);
    own.clock.advance(2 * second);
    await own.tick();
    expect(signals[0]?.aborted).toBe(true);
    await own.close();
  });

  it('happens never where its cause came to nothing, and once where it is said twice', async () => {
    const refused = house.services.write(() => {
      const job = { key: 'post 1', kind: 'post', load: { n: 1 }, notBefore: 0 };
      house.services.jobs.add(job);
      throw new Error('refused');
    });
    await expect(refused).rejects.toThrow('refused');
    standIn.answers.push('slow');
    await add(2);
    await add(2);
    await until(() => (standIn.asked.length > 0 ? true : undefined));
    standIn.release();
    await until(() => (noted.length > 0 ? true : undefined));
    expect(standIn.asked).toEqual(['post 2']);
  });

  it('happens at its time and not a moment before', async () => {
    await add(1, 'post', house.clock.now() + 5 * second);
    await later(5 * second - 1);
    expect(standIn.asked).toEqual([]);
    await later(1);
    await until(() => (noted.length > 0 ? true : undefined));
  });

  it('is tried again later where it came to nothing, under the same key', async () => {
    standIn.answers.push('gone');
    await add(1);
    await until(() => (house.store.jobs.byKey('post 1')?.state === 'ready' ? true : undefined));
    await later(4 * second);
    expect(standIn.asked).toHaveLength(1);
    await later(6 * second);
    await until(() => (noted.length > 0 ? true : undefined));
    expect(standIn.asked).toEqual(['post 1', 'post 1']);
  });

  it('waits as long before another try when the machine’s clock is set meanwhile', async () => {
    standIn.answers.push('gone');
    await add(1);
    await until(() => (house.store.jobs.byKey('post 1')?.state === 'ready' ? true : undefined));
    await house.tick();
    house.clock.jump(-3_600 * second);
    await house.tick();
    await later(10 * second);
    await until(() => (noted.length > 0 ? true : undefined));
    expect(standIn.asked).toHaveLength(2);
  });

  it('holds up no other kind, and of its own no more than fit', async () => {
    standIn.answers.push('slow', 'slow');
    for (const n of [1, 2, 3]) await add(n);
    await until(() => (standIn.asked.length === 2 ? true : undefined));
    await add(4, 'other');
    await until(() => (noted.includes('other 4') ? true : undefined));
    expect(standIn.asked).toEqual(['post 1', 'post 2', 'other 4']);
    standIn.release();
    await until(() => (noted.length === 4 ? true : undefined));
    expect(standIn.asked[3]).toBe('post 3');
  });

  it('goes by turns of those whose work it is, and leaves room beside one that is slow', async () => {
    const shared = await openHouse({}, ':memory:', {
      jobKinds: [kindOf('post', { atOnce: 4, atOnceOfOne: 2, atOnceOfGroup: 3 })],
    });
    const job = (n: number, belongs: string) => ({
      ...{ key: `post ${n}`, kind: 'post', load: { n }, notBefore: shared.clock.now() },
      belongs,
    });
    standIn.answers.push(...Array(20).fill('slow'));
    await shared.services.write(() => {
      for (let n = 0; n < 10; n += 1) shared.services.jobs.add(job(n, 'door-a wren'));
      for (let n = 10; n < 20; n += 1) shared.services.jobs.add(job(n, 'door-a ada'));
      shared.services.jobs.add(job(20, 'door-b emlyn'));
      return { result: null, news: [] };
    });
    await until(() => (standIn.asked.length === 4 ? true : undefined));
    const begun = standIn.asked.map((key) => Number(key.slice('post '.length)));
    expect(begun).toContain(20);
    const ofWren = begun.filter((n) => n < 10).length;
    const ofAda = begun.filter((n) => n >= 10 && n < 20).length;
    expect([ofWren + ofAda, ofWren > 0, ofAda > 0]).toEqual([3, true, true]);
    standIn.release();
    await shared.close();
  });

  it('is done in turn within its lane; what fails holds up its lane and no other', async () => {
    const job = (n: number, lane: string) => ({
      ...{ key: `post ${n}`, kind: 'post', load: { n }, notBefore: house.clock.now() },
      lane,
    });
    standIn.answers.push('gone');
    await house.services.write(() => {
      for (const n of [1, 2]) house.services.jobs.add(job(n, 'to wren'));
      house.services.jobs.add(job(3, 'to ada'));
      return { result: null, news: [] };
    });
    await until(() => (noted.length === 1 ? true : undefined));
    expect(noted).toEqual(['post 3']);
    await until(() => (house.store.jobs.byKey('post 1')?.state === 'ready' ? true : undefined));
    await later(10 * second);
    await until(() => (noted.length === 3 ? true : undefined));
    expect(noted).toEqual(['post 3', 'post 1', 'post 2']);
  });

  it('goes on in its lane when the first of it is given up, and takes it back in its place', async () => {
    const job = (n: number) => ({
      ...{ key: `post ${n}`, kind: 'post', load: { n }, notBefore: house.clock.now() },
      lane: 'to wren',
    });
    standIn.answers.push('gone', 'gone', 'gone');
    await house.services.write(() => {
      house.services.jobs.add(job(1));
      house.services.jobs.add(job(2));
      return { result: null, news: [] };
    });
    for (const wait of [0, 10, 20]) {
      await later(wait * second);
      await until(() => (house.store.jobs.isAnyLeased() ? undefined : true));
    }
    await until(() => (noted.length === 1 ? true : undefined));
    expect([noted, house.store.jobs.deadCount()]).toEqual([['post 2'], 1]);
    await house.services.write(() => {
      house.store.jobs.revive(house.store.jobs.byKey('post 1')?.id ?? 0, house.clock.now());
      house.services.jobs.add(job(3));
      return { result: null, news: [] };
    });
    await house.tick();
    await until(() => (noted.length === 3 ? true : undefined));
    expect(noted).toEqual(['post 2', 'post 1', 'post 3']);
  });

  it('goes on beside a slow one of its own kind', async () => {
    standIn.answers.push('slow');
    for (const n of [1, 2, 3, 4]) await add(n);
    await until(() => (noted.length === 3 ? true : undefined));
    expect(noted).toEqual(['post 2', 'post 3', 'post 4']);
    standIn.release();
    await until(() => (noted.length === 4 ? true : undefined));
  });

  it('is put back when it takes longer than its lease; whoever comes back after that is too late', async () => {
    standIn.answers.push('slow', 'slow');
    await add(1);
    await until(() => (standIn.asked.length === 1 ? true : undefined));
    await later(30 * second);
    await until(() => (house.store.jobs.byKey('post 1')?.state === 'ready' ? true : undefined));
    standIn.release();
    await later(10 * second);
    await until(() => (standIn.asked.length === 2 ? true : undefined));
    expect(noted).toEqual([]);
    standIn.release();
    await until(() => (noted.length > 0 ? true : undefined));
    expect(noted).toEqual(['post 1']);
  });

  describe('and was given up', () => {
    const dead = async (n: number): Promise<void> => {
      standIn.answers.push('gone', 'gone', 'gone');
      await add(n);
      for (const wait of [0, 10, 20]) {
        await later(wait * second);
        const isOver = () => house.store.jobs.byKey(`post ${n}`)?.state !== 'leased';
        await until(() => (isOver() ? true : undefined));
      }
    };

    it('is told to the owner, who lets it be tried again or leaves it', async () => {
      const { cookie } = await setUp(house);
      await dead(1);
      await dead(2);
      const seen = await house.ask('GET', '/api/jobs/dead', { cookie });
      expect(seen.body).toMatchObject({
        count: 2,
        jobs: [
          { kind: 'post', why: 'gone', tries: 3 },
          { kind: 'post', why: 'gone', tries: 3 },
        ],
      });
      expect((await house.ask('GET', '/api/house', { cookie })).body.deadJobs).toBe(2);
      const [newer, older] = seen.body.jobs;
      expect((await house.ask('POST', `/api/jobs/${older.id}/again`, { cookie })).status).toBe(204);
      await until(() => (noted.length > 0 ? true : undefined));
      expect(noted).toEqual(['post 1']);
      expect((await house.ask('DELETE', `/api/jobs/${newer.id}`, { cookie })).status).toBe(204);
      expect((await house.ask('GET', '/api/jobs/dead', { cookie })).body).toEqual({
        count: 0,
        jobs: [],
      });
      const gone = await house.ask('POST', `/api/jobs/${newer.id}/again`, { cookie });
      expect([gone.status, gone.body.code]).toEqual([404, 'not-found']);
      const helper = await addHelper(house);
      expect((await house.ask('GET', '/api/jobs/dead', { cookie: helper })).status).toBe(403);
    });

    it('is kept as long as there is room for newer ones', () => {
      house.store.atOnce(() => {
        for (let n = 0; n < 2_100; n += 1) {
          house.store.jobs.add({ key: `lost ${n}`, kind: 'lost', load: {}, notBefore: 0 }, 0);
        }
        for (const job of house.store.jobs.take('lost', 0, 2_100)) {
          house.store.jobs.bury(job, 'gone', 0);
        }
      });
      house.store.jobs.tidy();
      expect(house.store.jobs.deadCount()).toBe(2_000);
      expect(house.store.jobs.byKey('lost 99')).toBeNull();
      expect(house.store.jobs.byKey('lost 100')?.state).toBe('dead');
    });

    it('is shown a page at a time, however much of it there is', async () => {
      const { cookie } = await setUp(house);
      house.store.atOnce(() => {
        for (let n = 0; n < 1_000; n += 1) {
          house.store.jobs.add({ key: `lost ${n}`, kind: 'lost', load: {}, notBefore: 0 }, 0);
        }
        for (const job of house.store.jobs.take('lost', 0, 1_000)) {
          house.store.jobs.bury(job, 'gone', 0);
        }
      });
      const ids: number[] = [];
      for (let before = ''; ; ) {
        const { body } = await house.ask('GET', `/api/jobs/dead${before}`, { cookie });
        expect(body.count).toBe(1_000);
        expect(body.jobs.length).toBeLessThanOrEqual(50);
        if (body.jobs.length === 0) break;
        ids.push(...body.jobs.map(({ id }: { id: number }) => id));
        before = `?before=${ids[ids.length - 1]}`;
      }
      expect(new Set(ids).size).toBe(1_000);
    });
  });

  it('is given up at once where trying again is no use, and says why of what nobody meant', async () => {
    const failing = (error: Error): JobKind => kindOf('post', { do: () => Promise.reject(error) });
    for (const [error, why, tries] of [
      [new JobFailed('refused', true), 'refused', 1],
      [new TypeError('a secret'), 'our-fault', 3],
    ] as const) {
      const other = await openHouse({}, ':memory:', { jobKinds: [failing(error)] });
      const reported: unknown[] = [];
      other.services.onReport((one) => reported.push(one));
      await other.services.write(() => {
        other.services.jobs.add({ key: 'post 1', kind: 'post', load: {}, notBefore: 0 });
        return { result: null, news: [] };
      });
      for (let turn = 0; turn < 4; turn += 1) {
        await until(() =>
          other.store.jobs.byKey('post 1')?.state === 'leased' ? undefined : true,
        );
        other.clock.advance(60 * second);
        await other.tick();
      }
      await until(() => (other.store.jobs.deadCount() > 0 ? true : undefined));
      expect(other.store.jobs.dead()).toMatchObject([{ why, tries }]);
      expect(reported.length > 0).toBe(why === 'our-fault');
      await other.close();
    }
  });
});

describe('whoever only looks at the data', () => {
  it('frees no lease of the process that does the jobs: they would be done twice', async () => {
    const house = await openHouse();
    const job = { key: 'post 1', kind: 'post', load: {}, notBefore: 0 };
    house.store.atOnce(() => house.store.jobs.add(job, 0));
    house.store.jobs.take('post', 0, 1);
    const settings = toSettings({ logLevel: 'silent' });
    const command = createServices(settings, { clock: house.clock, store: house.store });
    expect(house.store.jobs.byKey('post 1')?.state).toBe('leased');
    command.jobs.start();
    expect(house.store.jobs.byKey('post 1')?.state).toBe('ready');
    await house.close();
  });
});

describe('the jobs of the house', () => {
  it('are those that have words in the app', async () => {
    const house = await openHouse();
    expect([...house.services.jobs.names].sort()).toEqual([...jobNames].sort());
    await house.close();
  });
});

describe('how long to wait before another try', () => {
  it('is twice as long each time, up to the longest, and not the same for all', () => {
    const kind = { firstWaitMs: 1_000, longestWaitMs: 60_000 };
    const waits = [1, 2, 3, 7, 50].map((tries) => waitBefore(kind, tries, 1));
    expect(waits).toEqual([1_000, 2_000, 4_000, 60_000, 60_000]);
    expect(waitBefore(kind, 3, 0)).toBe(2_000);
    expect(waitBefore(kind, 3, 0.5)).toBe(3_000);
  });
});

describe('what is put by', () => {
  it('comes back once, at the time that was said last, also of a house that was not open then', async () => {
    const house = await openHouse();
    const { cookie, door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Hello');
    const id = house.store.conversations.page('waiting', null, 1)[0]?.id ?? '';
    const deed = (body: object) =>
      house.ask('POST', `/api/conversations/${id}/deeds`, { cookie, body });
    const at = (seconds: number) => house.clock.now() + seconds * second;
    await deed({ do: 'put-by', id: 'put-by-deed-1', until: at(60) });
    await deed({ do: 'put-by', id: 'put-by-deed-2', until: at(600) });
    house.clock.advance(60 * second);
    await house.tick();
    expect(house.store.conversations.counts()['put-by']).toBe(1);
    await deed({ do: 'take-back', id: 'take-back-deed' });
    house.clock.advance(600 * second);
    await house.tick();
    const returns = () => house.store.entries.allOf(id).filter(({ kind }) => kind === 'returned');
    expect(returns()).toEqual([]);
    await deed({ do: 'put-by', id: 'put-by-deed-3', until: at(60) });
    house.clock.advance(3_600 * second);
    await Promise.all([house.tick(), house.tick()]);
    expect(returns()).toHaveLength(1);
    expect(house.store.jobs.byKey(`return ${id}`)).toBeNull();
    await house.close();
  });
});
