import { type House, openHouse, owner, site } from '../../test-kit/house';
import { type Hop, NAME, openRealProxies, type Program } from '../../test-kit/real-proxy';

// nginx and caddy from Debian's packages, by the blocks of docs/deploying.md as they stand there.
const passOn = (block: string): string =>
  block
    .replace('X-Forwarded-Proto $scheme', 'X-Forwarded-Proto $http_x_forwarded_proto')
    .replace(/(reverse_proxy \S+)/, '$1 {\n    trusted_proxies private_ranges\n  }');
const inner = (program: Program): Hop => ({ program, change: passOn });

const ways: readonly (readonly [string, readonly Hop[]])[] = [
  ['nginx', [{ program: 'nginx' }]],
  ['caddy', [{ program: 'caddy' }]],
  ['nginx before nginx', [{ program: 'nginx' }, inner('nginx')]],
  ['caddy before nginx', [{ program: 'caddy' }, inner('nginx')]],
  ['nginx before caddy', [{ program: 'nginx' }, inner('caddy')]],
];

describe('behind real proxies', () => {
  let house: House;
  let proxies: Awaited<ReturnType<typeof openRealProxies>>;

  const open = async (hops: readonly Hop[], settings: object = {}): Promise<void> => {
    house = await openHouse({
      publicOrigin: `https://${NAME}`,
      trustProxy: hops.length,
      limits: { feedsAMinute: 2 },
      ...settings,
    });
    await house.app.listen({ port: 0, host: '127.0.0.1' });
    const { port } = house.app.server.address() as { port: number };
    proxies = await openRealProxies(hops, port);
  };
  afterEach(async () => {
    await proxies.close();
    await house.close();
  });

  const setUp = async (): Promise<{ cookie: string; cookies: string }> => {
    const code = house.services.firstCode.shown();
    const made = await proxies.ask('POST', '/api/set-up', { body: { ...owner, code } });
    expect(made.status).toBe(200);
    const cookies = [made.headers['set-cookie'] ?? []].flat().join('\n');
    return { cookies, cookie: cookies.split(';')[0] ?? '' };
  };

  describe.each(ways)('%s', (_name, hops) => {
    it('all goes through: writes, a socket, what is told as it happens, and files of their full size', async () => {
      await open(hops);
      const { cookie, cookies } = await setUp();
      expect(cookies).toContain('Secure');
      const health = await proxies.ask('GET', '/healthz');
      expect(JSON.parse(health.text)).toEqual({ ok: true, canWrite: true });
      expect(house.store.findings.all()).toEqual([]);

      const socket = proxies.socket('/api/live', { cookie });
      const welcome = await new Promise<string>((resolve, reject) => {
        socket.once('open', () =>
          socket.send(JSON.stringify({ do: 'hello', since: 0, last: null })),
        );
        socket.once('message', (text) => resolve(String(text)));
        socket.once('error', reject);
      });
      expect(JSON.parse(welcome).say).toBe('welcome');
      socket.terminate();

      const [door] = house.store.doors.all();
      if (door) house.store.doors.update({ ...door, settings: { sites: ['quillfern.example'] } });
      const page = encodeURIComponent(`${site}/ferns`);
      expect(await proxies.firstOf(`/door/${door?.publicId}/lamp?page=${page}`, site)).toMatch(
        /^data:/m,
      );

      const bytes = Buffer.alloc(9_000_000, 'a');
      const headers = {
        cookie,
        'content-type': 'application/octet-stream',
        'x-file-name': 'a.txt',
      };
      const file = await proxies.ask('PUT', '/api/files/file-000000001', { body: bytes, headers });
      expect([file.status, file.text.slice(0, 60)]).toEqual([200, expect.stringContaining('id')]);
    });

    it('everybody is counted by their own address, whatever they say it is', async () => {
      await open(hops);
      await setUp();
      const statuses: number[] = [];
      for (const claimed of ['203.0.113.1', '203.0.113.2, 198.51.100.7', '203.0.113.3']) {
        const headers = { 'x-forwarded-for': claimed };
        statuses.push((await proxies.ask('GET', '/feeds/unknown.ics', { headers })).status);
      }
      expect(statuses).toEqual([404, 404, 429]);
    });
  });

  it('the house says so where fewer proxies come than it was told of, and believes no claim', async () => {
    // All of this happens on one machine: the proxy says that it comes from the open internet.
    const change = (block: string): string =>
      block.replace('$proxy_add_x_forwarded_for', '"$http_x_forwarded_for, 9.9.9.9"');
    await open([{ program: 'nginx', change }], { trustProxy: 2 });
    await setUp();
    const statuses: number[] = [];
    for (const claimed of ['203.0.113.1', '203.0.113.2', '203.0.113.3']) {
      const headers = { 'x-forwarded-for': claimed };
      statuses.push((await proxies.ask('GET', '/feeds/unknown.ics', { headers })).status);
    }
    expect(statuses).toEqual([404, 404, 429]);
    expect(JSON.parse((await proxies.ask('GET', '/healthz')).text).set).toBe('TRUST_PROXY');
  });

  it('the house says so where nobody told it of any', async () => {
    await open([{ program: 'caddy' }], { publicOrigin: undefined, trustProxy: false });
    await proxies.ask('GET', '/healthz');
    expect(JSON.parse((await proxies.ask('GET', '/healthz')).text).set).toBe('TRUST_PROXY');
    expect(house.store.findings.all()).toMatchObject([{ kind: 'proxy-not-trusted' }]);
  });

  it('the owner writes also where the inner one of two says that it came without TLS', async () => {
    const hops: Hop[] = [{ program: 'nginx' }, { program: 'nginx' }];
    await open(hops, { publicOrigin: undefined });
    const { cookies } = await setUp();
    expect(cookies).toContain('Secure');
  });

  it('a file above the proxy’s own limit is refused by it in words of its own, for good', async () => {
    const change = (block: string): string => block.replace(/^ *client_max_body_size.*$/m, '');
    await open([{ program: 'nginx', change }]);
    const { cookie } = await setUp();
    const headers = { cookie, 'content-type': 'application/octet-stream', 'x-file-name': 'a.txt' };
    const body = Buffer.alloc(1_500_000, 'a');
    const refused = await proxies.ask('PUT', '/api/files/file-000000001', { body, headers });
    // What the panel and the app make of it: their lanes’ tests (413 that is not ours).
    expect([refused.status, refused.headers['content-type']]).toEqual([413, 'text/html']);
  });
});
