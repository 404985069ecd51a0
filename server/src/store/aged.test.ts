import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { EntrySchema, type Row, StateSchema } from '@porch/contract/entries';
import type { VisitorEntry } from '@porch/contract/visitor';
import { BODY_SHAPE, type Entry, entryKinds, FOLD_VERSION, groups } from '@porch/core/conversation';
import { type House, openHouse, owner } from '../../test-kit/house';
import { visit, visitorToken } from '../../test-kit/panel';
import { releases, unpack } from '../../test-kit/releases';
import { createRefold } from '../inbox/refold';

/** What a release answered for its own file when it was the newest. */
interface Answered {
  /** By which version of the fold; the first four did not say. */
  foldVersion?: number;
  rows: Row[];
  rolls: Entry[][];
  seen: VisitorEntry[];
}

const answeredBy = (release: string): Answered =>
  JSON.parse(readFileSync(join(__dirname, 'releases', `${release}.json`), 'utf8'));

/** With which release each kind came that the first did not have. */
const cameWith: Readonly<Record<string, string>> = {
  consented: '0.2.0',
  joined: '0.5.0',
  parted: '0.5.0',
  receipt: '0.5.0',
  rang: '0.6.0',
  looked: '0.6.0',
  'held-back': '0.6.0',
  'held-decided': '0.7.0',
  'visitor-changed': '0.8.0',
  'visitor-withdrew': '0.8.0',
  stopped: '0.8.0',
  'mail-stopped': '0.7.0',
  'file-came': '0.10.0',
  'turned-soon': '0.7.0',
  'door-sign': '0.7.0',
  mailed: '0.7.0',
  owed: '0.7.0',
  'owed-changed': '0.7.0',
  'owed-done': '0.7.0',
  'owed-undone': '0.7.0',
};

describe.each(releases())('the file that release %s left', (release) => {
  let dir: string;
  let house: House;
  let cookie: string;
  const then = answeredBy(release);
  const isBefore = (other: string): boolean =>
    release.localeCompare(other, 'en', { numeric: true }) < 0;

  beforeAll(async () => {
    dir = mkdtempSync(join(tmpdir(), 'aged-'));
    const path = join(dir, 'porch.sqlite');
    unpack(release, path);
    house = await openHouse({}, path);
    const signedIn = await house.ask('POST', '/api/sign-in', { body: owner });
    cookie = String(signedIn.headers['set-cookie']).split(';')[0] ?? '';
  });
  afterAll(async () => {
    await house.close();
    rmSync(dir, { recursive: true, force: true });
  });

  const get = async (url: string) => {
    const { status, body } = await house.ask('GET', url, { cookie });
    expect([url, status]).toEqual([url, 200]);
    return body;
  };
  const line = async (): Promise<Row[]> => {
    const rows: Row[] = [];
    for (const group of groups) rows.push(...(await get(`/api/line?group=${group}`)).rows);
    return rows;
  };
  const theSame = async (): Promise<void> => {
    const rows = await line();
    expect(rows).toMatchObject(then.rows);
    for (const [index, { id }] of then.rows.entries()) {
      expect((await get(`/api/conversations/${id}`)).entries).toMatchObject(
        then.rolls[index] ?? [],
      );
    }
  };

  it('has every kind of entry in it that there was', () => {
    const kinds = new Set(house.store.entries.since(0, 500).map(({ kind }) => kind));
    const missing = entryKinds.filter(
      // What is not known any more is never written.
      (kind) => !kinds.has(kind) && kind !== 'bygone' && !isBefore(cameWith[kind] ?? '0.1.0'),
    );
    expect(missing).toEqual([]);
  });

  it('is answered for as it was, before anything of it is folded anew and after', async () => {
    const isBehind = (then.foldVersion ?? 0) < FOLD_VERSION;
    expect(house.store.conversations.foldedBefore(FOLD_VERSION, 10).length > 0).toBe(isBehind);
    await theSame();
    await house.services.refold.run();
    expect(house.store.conversations.foldedBefore(FOLD_VERSION, 10)).toEqual([]);
    await theSame();
    for (const { state } of await line()) expect(StateSchema.parse(state)).toEqual(state);
    for (const { id, threads } of house.store.conversations.batchAfter('')) {
      const isElsewhere = threads.length === 0;
      expect([id, isElsewhere || threads.some(({ threadId }) => threadId === id)]).toEqual([
        id,
        true,
      ]);
      for (const thread of threads) {
        expect(thread).toEqual(house.services.record.foldAnew(thread.threadId, thread.doorId));
      }
    }
  });

  it('is read in today’s shape, whatever its own was', async () => {
    const { entries } = await get('/api/since?seq=0');
    expect(entries.length).toBeGreaterThan(15);
    for (const entry of entries) expect(EntrySchema.parse(entry)).toEqual(entry);
    expect(BODY_SHAPE).toBeGreaterThan(1);
  });

  it('brings back what was put by in it, when its time has come', async () => {
    expect(house.store.conversations.counts()).toMatchObject({ note: 0, 'put-by': 1 });
    house.clock.advance(24 * 3_600_000);
    await house.tick();
    expect(house.store.conversations.counts()).toMatchObject({ note: 1, 'put-by': 0 });
  });

  it('lets its visitors and its team go on, with their files and by search', async () => {
    const [door] = house.store.doors.all();
    const panel = await visit(house, door?.publicId ?? '', 'wren');
    expect(panel.welcome.entries).toMatchObject(then.seen);
    // The first release kept numbers as they were typed.
    const phone = isBefore('0.2.0') ? '07700 900123' : '+447700900123';
    expect(panel.welcome.details).toMatchObject({ name: 'Wren', phone });
    for (const id of ['leaf-of-wren', 'leaf-of-maren']) {
      const path = `/door/${door?.publicId}/files/${id}`;
      const headers = { authorization: `Bearer ${visitorToken('wren')}` };
      const { status, body } = await house.ask('GET', path, { headers });
      expect([status, String(body)]).toEqual([200, 'Brown at the tips']);
    }
    const found = await get('/api/search?words=brown');
    expect(found.found[0]).toMatchObject({ row: { state: { name: 'Wren' } } });
    const talk = found.found[0].row.id;
    await panel.say('Still there?', 'said-much-later-1');
    const { body } = await house.ask('POST', `/api/conversations/${talk}/deeds`, {
      cookie,
      body: {
        do: 'say',
        id: `answer-${release.replaceAll('.', '-')}-1`,
        text: 'We are',
        fileIds: [],
      },
    });
    expect(body.row).toMatchObject({ id: talk, group: 'answered', state: { lastWords: 'We are' } });
    await panel.hear('entries', ({ entries }) => entries.some(({ text }) => text === 'We are'));
    expect(house.store.ways.of(talk).map(({ kind, key }) => [kind, key])).toEqual([
      ['email', 'wren@post.example'],
      // Which country the business is in was not asked at first.
      ['phone', isBefore('0.2.0') ? '07700 900123' : '+447700900123'],
    ]);
  });
});

describe('what another program has written', () => {
  it('is drawn as something that happened where its kind is not known any more, and counts for nothing', async () => {
    const house = await openHouse();
    const { liveThrough } = await import('../../test-kit/every-kind');
    await liveThrough(house);
    const [row] = house.store.conversations.page('waiting', null, 1);
    const id = row?.id ?? '';
    const chimed = { kind: 'chimed', loudness: 3 } as never;
    house.store.entries.append(id, id, 'entry-chimed-1', house.clock.now(), chimed);
    const [entry] = house.store.entries.since(house.store.entries.newestSeq() - 1, 1);
    expect(entry).toMatchObject({ kind: 'bygone', was: 'chimed', id: 'entry-chimed-1' });
    expect(house.services.record.foldAnew(id, row?.threads[0]?.doorId ?? '')).toMatchObject({
      lastWords: row?.state.lastWords,
      saidSeq: row?.state.saidSeq,
    });
    await house.close();
  });
});

describe('folding anew', () => {
  it('leaves nothing to a version before, a bit at a time, and stops when it is told to', async () => {
    const house = await openHouse();
    const { liveThrough } = await import('../../test-kit/every-kind');
    await liveThrough(house);
    const all = () => house.store.conversations.batchAfter('');
    const before = all();
    for (const conversation of before) {
      const threads = conversation.threads.map((thread) => ({ ...thread, name: 'Nobody' }));
      house.store.conversations.write({ ...conversation, threads, fold: 0 });
    }
    const refold = createRefold({ store: house.store, record: house.services.record });
    refold.stop();
    await refold.run();
    expect(all().map(({ fold }) => fold)).toEqual(before.map(() => 0));
    await house.services.refold.run();
    expect(all()).toEqual(before);
    await house.close();
  });

  it('is done at once with a conversation in which something is written', async () => {
    const house = await openHouse();
    const { liveThrough } = await import('../../test-kit/every-kind');
    await liveThrough(house);
    const [waiting] = house.store.conversations.page('waiting', null, 1);
    if (!waiting) throw new Error('nobody waits');
    const threads = waiting.threads.map((thread) => ({ ...thread, name: 'Nobody', lastSeq: 0 }));
    house.store.conversations.write({ ...waiting, threads, fold: 0 });
    const [door] = house.store.doors.all();
    const panel = await visit(house, door?.publicId ?? '', 'wren');
    await panel.say('Hello again');
    const now = house.store.conversations.byId(waiting.id);
    expect(now).toMatchObject({
      fold: FOLD_VERSION,
      state: { name: 'Wren', lastWords: 'Hello again' },
    });
    await house.close();
  });
});
