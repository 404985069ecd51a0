import { openHouse, owner, setUp } from '../../test-kit/house';
import { settingsProblem, toSettings } from '../settings';
import { openDatabase } from '../store/database';
import { hostInAddress } from './proxy';

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

describe('a variable that cannot be meant', () => {
  it.each([
    [{ port: 'many' as never }, 'PORT'],
    [{ publicOrigin: 'porch.example' }, 'PUBLIC_ORIGIN'],
    [{ trustProxy: 99 }, 'TRUST_PROXY'],
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
