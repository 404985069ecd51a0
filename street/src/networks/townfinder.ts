import { createHmac } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import { choice, escaped } from '../page';
import { forBusiness, isBearer } from './business';
import type { Network, Wire } from './network';

const HOUR_MS = 3_600_000;

interface Listing {
  chat: boolean;
  away_until: string | null;
  opening_hours: string;
}

/** What the listing shows of the business. */
const listing: Listing = { chat: true, away_until: null, opening_hours: '' };

const prove = (body: string, word: string) => ({
  body,
  headers: {
    'content-type': 'application/json',
    'townfinder-proof': createHmac('sha256', word).update(body).digest('hex'),
  },
});

/** A directory of businesses: a listing with a chat, an away switch and opening hours. */
export const townfinderWire: Wire = {
  path: '/townfinder',
  title: 'Townfinder',
  customers: [
    { id: 'tf-8841', name: 'Orla' },
    { id: 'tf-1203', name: 'Jem from the bakery' },
  ],
  greeting: () => null,
  hand: (happened, { word }) => {
    if (happened.what === 'listing') return prove(JSON.stringify({ kind: 'changed' }), word);
    if (happened.what !== 'said' || happened.said.odd) return null;
    const { id, customer, text, at } = happened.said;
    const event = { kind: 'chat', id, who: customer, text, at: new Date(at).toISOString() };
    return prove(JSON.stringify(event), word);
  },
  more: () => `<h2>The listing</h2>
<p>Chat is <strong>${listing.chat ? 'on' : 'off'}</strong>, ${
    listing.away_until
      ? `away until <strong>${escaped(listing.away_until)}</strong>`
      : 'somebody is there'
  }. Open: <strong>${escaped(listing.opening_hours) || 'not said'}</strong></p>
<form method="post" action="/townfinder/listing"><label>Change it here ${choice(
    'to',
    { on: 'Chat on', off: 'Chat off', hour: 'Away for an hour', tomorrow: 'Away until tomorrow' },
    'on',
  )}</label> <button>Change the listing</button></form>`,
};

export const townfinderRoutes = (
  app: FastifyInstance,
  network: Network,
  now: () => number,
): void => {
  const guarded = forBusiness(network, (request) => isBearer(request, network.setup().key));
  app.get(
    '/townfinder/listings/:id',
    guarded(() => ({ body: listing })),
  );
  app.post(
    '/townfinder/listings/:id',
    guarded((request) => {
      Object.assign(listing, request.body as Listing);
      return { body: listing };
    }),
  );
  app.post(
    '/townfinder/listings/:id/chat',
    guarded((request) => {
      const { ref, to, text } = request.body as { ref: string; to: string; text: string };
      if (network.fault() === 'window') return { status: 422, body: { error: 'window' } };
      return { body: { chat: network.take(ref, network.customer(to), text, []).id } };
    }),
  );
  app.post<{ Body: { to?: string } }>('/townfinder/listing', async ({ body }, reply) => {
    const tomorrow = new Date(now() + 24 * HOUR_MS);
    tomorrow.setUTCHours(9, 0, 0, 0);
    listing.chat = body.to !== 'off';
    listing.away_until =
      body.to === 'hour'
        ? new Date(now() + HOUR_MS).toISOString()
        : body.to === 'tomorrow'
          ? tomorrow.toISOString()
          : null;
    network.tellListing();
    return reply.redirect('/townfinder', 303);
  });
};
