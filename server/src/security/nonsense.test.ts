import { type House, openHouse, setUp, site } from '../../test-kit/house';
import { visitorToken } from '../../test-kit/panel';
import { bodyOf, byLink, type Route, routesOfTeam } from '../../test-kit/routes';

const nonsense: readonly unknown[] = [
  null,
  true,
  -1,
  1.5,
  Number.MAX_SAFE_INTEGER,
  '',
  ' ',
  'x'.repeat(5_000),
  '\u0000',
  '\ud800',
  "' OR 1=1 --",
  '__proto__',
  [],
  [null],
  {},
];

/** The body with one of its fields, at any depth, being nonsense; each field once with each nonsense. */
const spoilt = (body: unknown): unknown[] => {
  if (body === null || typeof body !== 'object') return [...nonsense];
  return Object.entries(body).flatMap(([key, value]) => {
    const others = Array.isArray(value)
      ? [...nonsense, ...(value.length > 0 ? spoilt(value[0]).map((one) => [one]) : [])]
      : spoilt(value);
    return [...others, undefined].map((other) => ({ ...body, [key]: other }));
  });
};

describe('nonsense at every route', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  // These end the session with which everything else is asked.
  const isAsked = ({ path, method }: Route): boolean =>
    method !== 'get' && !['/api/sign-out', '/api/me/leave'].includes(path);

  it('is refused or taken as it is, and never our fault', async () => {
    const { cookie, door } = await setUp(house);
    const routes = routesOfTeam(house).filter(isAsked);
    expect(routes.length).toBeGreaterThan(20);
    const hello = { do: 'hello', token: visitorToken('wren'), since: 0, site };
    const open = Object.entries({
      ...byLink,
      [`/door/${door.publicId}/letters`]: { says: [hello] },
    });
    const asked = [
      ...routes.map((route) => ({ ...route, understood: bodyOf(route) })),
      ...open.map(([path, understood]) => ({ path, method: 'post', understood })),
    ].flatMap(({ path, method, understood }) =>
      // The last is cut off in the middle.
      [...(understood ? spoilt(understood) : nonsense), undefined].map((body) => ({
        url: path.replace('{id}', door.id),
        method: method.toUpperCase() as 'POST',
        body: JSON.stringify(body) ?? '{"cut off',
      })),
    );
    expect(asked.length).toBeGreaterThan(900);
    const faults: unknown[] = [];
    const headers = { 'content-type': 'application/json' };
    for (const { url, method, body } of asked) {
      const { status } = await house.ask(method, url, { cookie, headers, body });
      if (status >= 500) faults.push({ url, method, body, status });
    }
    expect(faults).toEqual([]);
    expect((await house.ask('GET', '/api/house', { cookie })).body.me).not.toBeNull();
    // Thousands of requests: a machine that is busy with other things takes its time.
  }, 300_000);

  it('is refused in our own words where not even its address can be read', async () => {
    const house = await openHouse();
    for (const path of ['/in/%00%ff', '/api/%c3%28', '/%']) {
      const { status, body, headers } = await house.ask('GET', path);
      expect([path, status, body]).toEqual([path, 400, { code: 'bad-request' }]);
      expect(headers['x-content-type-options']).toBe('nosniff');
    }
    await house.close();
  });
});
