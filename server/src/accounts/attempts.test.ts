import { type House, openHouse, owner, setUp } from '../../test-kit/house';
import { addressKey } from '../security/addresses';
import { SLOWED_MS } from './attempts';

describe('wrong passwords', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse({ trustProxy: 1 });
    await setUp(house);
  });
  afterEach(() => house.close());

  /** From behind our own proxy, which says from where it came. */
  const signIn = (
    password: string,
    { from = '203.0.113.1', email = owner.email, cookie = '' } = {},
  ) =>
    house.ask('POST', '/api/sign-in', {
      cookie,
      body: { email, password },
      headers: { 'x-forwarded-for': from },
    });
  const stranger = '198.51.100.7';
  const lockedOut = async (from: string) => {
    for (let count = 0; count < 40; count += 1) {
      const { body } = await signIn('wrong', { from });
      if (body.code === 'sign-in-locked') return;
      house.clock.advance(body.waitMs ?? 0);
    }
    throw new Error('was never locked');
  };

  it('keep out whoever gave them, at the address from which they came, and nobody else', async () => {
    await lockedOut(stranger);
    expect((await signIn(owner.password, { from: stranger })).body.code).toBe('sign-in-locked');
    expect((await signIn(owner.password)).status).toBe(200);
  });

  it('one in every quarter of an hour, for days, keep nobody out', async () => {
    for (let count = 0; count < 60; count += 1) {
      await signIn('wrong', { from: stranger });
      house.clock.advance(15 * 60_000);
    }
    expect((await signIn(owner.password)).status).toBe(200);
  });

  it('do not keep out a device that has signed in before, even from the same address', async () => {
    const first = await signIn(owner.password, { from: stranger });
    const cookie = ([] as string[])
      .concat(first.headers['set-cookie'] as string[])
      .map((one) => one.split(';')[0])
      .join('; ');
    expect(cookie).toContain('porch-device=');
    await lockedOut(stranger);
    expect((await signIn(owner.password, { from: stranger, cookie })).status).toBe(200);
  });

  it('are counted for a known device as well', async () => {
    const first = await signIn(owner.password);
    const cookie = ([] as string[])
      .concat(first.headers['set-cookie'] as string[])
      .map((one) => one.split(';')[0])
      .join('; ');
    const codes: string[] = [];
    for (let count = 0; count < 12; count += 1) {
      codes.push((await signIn('wrong', { cookie })).body.code);
    }
    expect(codes).toContain('too-many');
  });

  it('are forgiven once the right one comes', async () => {
    for (let count = 0; count < 2; count += 1) await signIn('wrong');
    expect((await signIn(owner.password)).status).toBe(200);
    const again = [await signIn('wrong'), await signIn('wrong'), await signIn('wrong')];
    expect(again.map(({ body }) => body.code)).toEqual(Array(3).fill('sign-in-wrong'));
  });

  it('from many addresses at one account are slowed down, and the right one is not refused', async () => {
    for (let index = 0; index < 10; index += 1) {
      expect((await signIn('wrong', { from: `198.51.100.${index}` })).status).toBe(401);
    }
    let isAnswered = false;
    const coming = signIn(owner.password).finally(() => {
      isAnswered = true;
    });
    while (house.clock.waiting() === 0) await new Promise((resolve) => setImmediate(resolve));
    expect(isAnswered).toBe(false);
    house.clock.advance(SLOWED_MS);
    expect((await coming).status).toBe(200);
  });

  it('at many accounts from one address are held up, whoever they are for', async () => {
    const codes = new Set<string>();
    for (let index = 0; index < 30; index += 1) {
      codes.add((await signIn('wrong', { email: `nobody${index}@quillfern.example` })).body.code);
    }
    expect(codes).toEqual(new Set(['sign-in-wrong', 'too-many']));
  });

  it('are told to whom they were meant for, until that is seen', async () => {
    const warning = async (cookie: string) =>
      (await house.ask('GET', '/api/house', { cookie })).body.warning;
    const cookie = String((await signIn(owner.password)).headers['set-cookie']).split(';')[0] ?? '';
    for (let index = 0; index < 4; index += 1)
      await signIn('wrong', { from: `198.51.100.${index}` });
    expect(await warning(cookie)).toBeNull();
    await signIn('wrong', { from: '198.51.100.9' });
    expect(await warning(cookie)).toEqual({ failures: 5, lastAt: house.clock.now() });
    await house.ask('DELETE', '/api/me/warning', { cookie });
    expect(await warning(cookie)).toBeNull();
  });
});

describe('an address, as it is counted', () => {
  it.each([
    ['203.0.113.9', '203.0.113.9'],
    ['::ffff:203.0.113.9', '203.0.113.9'],
    ['2001:db8:1:2:3:4:5:6', '2001:db8:1:2::/64'],
    ['2001:db8:1:2::9', '2001:db8:1:2::/64'],
    ['2001:0DB8:0001:0002::', '2001:db8:1:2::/64'],
    ['::1', '0:0:0:0::/64'],
    ['not an address', 'not an address'],
  ])('%s is %s (RFC 6177: a customer is given at least a /64)', (address, key) =>
    expect(addressKey(address)).toBe(key),
  );
});
