import { MESSAGE_LONGEST } from '@porch/core/text';
import { type House, openHouse, owner, setUp, site } from '../../test-kit/house';
import { clientId, openDevice, openPanel, visit, visitorToken } from '../../test-kit/panel';
import { addHelper, askRoute, byLink, routesOfTeam } from '../../test-kit/routes';
import { hashSecret } from './tokens';

describe('who may do what', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  it('asks every route of the team for a signed-in member', async () => {
    await setUp(house);
    const closed = routesOfTeam(house);
    expect(closed.length).toBeGreaterThan(30);
    for (const route of closed) {
      const response = await askRoute(house, route);
      expect([route.path, route.method, response.status]).toEqual([route.path, route.method, 401]);
    }
  });

  it('has no route that does not say for whom it is, and none that is for others than it says', async () => {
    const { door } = await setUp(house);
    const places: Record<string, RegExp> = {
      owner: /^\/api\//,
      team: /^\/api\//,
      visitor: /^\/door\//,
      network: /^\/in\//,
      anybody: /^\//,
    };
    const { declared } = house.app;
    expect(declared.length).toBeGreaterThan(70);
    for (const { who, url } of declared)
      expect([who, url]).toEqual([who, expect.stringMatching(places[who] ?? /x/)]);
    expect(new Set(declared.map(({ who }) => who))).toEqual(new Set(Object.keys(places)));
    const openBelowApi = declared.filter(
      ({ who, url, method }) => who === 'anybody' && url.startsWith('/api/') && method !== 'HEAD',
    );
    expect(openBelowApi.map(({ method, url }) => `${method} ${url}`).sort()).toEqual([
      'GET /api/house',
      'POST /api/join',
      'POST /api/links/look',
      'POST /api/new-password',
      'POST /api/pairings/claim',
      'POST /api/pairings/collect',
      'POST /api/set-up',
      'POST /api/sign-in',
    ]);
    const ofVisitors = declared.filter(({ who, method }) => who === 'visitor' && method !== 'HEAD');
    expect(ofVisitors.length).toBeGreaterThanOrEqual(3);
    for (const { method, url } of ofVisitors) {
      const path = url.replace(':door', door.publicId).replace(':id', 'file-0000001');
      const { body } = await house.ask(method as 'GET', path);
      expect([method, url, body.code]).toEqual([method, url, 'token-unknown']);
    }
  });

  it('opens what needs a link\u2019s secret to nobody who made one up', async () => {
    await setUp(house);
    for (const [path, body] of Object.entries(byLink)) {
      const response = await house.ask('POST', path, { body });
      expect([path, response.body.code]).toEqual([path, 'link-stale']);
    }
  });

  it('lets a helper answer, and refuses them every route that is the owner\u2019s', async () => {
    const { door } = await setUp(house);
    const cookie = await addHelper(house);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Is somebody there?');
    const [row] = (await house.ask('GET', '/api/line?group=waiting', { cookie })).body.rows;
    const answer = await house.ask('POST', `/api/conversations/${row.id}/deeds`, {
      cookie,
      body: { do: 'say', id: clientId(), text: 'I am', fileIds: [] },
    });
    expect(answer.body.entries).toMatchObject([{ kind: 'team-said', text: 'I am' }]);
    const told = await panel.hear('entries', ({ entries }) => entries[0]?.by === 'team');
    expect(told.entries[0]?.name).toBe('Tobias Ekwall');
    const refused: string[] = [];
    for (const route of routesOfTeam(house)) {
      // Leaving and signing out end the session with which the others are tried.
      if (['/api/me/leave', '/api/sign-out'].includes(route.path)) continue;
      const response = await askRoute(house, route, cookie, door.id);
      if (response.body.code === 'role-not-enough') refused.push(`${route.method} ${route.path}`);
    }
    expect(refused.sort()).toEqual(
      [
        'delete /api/business/picture',
        'delete /api/findings/{kind}',
        'delete /api/network-doors/{id}',
        'delete /api/jobs/{id}',
        'delete /api/links/{id}',
        'get /api/business/colours',
        'get /api/doors/{id}/cards/proposals',
        'get /api/doors/{id}/cards/table',
        'get /api/doors/{id}/dress',
        'get /api/doors/{id}/person-key',
        'post /api/doors/{id}/person-key',
        'get /api/holidays',
        'get /api/jobs/dead',
        'get /api/links',
        'get /api/mail',
        'delete /api/orders',
        'get /api/orders',
        'delete /api/orders/one/{number}',
        'get /api/orders/list',
        'get /api/orders/one/{number}',
        'put /api/orders/one',
        'get /api/orders/shop/key',
        'post /api/orders/shop/try',
        'post /api/orders/table',
        'put /api/orders/shop',
        'delete /api/shelf-tables',
        'get /api/shelf-tables',
        'get /api/shelf-tables/written',
        'post /api/shelf-tables',
        'get /api/network-doors',
        'get /api/network-doors/{id}',
        'post /api/doorbell/new-keys',
        'post /api/doors',
        'post /api/doors/{id}/cards/table',
        'post /api/doors/{id}/publish',
        'post /api/doors/{id}/trial',
        'post /api/doors/{id}/undo',
        'post /api/invites',
        'post /api/jobs/{id}/again',
        'post /api/mail/find',
        'post /api/mail/test',
        'post /api/members/{id}/leave',
        'post /api/members/{id}/new-password-link',
        'post /api/members/{id}/sign-out',
        'post /api/network-doors',
        'post /api/network-doors/{id}/check',
        'post /api/network-doors/{id}/key',
        'post /api/ticks',
        'put /api/business',
        'put /api/business/picture',
        'put /api/doors/{id}',
        'put /api/doors/{id}/draft',
        'put /api/doors/{id}/hours',
        'put /api/hours',
        'put /api/mail',
        'put /api/members/{id}/out',
        'put /api/members/{id}/role',
        'put /api/network-doors/{id}',
        'put /api/promises',
        'put /api/ring-on',
      ].sort(),
    );
  });

  it('refuses every write that comes from a page that is not ours', async () => {
    const { cookie } = await setUp(house);
    const body = { state: 'dark', until: null };
    for (const origin of ['https://evil.example', 'null', '']) {
      const response = await house.ask('PUT', '/api/lamp', { cookie, body, headers: { origin } });
      expect(response.body.code).toBe('origin-not-ours');
    }
    expect(house.services.lamp.forTeam().state).toBe('lit');
  });

  it('shows a visitor their own conversation and no other', async () => {
    const { door } = await setUp(house);
    await (await visit(house, door.publicId, 'wren')).say('A secret of mine');
    const forged = await visit(house, door.publicId, 'forged');
    expect(forged.welcome.entries).toEqual([]);
    await forged.say('Hello');
    const url = `/door/${door.publicId}/entries`;
    const asOther = await house.ask('GET', url, {
      headers: { authorization: `Bearer ${visitorToken('forged')}` },
    });
    expect(JSON.stringify(asOther.body)).not.toContain('secret');
    const asNobody = await house.ask('GET', url);
    expect(asNobody.body.code).toBe('token-unknown');
  });

  it('shows a file to its conversation and to no other visitor', async () => {
    const { door, cookie } = await setUp(house);
    const wren = await visit(house, door.publicId, 'wren');
    const headers = (who: string) => ({
      authorization: `Bearer ${visitorToken(who)}`,
      'content-type': 'application/octet-stream',
      'x-file-name': 'list.txt',
    });
    const url = `/door/${door.publicId}/files/file-of-wren-1`;
    const put = await house.app.inject({
      method: 'PUT',
      url,
      payload: Buffer.from('my list'),
      headers: { ...headers('wren'), host: 'porch.example', origin: 'http://porch.example' },
    });
    expect(put.statusCode).toBe(200);
    await wren.say('See', clientId(), ['file-of-wren-1']);
    const robin = await visit(house, door.publicId, 'robin');
    await robin.say('Hello');
    robin.tell({
      do: 'say',
      id: 'steals-file-01',
      text: '',
      fileIds: ['file-of-wren-1'],
      page: null,
    });
    expect((await robin.hear('refused')).refusal.code).toBe('file-unknown');
    expect((await house.ask('GET', url, { headers: headers('robin') })).status).toBe(404);
    expect((await house.ask('GET', url, { headers: headers('wren') })).bytes.toString()).toBe(
      'my list',
    );
    const asOwner = await house.ask('GET', '/api/files/file-of-wren-1', { cookie });
    expect(asOwner.headers['content-disposition']).toMatch(/^attachment/);
    expect(asOwner.headers['content-type']).toBe('application/octet-stream');
  });

  it('opens no door on a website that is not on its list', async () => {
    const { door } = await setUp(house);
    const configuration = (origin: string) =>
      house.ask('GET', `/door/${door.publicId}/configuration.js`, { headers: { origin } });
    expect((await configuration(site)).status).toBe(200);
    expect((await configuration('https://elsewhere.example')).body.code).toBe('site-not-listed');
    const panel = await openPanel(house, door.publicId);
    panel.tell({
      do: 'hello',
      token: visitorToken('x'),
      since: 0,
      site: 'https://elsewhere.example',
    });
    expect((await panel.hear('refused')).refusal.code).toBe('site-not-listed');
    const page = await house.ask('GET', `/door/${door.publicId}/panel`);
    expect(page.headers['content-security-policy']).toContain(
      "frame-ancestors 'self' https://quillfern.example",
    );
    const link = await house.ask('GET', `/talk/${door.publicId}`);
    expect(link.headers['content-security-policy']).toMatch(/frame-ancestors 'self'$/);
  });

  it('lets nobody be two things: a token belongs to one door', async () => {
    const { door } = await setUp(house);
    await (await visit(house, door.publicId, 'wren')).say('Hello');
    const other = {
      id: 'other-door-01',
      publicId: 'other-public-1',
      name: 'Other',
      kind: 'website',
      settings: { sites: [] },
      memberIds: null,
      closedAt: null,
      removedAt: null,
    };
    house.store.doors.add(other, 0);
    const panel = await openPanel(house, other.publicId);
    panel.tell({ do: 'hello', token: visitorToken('wren'), since: 0, site: '' });
    expect((await panel.hear('refused')).refusal.code).toBe('token-unknown');
  });

  it('puts no secret and no message into what it keeps of a session or a visitor', async () => {
    const { cookie, door } = await setUp(house);
    await (await visit(house, door.publicId, 'wren')).say('Hello');
    const secret = cookie.split('=')[1] ?? '';
    expect(secret.length).toBeGreaterThan(40);
    expect(house.store.sessions.find(secret)).toBeNull();
    const writer = (address: string) => house.store.threads.byWriter({ doorId: door.id, address });
    expect(writer(visitorToken('wren'))).toBeNull();
    expect(writer(hashSecret(visitorToken('wren')))).not.toBeNull();
  });
});

describe('what comes in from outside', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse({ limits: { visitorMessagesAMinute: 5 } });
  });
  afterEach(() => house.close());

  const refusal = async (text: string) => {
    const { door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    panel.tell({ do: 'say', id: clientId(), text, fileIds: [], page: null });
    return (await panel.hear('refused')).refusal;
  };

  it('is refused when it is empty, or nothing but invisible marks', async () => {
    expect(await refusal(' \n\u202E\u0000 ')).toEqual({ code: 'text-empty' });
  });

  it('is refused when it is one character too long, and says what is allowed', async () => {
    expect(await refusal('x'.repeat(MESSAGE_LONGEST + 1))).toEqual({
      code: 'text-too-long',
      limit: MESSAGE_LONGEST,
    });
  });

  it('is taken at exactly the longest', async () => {
    const { door } = await setUp(house);
    await (await visit(house, door.publicId, 'wren')).say('x'.repeat(MESSAGE_LONGEST));
    expect(house.store.conversations.counts().waiting).toBe(1);
  });

  it('ends the socket when it is a megabyte, and the server lives on', async () => {
    const { door } = await setUp(house);
    const panel = await openPanel(house, door.publicId);
    panel.tellRaw('x'.repeat(1_000_000));
    expect(await panel.closed()).toBe(1009);
    expect((await house.ask('GET', '/healthz')).status).toBe(200);
  });

  it.each(['not json', '[]', '{"do":"unheard of"}', '{"do":"say"}', 'null'])(
    'ends the socket when it is %s',
    async (text) => {
      const { door } = await setUp(house);
      const panel = await openPanel(house, door.publicId);
      panel.tellRaw(text);
      expect(await panel.closed()).toBe(4400);
    },
  );

  it('is refused as a file or picture when it does not come as bytes', async () => {
    const { cookie, door } = await setUp(house);
    await (await visit(house, door.publicId, 'wren')).say('Hello');
    const cut = '?left=0&top=0&side=1';
    const visitors = { authorization: `Bearer ${visitorToken('wren')}`, 'x-site': site };
    for (const [url, headers] of [
      ['/api/files/some-file-0001', {}],
      [`/api/me/picture${cut}`, {}],
      [`/api/business/picture${cut}&shape=round`, {}],
      [`/door/${door.publicId}/files/some-file-0002`, visitors],
    ] as const) {
      for (const body of [undefined, { not: 'bytes' }]) {
        const { status } = await house.ask('PUT', url, { cookie, headers, body });
        expect([url, status]).toEqual([url, 400]);
      }
    }
  });

  it('is slowed down when it is a flood, and says for how long', async () => {
    const { door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    for (let count = 0; count < 5; count += 1) await panel.say('Again');
    panel.tell({ do: 'say', id: clientId(), text: 'Again', fileIds: [], page: null });
    expect((await panel.hear('refused')).refusal).toEqual({ code: 'too-many', waitMs: 12_000 });
    house.clock.advance(12_000);
    await panel.say('After a while');
  });

  it('is kept as plain words, whatever it pretends to be', async () => {
    const { door, cookie } = await setUp(house);
    const text = "<img src=x onerror=alert(1)> '; DROP TABLE entries; --";
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say(text);
    panel.tell({ do: 'details', id: 'details-0001', name: '<b>Wren</b>\u202E' });
    await panel.hear('taken');
    const { body } = await house.ask('GET', '/api/line?group=waiting', { cookie });
    expect(body.rows[0].state).toMatchObject({ lastWords: text, name: '<b>Wren</b>' });
  });

  it('is refused beside its field when a detail cannot be right', async () => {
    const { door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Hello');
    panel.tell({ do: 'details', id: 'details-0001', email: 'no mail' });
    expect((await panel.hear('refused')).refusal).toEqual({
      code: 'email-not-understood',
      field: 'email',
    });
  });
});

describe('signing in', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  const signIn = (password: string, email = owner.email) =>
    house.ask('POST', '/api/sign-in', { body: { email, password } });

  it('gives a cookie that scripts cannot read and other sites do not send', async () => {
    await setUp(house);
    const response = await signIn(owner.password);
    expect(String(response.headers['set-cookie'])).toMatch(/HttpOnly; SameSite=Lax/);
  });

  it('knows an account however its email is written, also one that was kept before', async () => {
    const { member } = await setUp(house);
    const signIn = async (email: string) =>
      (await house.ask('POST', '/api/sign-in', { body: { ...owner, email } })).status;
    for (const email of [' MAREN@Quillfern.EXAMPLE ', 'maren@quillfern.example']) {
      expect([email, await signIn(email)]).toEqual([email, 200]);
    }
    const kept = house.store.members.byEmail(owner.email);
    if (!kept) throw new Error('nobody was set up');
    // The first releases kept a domain as it was typed, today it is kept in its ASCII form (RFC 5891).
    const born = { ...kept, id: `${member.id}-2` };
    house.store.members.add({ ...born, email: 'ines@bücher.example' }, 0);
    house.store.members.add(
      { ...born, id: `${member.id}-3`, email: 'tobias@xn--bcher-kva.example' },
      0,
    );
    for (const name of ['ines', 'tobias']) {
      expect([name, await signIn(`${name}@Bücher.example`)]).toEqual([name, 200]);
    }
  });

  it('says the same of a wrong password and of an unknown account', async () => {
    await setUp(house);
    const wrong = await signIn('not the password');
    const unknown = await signIn(owner.password, 'nobody@quillfern.example');
    expect(wrong.body).toEqual({ code: 'sign-in-wrong' });
    expect(unknown.body).toEqual(wrong.body);
  });

  it('is slowed down and then locked for a while, even for the right password', async () => {
    await setUp(house);
    const codes: string[] = [];
    for (let count = 0; count < 8; count += 1) {
      codes.push((await signIn('wrong')).body.code);
      codes.push((await signIn('wrong')).body.code);
      house.clock.advance(64_000);
    }
    expect(codes).toContain('too-many');
    expect(codes.at(-1)).toBe('sign-in-locked');
    expect((await signIn(owner.password)).body.code).toBe('sign-in-locked');
    house.clock.advance(15 * 60_000);
    expect((await signIn(owner.password)).status).toBe(200);
  });

  it('counts tries that are sent all at once', async () => {
    await setUp(house);
    const answers = await Promise.all(Array.from({ length: 30 }, () => signIn('wrong')));
    const tried = answers.filter(({ body }) => body.code === 'sign-in-wrong');
    expect(tried.length).toBeLessThan(8);
  });

  it('ends everywhere at once, open sockets included', async () => {
    const { cookie } = await setUp(house);
    const second = String((await signIn(owner.password)).headers['set-cookie']).split(';')[0] ?? '';
    const sockets = [await openDevice(house, cookie), await openDevice(house, second)];
    const ends = Promise.all(sockets.map((device) => device.closed()));
    await house.ask('POST', '/api/sign-out', { cookie, body: { everywhere: true } });
    expect(await ends).toEqual([4401, 4401]);
    expect((await house.ask('GET', '/api/line?group=waiting', { cookie: second })).status).toBe(
      401,
    );
  });

  it('sets up once', async () => {
    await setUp(house);
    const again = await house.ask('POST', '/api/set-up', { body: { ...owner, code: 'x' } });
    expect(again.body.code).toBe('already-set-up');
    expect(house.store.members.all()).toHaveLength(1);
  });

  it.each([
    [{ password: 'short' }, 'password-too-short', 'password'],
    [{ zone: 'Europe/Nowhere' }, 'zone-unknown', 'zone'],
    [{ email: 'maren' }, 'email-not-understood', 'email'],
    [{ business: '  ' }, 'text-empty', 'business'],
    [{ name: 'x'.repeat(81) }, 'text-too-long', 'name'],
  ])('refuses %j beside its field, and makes nothing', async (wrong, code, field) => {
    const response = await house.ask('POST', '/api/set-up', {
      body: { ...owner, code: house.services.firstCode.shown(), ...wrong },
    });
    expect(response.body).toMatchObject({ code, field });
    expect(house.store.business.read()).toBeNull();
  });
});
