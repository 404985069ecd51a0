import { type House, openHouse, setUp } from '../../test-kit/house';
import { bodyOf, type Route, routesOfTeam } from '../../test-kit/routes';

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
    const others = Array.isArray(value) ? [...nonsense] : spoilt(value);
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
    const routes = (await routesOfTeam(house)).filter(isAsked);
    expect(routes.length).toBeGreaterThan(20);
    const faults: unknown[] = [];
    let asked = 0;
    for (const route of routes) {
      const url = route.path.replace('{id}', door.id);
      const bodies = bodyOf(route) ? spoilt(bodyOf(route)) : nonsense;
      for (const body of bodies) {
        const { status } = await house.ask(route.method.toUpperCase() as 'POST', url, {
          cookie,
          body: JSON.stringify(body) ?? '{"cut off',
          headers: { 'content-type': 'application/json' },
        });
        asked += 1;
        if (status >= 500) faults.push({ route, body, status });
      }
    }
    expect(asked).toBeGreaterThan(500);
    expect(faults).toEqual([]);
    expect((await house.ask('GET', '/api/house', { cookie })).body.me).not.toBeNull();
  });
});
