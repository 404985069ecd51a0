import { type House, openHouse, owner, setUp } from '../test-kit/house';
import { clientId, visit, visitorToken } from '../test-kit/panel';
import { startTicking } from './ticking';

const day = 24 * 3_600_000;

describe('tidying up', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  it('drops files that were never sent, after a day, and keeps those that were', async () => {
    const { door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Hello');
    const put = (id: string) =>
      house.ask('PUT', `/door/${door.publicId}/files/${id}`, {
        body: Buffer.from(`bytes of ${id}`),
        headers: {
          authorization: `Bearer ${visitorToken('wren')}`,
          'content-type': 'application/octet-stream',
          'x-file-name': 'a.txt',
        },
      });
    await put('sent-file-0001');
    await put('left-file-0001');
    await panel.say('See', clientId(), ['sent-file-0001']);
    house.clock.advance(day);
    house.services.files.tidy();
    expect(house.store.files.byId('left-file-0001')).not.toBeNull();
    house.clock.advance(1);
    house.services.files.tidy();
    expect(house.store.files.byId('left-file-0001')).toBeNull();
    expect(house.store.files.whole('left-file-0001')).toBeNull();
    expect(house.store.files.whole('sent-file-0001')?.toString()).toBe('bytes of sent-file-0001');
  });

  it('ends sessions that nobody has used for thirty days, and no others', async () => {
    const { cookie } = await setUp(house);
    const line = (by: string) => house.ask('GET', '/api/line?group=waiting', { cookie: by });
    const other = await house.ask('POST', '/api/sign-in', { body: owner });
    const unused = String(other.headers['set-cookie']).split(';')[0] ?? '';
    house.clock.advance(29 * day);
    expect((await line(cookie)).status).toBe(200);
    house.clock.advance(day + 1);
    house.services.accounts.tidy();
    expect([(await line(cookie)).status, (await line(unused)).status]).toEqual([200, 401]);
  });

  it('happens by itself, and what of a flood is over is forgotten', async () => {
    await setUp(house);
    const { limits } = house.services;
    for (let index = 0; index < 50; index += 1) limits.messages.take(`made-up-${index}`);
    expect(limits.messages.size()).toBe(50);
    const ticking = startTicking(house.services);
    await ticking.tick();
    expect(limits.messages.size()).toBe(50);
    house.clock.advance(60_000);
    await ticking.tick();
    expect(limits.messages.size()).toBe(0);
    ticking.stop();
  });
});
