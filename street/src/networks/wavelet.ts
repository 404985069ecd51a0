import { createHmac, randomUUID } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import { forBusiness, pictureRoute } from './business';
import type { Happened, Network, Wire } from './network';

/** What a page of the network has got, oldest first; asked for in pages. */
export type Feed = Item[];

interface Item extends Record<string, unknown> {
  id: string;
}

const PAGE_MOST = 50;

const itemOf = (happened: Happened, origin: string): Item | null => {
  if (happened.what === 'typing' || happened.what === 'listing') return null;
  const { said } = happened;
  const by = said.customer;
  if (happened.what === 'state') {
    const { state } = said;
    const at = new Date().toISOString();
    return { id: happened.id, kind: 'state', of: said.id, state, at };
  }
  if (happened.what === 'said') {
    const { id, text, odd } = said;
    const at = new Date(said.at).toISOString();
    if (odd) return { id, kind: odd, by, at };
    const pictures = said.pictures.map((name) => `${origin}/wavelet/media/${name}`);
    return { id, kind: 'message', by, text, pictures, at };
  }
  const at = new Date(happened.at).toISOString();
  const kind = happened.what === 'changed' ? 'rewritten' : 'removed';
  return { id: happened.id, kind, of: said.id, by, text: said.text, at };
};

/** Messages to a page of a social network: it nudges, and is asked for what is new. */
export const waveletWire = (origin: () => string, feed: Feed): Wire => ({
  path: '/wavelet',
  title: 'Wavelet',
  customers: [
    { id: 'marit.k', name: 'Marit K.' },
    { id: 'old-oak-cafe', name: 'Old Oak Café' },
  ],
  greeting: () => null,
  hand: (happened, { word, account }) => {
    const item = itemOf(happened, origin());
    if (!item) return null;
    // Nudged once more it is no other one.
    if (!feed.some(({ id }) => id === item.id)) feed.push(item);
    const body = JSON.stringify({ page: account, nudge: randomUUID() });
    const mark = createHmac('sha256', word).update(body).digest('base64');
    return { body, headers: { 'content-type': 'application/json', 'wavelet-proof': mark } };
  },
});

export const waveletRoutes = (app: FastifyInstance, network: Network, feed: Feed): void => {
  const guarded = forBusiness(
    network,
    (request) => request.headers['wavelet-key'] === network.setup().key,
  );
  app.get(
    '/wavelet/pages/:page',
    guarded(() => ({ body: { page: network.setup().account } })),
  );
  app.get(
    '/wavelet/pages/:page/feed',
    guarded((request) => {
      const { after = '', most = '50' } = request.query as Record<string, string>;
      const from = Number(after) || 0;
      const items = feed.slice(from, from + Math.min(PAGE_MOST, Number(most) || 1));
      const next = from + items.length;
      const order = network.fault() === 'out-of-order' ? [...items].reverse() : items;
      const sent = network.fault() === 'twice' ? [...order, ...order].slice(0, 100) : order;
      return { body: { items: sent, next: `${next}`, more: next < feed.length } };
    }),
  );
  app.post(
    '/wavelet/pages/:page/messages',
    guarded((request) => {
      const { nonce, to, text, picture } = request.body as {
        nonce: string;
        to: string;
        text: string;
        picture: { link: string } | null;
      };
      if (network.fault() === 'window') return { status: 422, body: { error: 'window' } };
      const said = network.take(nonce, network.customer(to), text, picture ? [picture.link] : []);
      return { body: { id: said.id } };
    }),
  );
  pictureRoute(app, '/wavelet/media/:name', guarded);
};
