import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Writable } from 'node:stream';
import { type House, openHouse, owner, setUp } from '../../test-kit/house';
import { clientId, openDevice, until, visit, visitorToken, write } from '../../test-kit/panel';
import { openDatabase } from '../store';
import type { Db } from '../store/db';

describe('a disk that takes nothing more', () => {
  let dir: string;
  let db: Db;
  let house: House;
  let door: string;
  let cookie: string;
  let log: string[];
  beforeEach(async () => {
    dir = mkdtempSync(join(tmpdir(), 'full-'));
    db = openDatabase(join(dir, 'porch.sqlite'));
    log = [];
    const logTo = new Writable({
      write: (chunk, _encoding, done) => {
        log.push(String(chunk));
        done();
      },
    });
    house = await openHouse({ logLevel: 'error' }, '', { db, logTo });
    const made = await setUp(house);
    door = made.door.publicId;
    cookie = made.cookie;
  });
  afterEach(async () => {
    await house.close();
    rmSync(dir, { recursive: true, force: true });
  });

  /** SQLite refuses to grow past this, with the same error as for a full disk (PRAGMA max_page_count). */
  const fill = () => db.pragma(`max_page_count = ${db.pragma('page_count', { simple: true })}`);
  const empty = () => db.pragma('max_page_count = 1000000');
  const long = 'x'.repeat(3_900);
  /** Says more than fits into what is left of the last pages. */
  const sayMuch = async (panel: Awaited<ReturnType<typeof visit>>): Promise<string> => {
    for (let count = 0; count < 20; count += 1) {
      const id = clientId();
      panel.tell({ do: 'say', id, text: long, fileIds: [], page: null });
      const answer = await until(() => panel.heard.find((one) => 'id' in one && one.id === id));
      if (answer.say === 'refused') return answer.refusal.code;
    }
    return 'all taken';
  };
  const health = async () => (await house.ask('GET', '/healthz')).status;
  const canWrite = async () => (await house.ask('GET', '/api/house', { cookie })).body.canWrite;

  it('refuses each write with a code of its own, keeps sockets and reading, and says so', async () => {
    const panel = await visit(house, door, 'wren');
    await panel.say('Before');
    const device = await openDevice(house, cookie);
    fill();
    expect(await sayMuch(panel)).toBe('cannot-write');
    await device.hear('house');
    expect([await health(), await canWrite()]).toEqual([503, false]);
    const [conversation] = house.store.conversations.page('waiting', null, 1);
    const answer = await house.ask('POST', `/api/conversations/${conversation?.id}/deeds`, {
      cookie,
      body: { do: 'say', id: clientId(), text: long, fileIds: [] },
    });
    expect([answer.status, answer.body.code]).toEqual([507, 'cannot-write']);
    panel.tell({ do: 'pulse' });
    await panel.hear('pulse');
    expect((await house.ask('GET', '/api/line?group=waiting', { cookie })).body.rows).toHaveLength(
      1,
    );
  });

  it('lets whoever comes read what there is, on either side', async () => {
    const panel = await visit(house, door, 'wren');
    await panel.say('Before');
    fill();
    await sayMuch(panel);
    panel.close();
    const again = await visit(house, door, 'wren');
    expect(again.welcome.entries[0]?.text).toBe('Before');
    again.tell({ do: 'read', upTo: 1 });
    again.tell({ do: 'pulse' });
    await again.hear('pulse');
    const letter = await write(house, door, 'wren', [
      { do: 'say', id: clientId(), text: long, fileIds: [], page: null },
    ]);
    expect(letter.map((one) => one.say)).toContain('welcome');
    expect(letter).toContainEqual(expect.objectContaining({ refusal: { code: 'cannot-write' } }));
    expect(visitorToken('wren')).toHaveLength(43);
  });

  it('refuses also what comes together with something that is refused anyway, and ends no socket', async () => {
    const panel = await visit(house, door, 'wren');
    await panel.say('Before');
    fill();
    await sayMuch(panel);
    const [empty, full] = [clientId(), clientId()];
    panel.tell({ do: 'say', id: empty, text: ' ', fileIds: [], page: null });
    panel.tell({ do: 'say', id: full, text: long, fileIds: [], page: null });
    expect((await panel.hear('refused', (one) => one.id === full)).refusal.code).toBe(
      'cannot-write',
    );
    await panel.hear('refused', (one) => one.id === empty);
    panel.tell({ do: 'pulse' });
    await panel.hear('pulse');
    expect(log.filter((line) => line.includes('nothing can be written'))).toHaveLength(1);
    expect(log).toHaveLength(1);
  });

  it('is logged once a minute, however many try', async () => {
    const panel = await visit(house, door, 'wren');
    await panel.say('Before');
    fill();
    for (let count = 0; count < 10; count += 1) await sayMuch(panel);
    await house.tick();
    expect(log.filter((line) => line.includes('nothing can be written'))).toHaveLength(1);
    house.clock.advance(60_000);
    await sayMuch(panel);
    expect(log.filter((line) => line.includes('nothing can be written'))).toHaveLength(2);
  });

  it('is noticed by itself when it takes something again, and what waited is taken', async () => {
    const panel = await visit(house, door, 'wren');
    await panel.say('Before');
    const device = await openDevice(house, cookie);
    fill();
    await sayMuch(panel);
    await device.hear('house');
    await house.tick();
    expect(await health()).toBe(503);
    empty();
    house.clock.advance(5_000);
    await house.tick();
    await device.hear('house');
    expect([await health(), await canWrite()]).toEqual([200, true]);
    await panel.say(long);
  });

  it('signs nobody in, and says why', async () => {
    const panel = await visit(house, door, 'wren');
    await panel.say('Before');
    fill();
    await sayMuch(panel);
    db.pragma('query_only = ON');
    const response = await house.ask('POST', '/api/sign-in', { body: owner });
    expect(response.body.code).toBe('cannot-write');
    db.pragma('query_only = OFF');
  });
});
