import { Writable } from 'node:stream';
import { type House, openHouse, owner, setUp, site } from '../../test-kit/house';
import { visit, visitorToken } from '../../test-kit/panel';
import { fromEnvironment, toSettings } from '../settings';

describe('whose word on addresses is taken', () => {
  const addressBehind = async (trustProxy: number | string[] | false, forwarded: string) => {
    const house = await openHouse({ trustProxy });
    const counted = jest.spyOn(house.services.limits.links, 'take');
    await house.ask('POST', '/api/links/look', { headers: { 'x-forwarded-for': forwarded } });
    await house.close();
    return counted.mock.calls[0]?.[0];
  };

  it('is nobody’s where no proxy is named', async () => {
    expect(await addressBehind(false, '203.0.113.9')).toBe('127.0.0.1');
  });

  it('is that of so many proxies, never what the client itself put in front', async () => {
    expect(await addressBehind(1, '198.51.100.66, 203.0.113.9')).toBe('203.0.113.9');
    expect(await addressBehind(2, '198.51.100.66, 203.0.113.9, 10.0.0.2')).toBe('203.0.113.9');
  });

  it('is that of the proxies with these addresses', async () => {
    expect(
      await addressBehind(['127.0.0.1', '10.0.0.0/8'], '198.51.100.66, 203.0.113.9, 10.1.2.3'),
    ).toBe('203.0.113.9');
    expect(await addressBehind(['10.0.0.0/8'], '203.0.113.9')).toBe('127.0.0.1');
  });

  it('is read from the environment, and nonsense there starts nothing', () => {
    const trust = (TRUST_PROXY?: string) => toSettings(fromEnvironment({ TRUST_PROXY })).trustProxy;
    expect([trust(), trust('0'), trust('1'), trust('2')]).toEqual([false, false, 1, 2]);
    expect(trust('127.0.0.1, 10.0.0.0/8')).toEqual(['127.0.0.1', '10.0.0.0/8']);
    expect(() => trust('99')).toThrow();
  });

  it('keeps the limits of an address from being walked around', async () => {
    const house = await openHouse({ trustProxy: 1, limits: { linksAnHour: 3 } });
    await setUp(house);
    const look = (claimed: string) =>
      house.ask('POST', '/api/links/look', {
        body: { token: 'a-token-that-nobody-made' },
        headers: { 'x-forwarded-for': `${claimed}, 203.0.113.9` },
      });
    for (let index = 0; index < 3; index += 1) await look(`198.51.100.${index}`);
    expect((await look('198.51.100.99')).body.code).toBe('too-many');
    await house.close();
  });
});

describe('the first set-up', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse({ publicOrigin: 'https://porch.example' });
  });
  afterEach(() => house.close());

  const ours = { origin: 'https://porch.example', host: 'porch.example' };
  const post = (code: string, headers: object = ours) =>
    house.ask('POST', '/api/set-up', { body: { ...owner, code }, headers });

  it('takes nobody without the code that the server printed', async () => {
    expect((await post('')).body).toEqual({ code: 'code-wrong', field: 'code' });
    expect((await post('AAAA-AAAA')).body.code).toBe('code-wrong');
    expect(house.store.business.read()).toBeNull();
  });

  it('takes whoever has the code, however many others have guessed: behind a proxy all may have one address', async () => {
    const guessed = await Promise.all(Array.from({ length: 30 }, () => post('AAAA-AAAA')));
    expect(guessed.at(-1)?.body.code).toBe('too-many');
    expect((await post(house.services.firstCode.shown() ?? '')).status).toBe(200);
  });

  it('takes the code as people type it', async () => {
    const code = house.services.firstCode.shown() ?? '';
    expect(code).toMatch(/^[2-9A-HJKMNP-Z]{4}-[2-9A-HJKMNP-Z]{4}$/);
    expect((await post(` ${code.toLowerCase().replace('-', ' ')} `)).status).toBe(200);
    expect(house.services.firstCode.shown()).toBeNull();
  });

  it.each([
    ['another name of the machine', { origin: 'https://evil.example', host: 'evil.example' }],
    ['another origin', { origin: 'https://evil.example', host: 'porch.example' }],
    ['another scheme', { origin: 'http://porch.example', host: 'porch.example' }],
    ['another port', { origin: 'https://porch.example:8443', host: 'porch.example:8443' }],
    ['our origin under a foreign host', { origin: 'https://porch.example', host: 'evil.example' }],
  ])('is refused under %s', async (_what, headers) => {
    expect((await post(house.services.firstCode.shown() ?? '', headers)).body.code).toBe(
      'origin-not-ours',
    );
  });

  it('answers at once when there is nothing to set up, without any hashing', async () => {
    await post(house.services.firstCode.shown() ?? '');
    const hash = jest.spyOn(house.store.members, 'byEmail');
    const again = await post('AAAA-AAAA');
    expect(again.body.code).toBe('already-set-up');
    expect(hash).not.toHaveBeenCalled();
  });
});

describe('a page that is ours', () => {
  it('has our scheme as well as our host', async () => {
    const house = await openHouse();
    const { cookie } = await setUp(house);
    const put = (origin: string) =>
      house.ask('PUT', '/api/lamp', {
        cookie,
        body: { state: 'lit', until: null },
        headers: { origin },
      });
    expect((await put('https://porch.example')).body.code).toBe('origin-not-ours');
    expect((await put('http://porch.example:81')).body.code).toBe('origin-not-ours');
    expect((await put('http://porch.example')).status).toBe(200);
    await house.close();
  });
});

describe('what every answer carries', () => {
  const strictest =
    "default-src 'none'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";

  it('is the strictest policy, unless it says otherwise', async () => {
    const house = await openHouse();
    const { cookie, door } = await setUp(house);
    for (const [url, headers] of [
      ['/healthz', {}],
      ['/openapi.json', {}],
      ['/no/such/page', {}],
      ['/api/house', { cookie }],
      ['/api/line?group=waiting', { cookie }],
      ['/api/line?group=nonsense', { cookie }],
      ['/lamp.svg', {}],
      [`/door/${door.publicId}/configuration.js`, { origin: site }],
    ] as const) {
      const answer = await house.ask('GET', url, { headers });
      expect([url, answer.headers['content-security-policy']]).toEqual([url, strictest]);
    }
    await house.close();
  });

  it('keeps the app out of frames by whatever name it is asked for', async () => {
    const house = await openHouse();
    await setUp(house);
    for (const url of ['/', '/index.html', '/index.html?x', '/line']) {
      const answer = await house.ask('GET', url, { headers: { accept: 'text/html' } });
      expect([url, answer.headers['content-security-policy']]).toEqual([
        url,
        expect.stringMatching(/frame-ancestors 'none'$/),
      ]);
    }
    await house.close();
  });
});

describe('what is sent to a stranger', () => {
  it('leads the owner’s trial to a website of theirs, never to one that claimed to be', async () => {
    const house = await openHouse();
    const { door, cookie } = await setUp(house);
    const seen = (origin: string) =>
      house.ask('GET', `/door/${door.publicId}/configuration.js`, { headers: { origin } });
    await seen('https://www.quillfern.example');
    await house.tick();
    house.clock.advance(1_000);
    await seen('https://evil.example');
    await house.tick();
    const trial = async () =>
      (await house.ask('POST', `/api/doors/${door.id}/trial`, { cookie, body: {} })).body;
    expect((await trial()).url).toMatch(/^https:\/\/www\.quillfern\.example\/#/);
    const kept = house.store.doors.byId(door.id);
    if (kept) house.store.doors.update({ ...kept, settings: { sites: [] } });
    expect((await trial()).code).toBe('site-not-listed');
    await house.close();
  });

  it('is refused where a website is named that is not on the list, in a header as well', async () => {
    const house = await openHouse();
    const { door } = await setUp(house);
    await (await visit(house, door.publicId, 'wren')).say('Hello');
    const entries = (from: string) =>
      house.ask('GET', `/door/${door.publicId}/entries`, {
        headers: { authorization: `Bearer ${visitorToken('wren')}`, 'x-site': from },
      });
    expect((await entries('https://evil.example')).body.code).toBe('site-not-listed');
    expect((await entries(site)).status).toBe(200);
    await house.close();
  });
});

describe('the log', () => {
  it('holds no cookie, no token, no password and no message', async () => {
    const lines: string[] = [];
    const house = await openHouse({ logLevel: 'info' }, ':memory:', {
      logTo: new Writable({
        write: (chunk, _encoding, done) => {
          lines.push(String(chunk));
          done();
        },
      }),
    });
    const { cookie, door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('A very private message');
    house.app.log.info(
      { req: { headers: { cookie, authorization: visitorToken('wren') } } },
      'asked',
    );
    house.app.log.error(
      { message: { text: 'A very private message', password: owner.password } },
      'failed',
    );
    const log = lines.join('');
    expect(lines.length).toBeGreaterThan(0);
    expect(log).toContain('[Redacted]');
    for (const secret of [cookie, visitorToken('wren'), owner.password, 'A very private message']) {
      expect(log).not.toContain(secret);
    }
    await house.close();
  });
});
