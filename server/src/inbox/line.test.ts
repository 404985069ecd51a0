import { type House, openHouse, setUp } from '../../test-kit/house';
import { visitorToken } from '../../test-kit/panel';
import { hashSecret } from '../security/tokens';

const minute = 60_000;

describe('reading the line', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  const fill = async (count: number) => {
    const { cookie, door } = await setUp(house);
    for (let index = 0; index < count; index += 1) {
      const sender = { doorId: door.id, tokenHash: hashSecret(visitorToken(`visitor-${index}-`)) };
      const message = { id: `message-${1000 + index}`, text: `${index}`, fileIds: [], page: null };
      await house.services.visiting.message(sender, message, false);
      // Several at the same moment: their ids must tell them apart.
      if (index % 3 === 0) house.clock.advance(minute);
    }
    const page = async (after: string | null) => {
      const behind = after ? `&after=${encodeURIComponent(after)}` : '';
      return (await house.ask('GET', `/api/line?group=waiting${behind}`, { cookie })).body;
    };
    return { cookie, page };
  };

  it('gives every conversation once, in order, over all its pages', async () => {
    const { page } = await fill(75);
    const seen: { id: string; place: number }[] = [];
    let pages = 0;
    for (let after: string | null = null; ; ) {
      const { rows, next, counts } = await page(after);
      expect(counts.waiting).toBe(75);
      seen.push(...rows);
      pages += 1;
      if (next === null) break;
      after = next;
    }
    expect(pages).toBe(3);
    expect(new Set(seen.map(({ id }) => id)).size).toBe(75);
    const places = seen.map(({ place }) => place);
    expect(places).toEqual([...places].sort((a, b) => a - b));
  });

  it.each(['nonsense', 'x.y', '1e400.abc', '.'])(
    'refuses %j as a place to go on from',
    async (after) => {
      const { cookie } = await setUp(house);
      const response = await house.ask('GET', `/api/line?group=waiting&after=${after}`, { cookie });
      expect(response.status).toBe(400);
    },
  );

  it('refuses a group that there is not', async () => {
    const { cookie } = await setUp(house);
    expect((await house.ask('GET', '/api/line?group=nobody', { cookie })).status).toBe(400);
  });

  it('gives a roll in stretches, the newest first, each oldest first', async () => {
    const { cookie, door } = await setUp(house);
    const sender = { doorId: door.id, tokenHash: hashSecret(visitorToken('wren')) };
    let id = '';
    for (let index = 0; index < 95; index += 1) {
      const message = { id: `message-${1000 + index}`, text: `${index}`, fileIds: [], page: null };
      id = await house.services.visiting.message(sender, message, false);
    }
    const said: string[] = [];
    for (let before = ''; ; ) {
      const { body } = await house.ask('GET', `/api/conversations/${id}${before}`, { cookie });
      said.unshift(...body.entries.map((entry: { text: string }) => entry.text));
      if (!body.hasOlder) break;
      before = `?before=${body.entries[0].seq}`;
    }
    expect(said).toEqual(Array.from({ length: 95 }, (_, index) => `${index}`));
  });

  it('says plainly that a conversation is not there', async () => {
    const { cookie } = await setUp(house);
    const response = await house.ask('GET', '/api/conversations/no-such-conversation', { cookie });
    expect([response.status, response.body.code]).toEqual([404, 'not-found']);
  });
});

describe('writes of the same moment', () => {
  it('are all answered with what went wrong when the disk does not take them, and none is half there', async () => {
    const house = await openHouse();
    const { door } = await setUp(house);
    const sender = { doorId: door.id, tokenHash: hashSecret(visitorToken('wren')) };
    const failing = jest.spyOn(house.store.entries, 'append').mockImplementationOnce(() => {
      throw Object.assign(new Error('database or disk is full'), { code: 'SQLITE_FULL' });
    });
    const say = (id: string) =>
      house.services.visiting.message(sender, { id, text: id, fileIds: [], page: null }, false);
    const outcomes = await Promise.allSettled([say('message-0001'), say('message-0002')]);
    expect(outcomes.map(({ status }) => status)).toEqual(['rejected', 'rejected']);
    expect(house.store.entries.newestSeq()).toBe(0);
    expect(house.store.conversations.counts().waiting).toBe(0);
    failing.mockRestore();
    await say('message-0001');
    expect(house.store.conversations.counts().waiting).toBe(1);
    await house.close();
  });
});
