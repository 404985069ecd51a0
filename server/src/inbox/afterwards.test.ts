import { openHouse, setUp } from '../../test-kit/house';
import { visit } from '../../test-kit/panel';
import { openDatabase } from '../store/database';

describe('what no acknowledgement waits for', () => {
  const found = async (house: Awaited<ReturnType<typeof openHouse>>, cookie: string) =>
    (await house.ask('GET', '/api/search?words=monstera', { cookie })).body.found.length;

  it('is there for whoever asks right after it was said', async () => {
    const house = await openHouse();
    const { cookie, door } = await setUp(house);
    const wren = await visit(house, door.publicId, 'wren');
    await wren.say('Is the monstera still there?');
    expect(await found(house, cookie)).toBe(1);
    await house.close();
  });

  it('passes over an entry that cannot be counted, and stops for nothing that comes after it', async () => {
    const house = await openHouse();
    const { cookie, door } = await setUp(house);
    const reported: unknown[] = [];
    house.services.onReport((error) => reported.push(error));
    const { add } = house.store.search;
    const bad = (texts: Parameters<typeof add>[0]): void => {
      if (texts.some(({ text }) => text.includes('poison'))) throw new Error('cannot be counted');
      add(texts);
    };
    jest.spyOn(house.store.search, 'add').mockImplementation(bad);
    const wren = await visit(house, door.publicId, 'wren');
    for (const text of ['poison', 'The monstera', 'poison again', 'A large monstera']) {
      await wren.say(text);
    }
    house.services.afterwards.catchUp();
    expect(house.store.afterwards.mark()).toBe(house.store.entries.newestSeq());
    expect(house.store.search.totals().texts).toBe(2);
    expect(await found(house, cookie)).toBe(1);
    expect(reported).toHaveLength(2);
    await house.close();
  });

  it('keeps nobody from reading while the disk takes nothing, and happens once it does', async () => {
    const house = await openHouse();
    const { cookie, door } = await setUp(house);
    const wren = await visit(house, door.publicId, 'wren');
    await wren.say('The monstera');
    house.services.afterwards.catchUp();
    const full = jest.spyOn(house.store.afterwards, 'setMark').mockImplementation(() => {
      throw Object.assign(new Error('database or disk is full'), { code: 'SQLITE_FULL' });
    });
    await wren.say('Another monstera');
    const during = await house.ask('GET', '/api/search?words=monstera', { cookie });
    expect([during.status, during.body.found.length]).toEqual([200, 1]);
    full.mockRestore();
    house.services.afterwards.catchUp();
    expect(house.store.search.totals().texts).toBe(2);
    await house.close();
  });

  it('happens once for each entry, also where the process ended before it did', async () => {
    const db = openDatabase(':memory:');
    const first = await openHouse({}, '', { db });
    const { cookie, door } = await setUp(first);
    const wren = await visit(first, door.publicId, 'wren');
    await wren.say('Is the monstera still there?');
    first.services.afterwards.catchUp();
    // From here on nothing of it happens, as if the process had been killed after each commit.
    first.services.afterwards.stop();
    const { texts } = first.store.search.totals();
    await wren.say('The large monstera');
    await wren.say('And a fern');
    expect(first.store.search.totals().texts).toBe(texts);
    const second = await openHouse({}, '', { db });
    expect(await found(second, cookie)).toBe(1);
    expect(second.store.search.totals().texts).toBe(texts + 2);
    second.services.afterwards.catchUp();
    expect(second.store.search.totals().texts).toBe(texts + 2);
    await first.close();
  });
});
