import { openHouse, owner, setUp } from '../../test-kit/house';
import { settingsProblem, toSettings } from '../settings';
import { openDatabase } from '../store/database';
import { opensAnywhere } from './outside';
import { createProxyWatch, hostInAddress } from './proxy';

const overTls = { publicOrigin: 'https://porch.example' };

describe('a house that is reached over TLS', () => {
  it('says by the name of the variable that it does not know of its proxy: in the log, to its owner, and at /healthz', async () => {
    const lines: string[] = [];
    const logTo = { write: (line: string) => lines.push(line) } as never;
    const house = await openHouse({ ...overTls, logLevel: 'error' }, ':memory:', { logTo });
    expect(lines.join('')).toContain('TRUST_PROXY');
    const { status, body } = await house.ask('GET', '/healthz');
    expect([status, body]).toEqual([200, { ok: true, canWrite: true, set: 'TRUST_PROXY' }]);
    expect(house.store.findings.all()).toMatchObject([
      { kind: 'proxy-not-trusted', detail: expect.stringContaining('TRUST_PROXY=1') },
    ]);
    await house.close();
  });

  it('opens all the same where that cannot be written down', async () => {
    const db = openDatabase(':memory:');
    db.exec(`CREATE TRIGGER full BEFORE INSERT ON findings BEGIN SELECT RAISE(ABORT, 'full'); END`);
    const house = await openHouse(overTls, '', { db });
    expect((await house.ask('GET', '/healthz')).body.set).toBe('TRUST_PROXY');
    await house.close();
  });

  it.each([
    ['where it knows of it', { ...overTls, trustProxy: 1 }],
    ['where it is reached without', {}],
  ])('says nothing %s', async (_where, settings) => {
    const house = await openHouse(settings);
    expect((await house.ask('GET', '/healthz')).body).toEqual({ ok: true, canWrite: true });
    expect(house.store.findings.all()).toEqual([]);
    await house.close();
  });

  it('marks its cookies as for TLS only, and tells browsers to come by nothing else', async () => {
    const house = await openHouse(overTls);
    const headers = { host: 'porch.example', origin: 'https://porch.example' };
    const code = house.services.firstCode.shown();
    const { business, zone, name, email, password } = owner;
    const made = await house.ask('POST', '/api/set-up', {
      headers,
      body: { code, business, zone, name, email, password },
    });
    expect(made.status).toBeLessThan(300);
    expect(String(made.headers['set-cookie'])).toContain('Secure');
    expect(made.headers['strict-transport-security']).toMatch(/^max-age=\d{7,}/);
    await house.close();
    const plain = await openHouse();
    await setUp(plain);
    expect((await plain.ask('GET', '/healthz')).headers['strict-transport-security']).toBe(
      undefined,
    );
    await plain.close();
  });
});

describe('a proxy that the house was told wrong of', () => {
  const sees = (house: Awaited<ReturnType<typeof openHouse>>, forwarded: string) =>
    house.ask('GET', '/healthz', { headers: { 'x-forwarded-for': forwarded } });
  const logged = () => {
    const lines: string[] = [];
    return { lines, logTo: { write: (line: string) => lines.push(line) } as never };
  };

  it('is noticed by the first request that came by one though none was named', async () => {
    const { lines, logTo } = logged();
    const house = await openHouse({ logLevel: 'error' }, ':memory:', { logTo });
    await setUp(house);
    expect((await house.ask('GET', '/healthz')).body.set).toBe(undefined);
    expect((await sees(house, '203.0.113.9')).body.set).toBe('TRUST_PROXY');
    await sees(house, '203.0.113.9');
    expect(lines).toHaveLength(1);
    expect(lines[0]).toContain('Set TRUST_PROXY=1');
    expect(house.store.findings.all()).toMatchObject([{ kind: 'proxy-not-trusted' }]);
    await house.close();
  });

  it('is believed no further than it reaches, where there are fewer than were named', async () => {
    const { lines, logTo } = logged();
    const house = await openHouse({ logLevel: 'error', trustProxy: 2 }, ':memory:', { logTo });
    // An honest request from the open internet shows how many there are.
    expect((await sees(house, '9.9.9.9')).body.set).toBe('TRUST_PROXY');
    await sees(house, '198.51.100.1, 9.9.9.9');
    expect(lines.join('')).toContain('fewer proxies than TRUST_PROXY says');
    await house.close();
    const watch = createProxyWatch({ trustProxy: 2 });
    const believes = (hop: number) =>
      (watch.trust as (at: string, hop: number) => boolean)('', hop);
    watch.look({ 'x-forwarded-for': '9.9.9.9' }, '8.8.8.8');
    expect([believes(1), watch.problem()]).toEqual([true, null]);
    // The owner at home, by the inner of two.
    watch.look({ 'x-forwarded-for': '192.168.1.20' }, '127.0.0.1');
    expect([believes(1), watch.problem()]).toEqual([true, null]);
    watch.look({ 'x-forwarded-for': '9.9.9.9' }, '127.0.0.1');
    // From then on what a client puts in front is no address of theirs.
    expect([believes(0), believes(1), watch.problem()]).toEqual([true, false, 'too-many']);
  });

  it('is believed as it was told where there are as many', async () => {
    const house = await openHouse({ trustProxy: 2 });
    expect((await sees(house, '203.0.113.9, 10.0.0.2')).body.set).toBe(undefined);
    await house.close();
  });

  it('lets the owner write, where the inner one of two says that it came without TLS', async () => {
    const house = await openHouse({ trustProxy: 2 });
    const { cookie } = await setUp(house);
    const write = (origin: string) =>
      house.ask('PUT', '/api/lamp', {
        cookie,
        body: { state: 'dark', until: null },
        headers: { origin, host: 'porch.example', 'x-forwarded-proto': 'http' },
      });
    expect((await write('https://porch.example')).status).toBe(200);
    expect((await write('https://other.example')).body.code).toBe('origin-not-ours');
    await house.close();
  });

  it('shows in the log where a write is refused for its page, once a minute', async () => {
    const { lines, logTo } = logged();
    const house = await openHouse({ logLevel: 'warn' }, ':memory:', { logTo });
    const { cookie } = await setUp(house);
    const headers = { origin: 'https://evil.example' };
    const write = () =>
      house.ask('PUT', '/api/lamp', { cookie, body: { state: 'dark', until: null }, headers });
    await write();
    await write();
    expect(lines).toHaveLength(1);
    expect(lines[0]).toContain('"from":"https://evil.example"');
    expect(lines[0]).toContain('PUBLIC_ORIGIN');
    house.clock.advance(61_000);
    await write();
    expect(lines).toHaveLength(2);
    await house.close();
  });
});

describe('the address at which a house is reached', () => {
  it('is remembered from the set-up, so that mails lead there, and shown; what is set goes before it', async () => {
    const house = await openHouse();
    const { cookie } = await setUp(house);
    const shown = async () => (await house.ask('GET', '/api/mail', { cookie })).body;
    expect(house.services.origin()).toBe('http://porch.example');
    const linksTo = 'http://porch.example';
    expect(await shown()).toMatchObject({ linksTo, isNearOnly: false });
    const body = { ...(await shown()).settings, outgoingPassword: null, incomingPassword: null };
    const headers = { origin: 'http://192.168.1.9', host: '192.168.1.9' };
    const saved = await house.ask('PUT', '/api/mail', { cookie, body, headers });
    expect(saved.body).toMatchObject({ linksTo: 'http://192.168.1.9', isNearOnly: true });
    await house.close();
    const set = await openHouse({ ...overTls, trustProxy: 1 });
    expect(set.services.origin()).toBe('https://porch.example');
    await set.close();
  });

  it.each([
    ['http://127.0.0.1:4860', false],
    ['http://192.168.1.9', false],
    ['http://[::1]:4860', false],
    ['http://porch', false],
    ['http://porch.local', false],
    ['https://porch.example', true],
    ['http://203.0.113.9', false],
    ['http://8.8.8.8', true],
  ])('opens elsewhere, or does not: %s', (origin, anywhere) => {
    expect(opensAnywhere(origin)).toBe(anywhere);
  });
});

describe('a variable that cannot be meant', () => {
  it.each([
    [{ port: 'many' as never }, 'PORT'],
    [{ publicOrigin: 'porch.example' }, 'PUBLIC_ORIGIN'],
    [{ trustProxy: 99 }, 'TRUST_PROXY'],
    [{ trustProxy: ['true'] }, 'TRUST_PROXY'],
    [{ trustProxy: ['0.0.0.0/0'] }, 'TRUST_PROXY'],
    [{ networksNear: ['10.0.0.1'] }, 'NETWORKS_NEAR'],
  ])('is named: %j', (input, name) => {
    let said = '';
    try {
      toSettings(input);
    } catch (error) {
      said = settingsProblem(error);
    }
    expect(said).toContain(name);
    expect(said).not.toContain('{');
  });
});

describe('a host in an address', () => {
  it('has brackets where it is of the newer kind', () => {
    expect(['::1', '127.0.0.1', 'porch.example'].map(hostInAddress)).toEqual([
      '[::1]',
      '127.0.0.1',
      'porch.example',
    ]);
  });
});
