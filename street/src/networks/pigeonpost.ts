import { createHmac } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import { forBusiness, isBearer, pictureRoute } from './business';
import type { Happened, Network, Odd, Said, Wire } from './network';

const odd: Record<Odd, object> = {
  place: { kind: 'place', latitude: 55.41, longitude: -1.9, called: 'The blue gate' },
  card: { kind: 'card', name: 'Aunt Fern', number: '+447700900321' },
  sticker: { kind: 'sticker', shows: 'a waving fern' },
  unknown: { kind: 'hologram', depth: 3 },
};

const letterOf = ({ id, customer, text, pictures, odd: other, at }: Said): object => {
  const letter = { id, from: customer.id, at };
  if (other) return { ...letter, ...odd[other] };
  if (pictures.length === 0) return { ...letter, kind: 'text', text };
  const media = pictures.map((name) => ({ id: name, name: `${name}.png` }));
  return { ...letter, kind: 'picture', media, text };
};

const bagOf = (happened: Happened): object => {
  if (happened.what === 'typing') return { typing: [happened.customer.id] };
  if (happened.what === 'listing') return {};
  const { said } = happened;
  const { id: number, name } = said.customer;
  const people = { [number]: name };
  switch (happened.what) {
    case 'said':
      return { people, letters: [letterOf(said)] };
    case 'changed': {
      const { id, at } = happened;
      return { letters: [{ id, from: number, at, kind: 'edit', of: said.id, text: said.text }] };
    }
    case 'withdrawn': {
      const { id, at } = happened;
      return { letters: [{ id, from: number, at, kind: 'recall', of: said.id }] };
    }
    case 'state':
      return { ticks: [{ letter: said.id, state: said.state }] };
  }
};

/** A messenger by phone number: bags of letters. */
export const pigeonpostWire: Wire = {
  path: '/pigeonpost',
  title: 'Pigeonpost',
  customers: [
    { id: '+447700900222', name: 'Isolde' },
    { id: '+447700900333', name: 'Bram' },
    { id: '+447700900123', name: 'Rosa' },
  ],
  greeting: ({ address, word }) => {
    const challenge = `coo-${word.length}-${address.length}`;
    const mark = createHmac('sha256', word).update(challenge).digest('hex');
    const query = new URLSearchParams({ challenge, seal: `sha256=${mark}` });
    return { url: `${address}?${query}`, expects: challenge };
  },
  hand: (happened, { word }) => {
    const body = JSON.stringify(bagOf(happened));
    const mark = createHmac('sha256', word).update(body).digest('hex');
    return {
      body,
      headers: { 'content-type': 'application/json', 'pigeonpost-seal': `sha256=${mark}` },
    };
  },
};

export const pigeonpostRoutes = (app: FastifyInstance, network: Network): void => {
  const guarded = forBusiness(network, (request) => isBearer(request, network.setup().key));
  app.get(
    '/pigeonpost/me',
    guarded(() => ({ body: { number: network.setup().account } })),
  );
  app.post(
    '/pigeonpost/letters',
    guarded((request) => {
      const { ref, to, text, file } = request.body as {
        ref: string;
        to: string;
        text: string;
        file: { link: string } | null;
      };
      if (network.fault() === 'window') return { status: 422, body: { error: 'window' } };
      const said = network.take(ref, network.customer(to), text, file ? [file.link] : []);
      return { body: { letter: said.id } };
    }),
  );
  pictureRoute(app, '/pigeonpost/media/:name', guarded);
};
