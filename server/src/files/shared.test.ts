import { type House, openHouse, setUp } from '../../test-kit/house';
import { clientId, visit } from '../../test-kit/panel';

const DAY_MS = 24 * 3_600_000;

describe('the link of a file', () => {
  let house: House;
  let cookie: string;
  let talk: string;
  let id: string;

  beforeEach(async () => {
    house = await openHouse();
    const set = await setUp(house);
    cookie = set.cookie;
    const panel = await visit(house, set.door.publicId, 'wren');
    await panel.say('Have you a price list?');
    talk = house.store.conversations.page('waiting', null, 1)[0]?.id ?? '';
    id = clientId();
    const headers = { 'content-type': 'application/octet-stream', 'x-file-name': 'prices.txt' };
    const body = Buffer.from('Fern: 12');
    const put = await house.ask('PUT', `/api/files/${id}`, { cookie, body, headers });
    expect(put.status).toBe(200);
  });
  afterEach(() => house.close());

  const link = (): string => {
    const made = house.services.sharedFiles.link(id);
    if (!made) throw new Error('no link was made');
    return new URL(made).pathname;
  };
  const send = () =>
    house.ask('POST', `/api/conversations/${talk}/deeds`, {
      cookie,
      body: { do: 'say', id: clientId(), text: 'Here', fileIds: [id] },
    });

  it('opens nothing that was never sent to anybody', async () => {
    const path = link();
    expect((await house.ask('GET', path)).body.code).toBe('link-stale');
    await send();
    const { status, bytes } = await house.ask('GET', path);
    expect([status, String(bytes)]).toEqual([200, 'Fern: 12']);
  });

  it('opens nothing by another mark, nor once it is too old', async () => {
    await send();
    const path = link();
    const changed = path.replace(/.$/, (end) => (end === 'A' ? 'B' : 'A'));
    expect((await house.ask('GET', changed)).body.code).toBe('link-stale');
    house.clock.advance(29 * DAY_MS);
    expect((await house.ask('GET', path)).status).toBe(200);
    house.clock.advance(2 * DAY_MS);
    expect((await house.ask('GET', path)).body.code).toBe('link-stale');
  });
});
