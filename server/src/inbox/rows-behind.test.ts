import Database from 'better-sqlite3';
import { openCounted } from '../../test-kit/counted';
import { type House, openHouse, setUp } from '../../test-kit/house';
import { clientId, until, visit, visitorToken } from '../../test-kit/panel';
import { hashSecret } from '../security/tokens';
import { createServices } from '../services';
import { toSettings } from '../settings';
import { createStore, openDatabase } from '../store';
import type { Db } from '../store/db';
import { createRowsBehind } from './rows-behind';

const open = async (db: Db = openDatabase(':memory:')) => {
  const house = await openHouse({}, '', { db });
  const { cookie, door } = await setUp(house);
  const wren = await visit(house, door.publicId, 'wren');
  await wren.say('Hello');
  const id = house.store.conversations.page('waiting', null, 1)[0]?.id ?? '';
  const wordsOf = (of = house) => of.store.conversations.byId(id)?.state.lastWords;
  /** What stands in the row itself, which a start reads. */
  const kept = (): string => {
    const threads = db.prepare('SELECT threads FROM conversations WHERE id = ?').pluck().get(id);
    return JSON.parse(String(threads))[0].lastWords;
  };
  /** What the next start finds after the process was killed now. */
  const afterKill = async <Found>(look: (of: typeof house) => Found | Promise<Found>) => {
    const next = await openHouse({}, '', { db: new Database(db.serialize()) });
    const found = await look(next);
    await next.close();
    return found;
  };
  return { house, cookie, door, wren, db, id, wordsOf, kept, afterKill };
};

/** As `open`; 250 more visitors have said "First", and no row is written any more but by whoever is told to. */
const openMany = async () => {
  const it = await open();
  const { visiting, rowsBehind } = it.house.services;
  const visitors = Array.from({ length: 250 }, (_, nth) => ({
    doorId: it.door.id,
    tokenHash: hashSecret(visitorToken(`visitor-${nth}-`)),
  }));
  const allSay = (text: string) =>
    Promise.all(
      visitors.map((visitor) =>
        visiting.message(visitor, { id: clientId(), text, fileIds: [], page: null }, true),
      ),
    );
  await allSay('First');
  rowsBehind.stop();
  return { ...it, visitors, allSay };
};

describe('the row of a conversation', () => {
  it('is written once for many messages, a moment after them', async () => {
    const counted = openCounted();
    const it = await open(counted.db);
    counted.taken();
    for (let nth = 0; nth < 20; nth += 1) await it.wren.say(`Is it there? ${nth}`);
    const rowWrites = () =>
      [...counted.taken()].filter(([sql]) => /^(?:UPDATE|INSERT INTO) conversations/.test(sql));
    expect(rowWrites()).toEqual([]);
    expect([it.wordsOf(), it.kept()]).toEqual(['Is it there? 19', 'Hello']);
    const { store } = it.house;
    await until(() => (store.conversations.behindCount() === 0 ? true : undefined));
    expect(rowWrites()).toMatchObject([[expect.stringContaining('SET threads'), 1]]);
    expect(it.kept()).toBe('Is it there? 19');
    expect(store.rowsBehind.mark()).toBe(store.entries.newestSeq());
    await it.house.close();
  });

  it('is found from what was said where a kill came before it, by the line, the roll and a search alike', async () => {
    const it = await open();
    await it.wren.say('Is the monstera still there?');
    expect(it.kept()).toBe('Hello');
    const [words, [first], row] = await it.afterKill(async (next) => [
      it.wordsOf(next),
      next.store.conversations.page('waiting', null, 5),
      (await next.ask('GET', '/api/line?group=waiting', { cookie: it.cookie })).body.rows[0],
    ]);
    expect(words).toBe('Is the monstera still there?');
    expect(first?.state.lastWords).toBe('Is the monstera still there?');
    expect(row.state.lastWords).toBe('Is the monstera still there?');
    expect(row.state.unread).toHaveLength(2);
    await it.house.close();
  });

  it('says at once what it is looked up by: whether they are here, and where it stands in the line', async () => {
    const it = await open();
    const { store } = it.house;
    const hereNow = (of = it.house) => of.store.conversations.here().map(({ id }) => id);
    expect(hereNow()).toEqual([it.id]);
    const note = (kind: 'gone' | 'here', nth: number) =>
      store.atOnce(() => {
        const conversation = store.conversations.byId(it.id);
        if (!conversation) throw new Error('no conversation');
        it.house.services.record.add(conversation, it.id, [
          { id: `entry-${nth}`, happening: { kind } },
        ]);
      });
    note('gone', 1);
    expect(hereNow()).toEqual([]);
    expect(await it.afterKill(hereNow)).toEqual([]);
    note('here', 2);
    expect(hereNow()).toEqual([it.id]);
    await it.wren.say('That is all');
    const deed = { id: 'deed-000001', do: 'wrap-up' };
    const path = `/api/conversations/${it.id}/deeds`;
    await it.house.ask('POST', path, { cookie: it.cookie, body: deed });
    const standsIn = (of = it.house) =>
      (['waiting', 'wrapped-up'] as const).map(
        (group) => of.store.conversations.page(group, null, 5).length,
      );
    expect(standsIn()).toEqual([0, 1]);
    expect(await it.afterKill(standsIn)).toEqual([0, 1]);
    expect(store.conversations.page('wrapped-up', null, 1)[0]?.state).toMatchObject({
      aside: 'wrapped-up',
      lastWords: 'That is all',
    });
    // Where nothing is owed it stands where it stood, whether they are here or not.
    note('gone', 3);
    expect(hereNow()).toEqual([]);
    expect(await it.afterKill(hereNow)).toEqual([]);
    await it.house.close();
  });

  it('is brought up to date by a stop', async () => {
    const it = await open();
    await it.wren.say('And a fern');
    await it.house.app.close();
    expect(it.kept()).toBe('And a fern');
    it.house.store.close();
  });

  it('keeps what was said before it where a later transaction comes to nothing', async () => {
    const it = await open();
    await it.wren.say('First');
    const { store, services } = it.house;
    const conversation = store.conversations.byId(it.id);
    if (!conversation) throw new Error('no conversation');
    const say = (text: string) =>
      services.record.add(store.conversations.byId(it.id) ?? conversation, it.id, [
        {
          id: `entry-${text}`,
          happening: { kind: 'visitor-said', text, files: [], note: false, page: null },
        },
      ]);
    const refused = () => {
      throw new Error('refused');
    };
    // Alone, after it has written all rows, and within another one that goes on.
    expect(() => store.atOnce(() => [say('a'), refused()])).toThrow('refused');
    expect(it.wordsOf()).toBe('First');
    expect(() =>
      store.atOnce(() => [say('b'), store.conversations.settle(), say('c'), refused()]),
    ).toThrow('refused');
    expect(it.wordsOf()).toBe('First');
    store.atOnce(() => {
      say('Second');
      expect(() => store.atOnce(() => [say('d'), refused()])).toThrow('refused');
      expect(it.wordsOf()).toBe('Second');
    });
    expect([it.wordsOf(), store.conversations.byIds([it.id])[0]?.state.lastWords]).toEqual([
      'Second',
      'Second',
    ]);
    expect(await it.afterKill(it.wordsOf)).toBe('Second');
    store.atOnce(() => {
      expect(() => store.atOnce(() => [say('e'), refused()])).toThrow('refused');
      say('Third');
    });
    expect(await it.afterKill(it.wordsOf)).toBe('Third');
    store.atOnce(store.conversations.settle);
    expect([it.wordsOf(), it.kept()]).toEqual(['Third', 'Third']);
    await it.house.close();
  });

  it('waits for a disk that takes nothing, and is written once it does', async () => {
    const it = await open();
    const { store, services } = it.house;
    const reported: unknown[] = [];
    const again = createRowsBehind({
      store,
      record: services.record,
      report: (error) => reported.push(error),
      everyMs: 1,
      againMs: 1,
    });
    const full = jest.spyOn(store.rowsBehind, 'setMark').mockImplementation(() => {
      throw Object.assign(new Error('database or disk is full'), { code: 'SQLITE_FULL' });
    });
    await it.wren.say('While the disk is full');
    again.note();
    await until(() => (reported.length > 1 ? true : undefined));
    expect([it.wordsOf(), it.kept()]).toEqual(['While the disk is full', 'Hello']);
    expect(await it.afterKill(it.wordsOf)).toBe('While the disk is full');
    full.mockRestore();
    await until(() => (it.kept() === 'Hello' ? undefined : true));
    expect(it.kept()).toBe('While the disk is full');
    again.stop();
    await it.house.close();
  });

  it('is found by a start also where a kill came when only some of many were written', async () => {
    const it = await openMany();
    const { store, services } = it.house;
    await it.allSay('Second');
    expect(store.conversations.behindCount()).toBe(250);
    const steps: number[] = [];
    const killed: Promise<number>[] = [];
    const secondsIn = (of: House) =>
      it.visitors.filter((one) => of.services.visiting.stateOf(one)?.lastWords === 'Second').length;
    const { settle } = store.conversations;
    const spied = jest.spyOn(store.conversations, 'settle').mockImplementation((most) => {
      settle(most);
      steps.push(most ?? 0);
      // Killed after what was committed so far.
      setImmediate(() => killed.push(it.afterKill(secondsIn)));
    });
    const again = createRowsBehind({
      store,
      record: services.record,
      report: () => undefined,
      everyMs: 1,
    });
    again.note();
    await until(() => (killed.length === 3 ? true : undefined));
    spied.mockRestore();
    expect(steps).toEqual([100, 100, 100]);
    expect(await Promise.all(killed)).toEqual([250, 250, 250]);
    expect(store.conversations.behindCount()).toBe(0);
    again.stop();
    await it.house.close();
  });

  it('is written too where it fell behind while others were being written', async () => {
    const it = await openMany();
    const { store, services } = it.house;
    const allSayMore = () =>
      store.atOnce(() => {
        for (const one of it.visitors) {
          const threadId = services.visiting.stateOf(one)?.threadId ?? '';
          const id = store.threads.byId(threadId)?.conversationId ?? '';
          const conversation = store.conversations.byId(id);
          if (!conversation) throw new Error('no conversation');
          const happening = { kind: 'visitor-said' as const, text: 'Second', files: [] };
          services.record.add(conversation, threadId, [
            { id: clientId(), happening: { ...happening, note: false, page: null } },
          ]);
        }
      });
    allSayMore();
    const again = createRowsBehind({
      store,
      record: services.record,
      report: () => undefined,
      everyMs: 1,
    });
    const { settle } = store.conversations;
    jest.spyOn(store.conversations, 'settle').mockImplementationOnce((most) => {
      settle(most);
      // As soon as these are on disk, and before the next are written.
      process.nextTick(() => {
        allSayMore();
        again.note();
      });
    });
    again.note();
    await until(() => (store.conversations.behindCount() === 0 ? true : undefined));
    expect(store.rowsBehind.mark()).toBe(store.entries.newestSeq());
    again.stop();
    await it.house.close();
  });

  it('is let alone by a command beside the running server', async () => {
    const it = await open();
    await it.wren.say('Is it there?');
    const beside = createStore(new Database(it.db.serialize()));
    createServices(toSettings({ logLevel: 'silent' }), { clock: it.house.clock, store: beside });
    expect(beside.conversations.behindCount()).toBe(0);
    beside.close();
    await it.house.close();
  });
});
