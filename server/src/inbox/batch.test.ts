import { type House, openHouse, setUp } from '../../test-kit/house';
import { clientId, openDevice, visit } from '../../test-kit/panel';
import { tickOnce } from '../ticking';

describe('what was written', () => {
  let house: House;
  beforeEach(async () => {
    house = await openHouse();
  });
  afterEach(() => house.close());

  it('is acknowledged though a listener fails, and the other listeners hear of it', async () => {
    const { door, cookie } = await setUp(house);
    const failed: unknown[] = [];
    house.services.onReport((error) => failed.push(error));
    const panel = await visit(house, door.publicId, 'wren');
    house.services.hub.addDevice({
      memberId: 'nobody',
      sessionHash: 'nobody',
      isListening: true,
      sees: null,
      isInSight: false,
      send: () => {
        throw new Error('this device fails');
      },
      close: () => {},
    });
    const device = await openDevice(house, cookie);
    const id = await panel.say('Hello');
    await device.hear('entries', ({ entries }) => entries.some((entry) => entry.id === id));
    expect(failed).toEqual([expect.objectContaining({ message: 'this device fails' })]);
  });
});

describe('what happens as time passes', () => {
  it('happens though something before it fails, and the failure is reported', async () => {
    const house = await openHouse();
    const { door, member } = await setUp(house);
    const failed: unknown[] = [];
    house.services.onReport((error) => failed.push(error));
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Hello');
    const [conversation] = house.store.conversations.page('waiting', null, 1);
    house.store.atOnce(() => {
      if (!conversation) return;
      const happening = { kind: 'put-by' as const, memberId: member.id, until: house.clock.now() };
      house.services.record.add(conversation, null, [{ id: clientId(), happening }]);
    });
    await tickOnce({
      ...house.services,
      lamp: {
        ...house.services.lamp,
        tick: () => {
          throw new Error('the lamp fails');
        },
      },
    });
    expect(failed).toEqual([expect.objectContaining({ message: 'the lamp fails' })]);
    expect(house.store.conversations.counts()['put-by']).toBe(0);
    await house.close();
  });
});

describe('stopping', () => {
  it('waits for nobody who does not answer: within two seconds all are gone', async () => {
    const house = await openHouse();
    const { door } = await setUp(house);
    await house.app.listen({ port: 0, host: '127.0.0.1' });
    const { port } = house.app.server.address() as { port: number };
    const { connect } = await import('node:net');
    const silent = connect(port, '127.0.0.1');
    silent.on('error', () => {});
    silent.write(
      `GET /door/${door.publicId}/live HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nOrigin: http://127.0.0.1:${port}\r\nConnection: Upgrade\r\nUpgrade: websocket\r\nSec-WebSocket-Version: 13\r\nSec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\n\r\n`,
    );
    await new Promise((resolve) => silent.once('data', resolve));
    // It reads nothing any more, and so answers no farewell.
    silent.pause();
    const gone = new Promise((resolve) => silent.once('close', resolve));
    const began = performance.now();
    await house.app.close();
    // Half a minute is what is waited for a farewell otherwise; a machine four times as slow takes eight seconds.
    expect(performance.now() - began).toBeLessThan(12_000);
    silent.resume();
    await gone;
    house.store.close();
  });
});
