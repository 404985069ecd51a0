import type { DeedParcel } from './parcels';

const mockKept = new Map<string, DeedParcel>();
jest.mock('@porch/client/shelf', () => ({
  createShelf: () => ({
    all: async () => [...mockKept.values()].sort((a, b) => a.madeAt - b.madeAt),
    remove: async (id: string) => {
      mockKept.delete(id);
    },
    put: async (parcel: DeedParcel) => {
      mockKept.set(parcel.id, parcel);
    },
  }),
}));

const { sendUnsent } = require('./parcels') as typeof import('./parcels');

const parcel = (
  id: string,
  lane: string,
  madeAt: number,
  load: object = { do: 'say', text: id },
): DeedParcel =>
  ({
    id,
    lane,
    madeAt,
    load: { files: [], ...load },
    state: 'waiting',
    tries: 0,
    notBefore: 0,
    reason: null,
  }) as never;

describe('what waits on this device, sent without the app', () => {
  let answers: Record<string, number>;
  let sent: string[];
  beforeEach(() => {
    mockKept.clear();
    sent = [];
    answers = {};
    globalThis.fetch = jest.fn(async (_path: string, init: { body: string }) => {
      const { id } = JSON.parse(init.body);
      sent.push(id);
      const status = answers[id] ?? 200;
      if (status === 0) throw new Error('no signal');
      return new Response('{"code":"id-taken","entries":[],"row":{}}', { status });
    }) as never;
    for (const one of [parcel('b', 'wren', 2), parcel('a', 'wren', 1), parcel('c', 'robin', 3)]) {
      mockKept.set(one.id, one);
    }
  });

  it('goes in its order, and is gone from the device once the server has it', async () => {
    await sendUnsent();
    expect(sent).toEqual(['a', 'b', 'c']);
    expect([...mockKept.keys()]).toEqual([]);
  });

  it('is said without what only this device shows of it', async () => {
    mockKept.clear();
    const shown = [{ id: 'fern', name: 'Fern' }];
    mockKept.set('a', parcel('a', 'wren', 1, { do: 'say', text: 'a', shelf: ['fern'], shown }));
    await sendUnsent();
    const [, { body }] = (globalThis.fetch as jest.Mock).mock.calls[0];
    expect(JSON.parse(body)).toEqual({ id: 'a', do: 'say', text: 'a', shelf: ['fern'] });
  });

  it('stays whole where there is no signal, and says so to whoever woke us', async () => {
    answers.a = 0;
    await expect(sendUnsent()).rejects.toThrow('no signal');
    expect(sent).toEqual(['a']);
    expect([...mockKept.keys()].sort()).toEqual(['a', 'b', 'c']);
  });

  it('keeps what was refused for the app to show, and nothing of that conversation goes past it', async () => {
    answers.a = 409;
    await sendUnsent();
    expect(sent).toEqual(['a', 'c']);
    expect([...mockKept.keys()].sort()).toEqual(['a', 'b']);
  });
});
