import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openHouse, setUp } from '../../test-kit/house';

const given = { url: 'https://loft.example', number: '+44 7700 900101', key: 'a key' };

describe('doors to networks that are only on the simulated street', () => {
  it('are not offered to a real house, which is shown first what works for it', async () => {
    const house = await openHouse({ withStreet: false });
    const { cookie } = await setUp(house);
    const { body } = await house.ask('GET', '/api/network-doors', { cookie });
    expect(body.kinds.map(({ kind }: { kind: string }) => kind)).toEqual([
      'mail',
      'text',
      'phone',
      'xmpp',
      'bridge',
    ]);
    const typed = { kind: 'pigeonpost', name: 'Pigeonpost', given };
    const made = await house.ask('POST', '/api/network-doors', { cookie, body: typed });
    expect([made.status, made.body.code]).toEqual([400, 'choice-unknown']);
    await house.close();
  });

  it('are offered where the street is, after all others', async () => {
    const house = await openHouse({ withStreet: true });
    const { cookie } = await setUp(house);
    const { body } = await house.ask('GET', '/api/network-doors', { cookie });
    const made = body.kinds.filter(({ isOnStreet }: { isOnStreet: boolean }) => isOnStreet);
    expect(made.map(({ kind }: { kind: string }) => kind)).toEqual([
      'pigeonpost',
      'wavelet',
      'tintype',
      'townfinder',
    ]);
    expect(body.kinds.slice(-4)).toEqual(made);
    await house.close();
  });

  it('go on where they were opened while it was there', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'street-'));
    const before = await openHouse({ withStreet: true }, join(folder, 'porch.sqlite'));
    const { cookie } = await setUp(before);
    const typed = { kind: 'pigeonpost', name: 'Pigeonpost', given };
    const { body } = await before.ask('POST', '/api/network-doors', { cookie, body: typed });
    await before.close();
    const after = await openHouse({ withStreet: false }, join(folder, 'porch.sqlite'));
    expect(after.services.registry.at(body.id)).toMatchObject({ isCarried: true, isClosed: false });
    await after.close();
    rmSync(folder, { recursive: true });
  });
});
