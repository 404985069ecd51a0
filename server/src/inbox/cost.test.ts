import Database from 'better-sqlite3';
import { openCounted } from '../../test-kit/counted';
import { openHouse, setUp } from '../../test-kit/house';
import { clientId, visit, visitorToken } from '../../test-kit/panel';
import { hashSecret } from '../security/tokens';

const MESSAGES = 20;
/** Of one message in a conversation that goes on, before it is acknowledged. */
const STATEMENTS_MOST = 4;

/** Of a bare one. Measured: 24; where each message reads sixty entries back: 96. */
const BARE_MOST = 40;

/** Milliseconds of the processor that a hundred rounds take, of several tries the least: what the machine does beside does not count. */
const leastProcessor = async (round: () => unknown): Promise<number> => {
  const tries: number[] = [];
  for (let nth = 0; nth < 6; nth += 1) {
    const before = process.cpuUsage();
    for (let one = 0; one < 100; one += 1) await round();
    const { user, system } = process.cpuUsage(before);
    tries.push((user + system) / 1_000);
  }
  return Math.min(...tries);
};

describe('what one message costs', () => {
  it('is a bounded number of statements, none of which reads back what was said', async () => {
    const counted = openCounted();
    const house = await openHouse({}, ':memory:', { db: counted.db });
    const { door } = await setUp(house);
    const wren = await visit(house, door.publicId, 'wren');
    for (let nth = 0; nth < 5; nth += 1) await wren.say(`Hello ${nth}`);
    house.services.afterwards.catchUp();
    // What comes after the acknowledgement is not counted here.
    house.services.afterwards.stop();
    counted.taken();
    for (let nth = 0; nth < MESSAGES; nth += 1) await wren.say(`Is it there? ${nth}`);
    const during = counted.taken();
    const each = [...during]
      .map(([sql, count]) => ({ sql, count: count / MESSAGES }))
      .filter(({ count }) => count >= 0.5);
    // Whoever adds one to every message adds it for everybody who waits for theirs.
    expect(each.filter(({ sql, count }) => /^SELECT/.test(sql) && count > 1)).toEqual([]);
    const readBack = each.filter(
      ({ sql }) => /FROM entries/.test(sql) && !/ e\.id = \?$/.test(sql),
    );
    expect(readBack).toEqual([]);
    const total = each.reduce((sum, { count }) => sum + count, 0);
    expect(total).toBeGreaterThan(2);
    expect(total).toBeLessThanOrEqual(STATEMENTS_MOST);
    await house.close();
  });

  it('takes a bounded multiple of the processor that a bare insert of it takes', async () => {
    const house = await openHouse();
    const { door } = await setUp(house);
    const text = 'Is the big monstera from the window still there, and does it come with its pot?';
    const visitors = Array.from({ length: 20 }, (_, nth) => ({
      doorId: door.id,
      tokenHash: hashSecret(visitorToken(`visitor-${nth}-`)),
    }));
    const round = async (): Promise<void> => {
      const typed = () => ({ id: clientId(), text, fileIds: [], page: null });
      const said = visitors.map((one) => house.services.visiting.message(one, typed(), true));
      await Promise.all(said);
    };
    const db = new Database(':memory:');
    db.exec('CREATE TABLE messages (seq INTEGER PRIMARY KEY, id TEXT, text TEXT) STRICT');
    const insert = db.prepare('INSERT INTO messages (id, text) VALUES (?, ?)');
    const bareRound = db.transaction(() => {
      for (const _ of visitors) {
        const { id } = JSON.parse(JSON.stringify({ id: clientId(), text }));
        insert.run(id, text);
        JSON.stringify({ say: 'entries', entries: [{ id, text }] });
      }
    });
    const ours = await leastProcessor(round);
    const bare = await leastProcessor(bareRound);
    expect(ours / bare).toBeLessThan(BARE_MOST);
    db.close();
    await house.close();
  });
});
