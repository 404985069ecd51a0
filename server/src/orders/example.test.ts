import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { openHouse, setUp } from '../../test-kit/house';
import { freePort } from '../../test-kit/ports';

describe('the example of a shop that ships with the docs', () => {
  it('answers what it is asked, and nobody who has another key', async () => {
    const port = await freePort();
    const origin = `http://127.0.0.1:${port}`;
    const house = await openHouse({ networksNear: [origin] });
    // The example looks at its own clock.
    house.clock.advance(Date.now() - house.clock.now());
    const { cookie } = await setUp(house);
    const setShop = (key?: string) =>
      house.ask('PUT', '/api/orders/shop', { cookie, body: { url: `${origin}/orders`, key } });
    await setShop();
    const { key } = (await house.ask('GET', '/api/orders/shop/key', { cookie })).body;
    const shop = spawn('node', ['docs/examples/orders.mjs'], {
      env: { ...process.env, ORDERS_KEY: key, PORT: String(port) },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    await once(shop.stdout, 'data');
    const tried = async (number: string) =>
      (await house.ask('POST', '/api/orders/shop/try', { cookie, body: { number } })).body;
    expect((await tried('qf 7')).orders).toEqual([
      { number: 'QF-7', state: 'Packed', expectedOn: '2026-12-03', link: '' },
    ]);
    expect((await tried('QF-8')).orders).toEqual([]);
    await setShop('whsec_AAAA');
    expect((await tried('QF-7')).code).toBe('order-not-now');
    expect((await house.ask('GET', '/api/orders', { cookie })).body.shop.problem).toBe(
      'key-refused',
    );
    shop.kill();
    await once(shop, 'exit');
    await house.close();
  });
});
