import { createDelivery } from './deliver';
import type { PanelParcel } from './parcels';

const blob = { size: 2_500_000 } as Blob;

const parcel = (): PanelParcel =>
  ({
    id: 'message-with-file',
    lane: 'say',
    madeAt: 1,
    state: 'sending',
    tries: 0,
    notBefore: 0,
    reason: null,
    load: {
      do: 'say',
      text: 'Look',
      page: null,
      files: [{ id: 'file-0000001', name: 'leaf.png', blob }],
    },
  }) as unknown as PanelParcel;

const delivery = () =>
  createDelivery({
    door: 'door-0000001',
    token: 'token',
    site: '',
    consent: null,
    device: 'device-000001',
    send: () => true,
  });

/** What stands between the panel and the house answers instead of the house. */
const between = (status: number, body: string): void => {
  const answered = { ok: false, status, json: async () => JSON.parse(body) };
  globalThis.fetch = (async () => answered) as unknown as typeof fetch;
};

const page = '<html><body><h1>nginx</h1></body></html>';

describe('a file on its way', () => {
  it.each([
    [413, { code: 'too-large', limit: blob.size - 1 }],
    [403, { code: 'our-fault' }],
  ])('is refused for good where a proxy answers %d in its own words', async (status, refusal) => {
    between(status, page);
    expect(await delivery().deliver(parcel())).toEqual(refusal);
  });

  it.each([502, 503, 504, 429])(
    'waits where a proxy answers %d: the house may be back',
    async (status) => {
      between(status, page);
      expect(await delivery().deliver(parcel())).toMatch(/^(not-now|held-up)$/);
    },
  );

  it('is refused as the house says where it is the house that answers', async () => {
    between(413, JSON.stringify({ code: 'too-large', limit: 10 }));
    expect(await delivery().deliver(parcel())).toEqual({ code: 'too-large', limit: 10 });
  });
});
