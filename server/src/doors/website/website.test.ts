import { type House, openHouse, setUp, site } from '../../../test-kit/house';
import { clientId, openDevice, visit, visitorToken, write } from '../../../test-kit/panel';
import { addHelper } from '../../../test-kit/routes';

describe('the website door', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  it('tells a listed website how it is set, as a module it may keep for a moment', async () => {
    const { door } = await setUp(house);
    const response = await house.ask('GET', `/door/${door.publicId}/configuration.js`, {
      headers: { origin: site },
    });
    expect(response.headers).toMatchObject({
      'access-control-allow-origin': site,
      vary: expect.stringContaining('origin'),
      'cache-control': 'public, max-age=30',
    });
    const json = String(response.body)
      .replace(/^export default /, '')
      .replace(/;\s*$/, '');
    expect(JSON.parse(json)).toMatchObject({
      door: door.publicId,
      business: 'Quillfern Nursery',
      lamp: { state: 'lit', until: null },
      now: house.clock.now(),
      language: 'en',
      texts: { plate: ['Answering now', 'Back at {time}', 'Leave a note'] },
    });
    expect(json.length).toBeLessThan(2_000);
  });

  it('says nothing of a door that there is not', async () => {
    await setUp(house);
    for (const path of ['configuration.js', 'panel', 'lamp']) {
      const response = await house.ask('GET', `/door/no-such-door-1/${path}`, {
        headers: { origin: site },
      });
      expect([path, response.status]).toEqual([path, 404]);
    }
    expect((await house.ask('GET', '/talk/no-such-door-1')).status).toBe(404);
  });

  it('keeps a business\u2019s name plain in the panel\u2019s page, whatever it is', async () => {
    const { cookie, door } = await setUp(house);
    const name = '</script><script>alert(1)</script> "&';
    await house.ask('PUT', '/api/business', { cookie, body: { name, zone: 'Europe/London' } });
    const page = String((await house.ask('GET', `/talk/${door.publicId}`)).body);
    expect(page).not.toContain('<script>alert');
    expect(page).toContain('\\u003c/script>');
    expect(page.match(/<script/g)).toHaveLength(2);
  });

  it('takes and answers letters where no socket is let through', async () => {
    const { cookie, door } = await setUp(house);
    const device = await openDevice(house, cookie);
    const id = clientId();
    const says = await write(house, door.publicId, 'wren', [
      { do: 'say', id, text: 'By letter', fileIds: [], page: null },
    ]);
    expect(says.map(({ say }) => say)).toEqual(['welcome', 'entries', 'taken']);
    const { rows } = await device.hear('entries', ({ entries }) =>
      entries.some((entry) => entry.id === id),
    );
    expect(rows[0]?.state.isHere).toBe(true);
    const [told] = await write(house, door.publicId, 'wren', [{ do: 'typing' }]);
    expect(told).toMatchObject({ say: 'welcome', entries: [{ text: 'By letter', by: 'visitor' }] });
    await device.hear('typing');

    // Whoever writes no more letters has left, after a moment's grace.
    house.clock.advance(21_000);
    await house.services.presence.tick();
    await device.hear('entries', ({ entries }) => entries.some(({ kind }) => kind === 'gone'));
  });

  it('answers a letter to nobody who is not let in, and reads none that says too much', async () => {
    const { door } = await setUp(house);
    const path = `/door/${door.publicId}/letters`;
    const hello = {
      do: 'hello',
      token: visitorToken('wren'),
      since: 0,
      site: 'https://else.example',
    };
    const say = { do: 'say', id: clientId(), text: 'x', fileIds: [], page: null };
    const elsewhere = await house.ask('POST', path, { body: { says: [hello, say] } });
    expect(elsewhere.body.says).toEqual([
      { say: 'refused', id: 'hello', refusal: { code: 'site-not-listed' } },
    ]);
    const unknown = await house.ask('POST', path, { body: { says: [say] } });
    expect(unknown.body.says[0]).toMatchObject({ refusal: { code: 'token-unknown' } });
    for (const says of [[], Array(9).fill(say), [{ do: 'shout' }]]) {
      expect((await house.ask('POST', path, { body: { says } })).status).toBe(400);
    }
    expect(house.store.conversations.counts().waiting).toBe(0);
  });

  it('gives older entries over HTTP, and what came since', async () => {
    const { door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('One');
    const { seq } = await panel.hear('entries');
    await panel.say('Two');
    const headers = { authorization: `Bearer ${visitorToken('wren')}`, 'x-site': site };
    const ask = async (query: string) =>
      (await house.ask('GET', `/door/${door.publicId}/entries?${query}`, { headers })).body;
    const texts = (page: { entries: { text: string }[] }) => page.entries.map(({ text }) => text);
    expect(texts(await ask(`since=${seq}`))).toEqual(['Two']);
    expect(texts(await ask(`before=${seq}`))).toEqual([]);
    expect(texts(await ask(''))).toEqual(['One', 'Two']);
  });

  it('records the visitor\u2019s path once there is a conversation, each page once in a row', async () => {
    const { door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    const go = (id: string, url: string) =>
      panel.tell({ do: 'page', id, page: { url, title: 'A page' } });
    go('before-anything', `${site}/a`);
    await panel.say('Hello');
    go('page-entry-01', `${site}/a`);
    go('page-entry-02', `${site}/a`);
    go('page-entry-03', 'javascript:alert(1)');
    go('page-entry-04', `${site}/b`);
    await panel.say('Bye');
    const [conversation] = house.store.conversations.page('waiting', null, 1);
    const path = house.store.entries
      .allOf(conversation?.id ?? '')
      .flatMap((entry) => (entry.kind === 'waypoint' ? [entry.page.url] : []));
    expect(path).toEqual([`${site}/a`, `${site}/b`]);
  });

  it('lets an owner change its websites, and a helper not', async () => {
    const { cookie, door } = await setUp(house);
    const change = (sites: string[], by: string) =>
      house.ask('PUT', `/api/doors/${door.id}`, { cookie: by, body: { sites } });
    expect((await change(['www.Other.example/x', 'other.example'], cookie)).body.sites).toEqual([
      'other.example',
    ]);
    expect((await change(['no site'], cookie)).body).toEqual({
      code: 'site-not-understood',
      field: 'sites',
    });
    expect(house.store.doors.byId(door.id)?.settings).toEqual({ sites: ['other.example'] });
    expect((await change([], await addHelper(house))).body.code).toBe('role-not-enough');
  });
});

describe('a panel in a frame', () => {
  it('may stand on a website that lets in only what says that it may come (COEP), with the picker in it', async () => {
    const house = await openHouse();
    const { door } = await setUp(house);
    for (const path of [`/door/${door.publicId}/panel`, `/door/${door.publicId}/emoji`]) {
      const { status, headers } = await house.ask('GET', path, {
        headers: { accept: 'text/html' },
      });
      expect([path, status]).toEqual([path, 200]);
      expect(headers).toMatchObject({
        'cross-origin-embedder-policy': 'require-corp',
        'cross-origin-resource-policy': 'cross-origin',
      });
    }
    // What is nobody else's to read stays ours.
    const { headers } = await house.ask('GET', '/api/house');
    expect(headers['cross-origin-resource-policy']).toBe('same-origin');
    await house.close();
  });
});

describe('the pages', () => {
  it('come with a policy that allows nothing inline and nothing from elsewhere', async () => {
    const house = await openHouse();
    const { door } = await setUp(house);
    for (const path of [
      '/',
      '/line/anything',
      `/talk/${door.publicId}`,
      `/door/${door.publicId}/panel`,
    ]) {
      const response = await house.ask('GET', path, { headers: { accept: 'text/html' } });
      const policy = String(response.headers['content-security-policy']);
      expect([path, policy]).toEqual([
        path,
        expect.stringContaining("default-src 'none'; script-src 'self'"),
      ]);
      expect(policy).not.toMatch(/unsafe|\*/);
      expect(response.headers['x-content-type-options']).toBe('nosniff');
    }
    expect(
      (await house.ask('GET', '/api/nothing', { headers: { accept: 'text/html' } })).status,
    ).toBe(404);
    await house.close();
  });
});
