import { createHmac, randomUUID } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import { forBusiness, isBasic, isBearer, pictureRoute } from './business';
import type { Happened, Network, Wire } from './network';

/** A token is good so long, in seconds: short, so that it is seen to expire. */
const TOKEN_S = 90;

const eventOf = (happened: Happened, origin: string): object | null => {
  if (['typing', 'changed', 'listing'].includes(happened.what) || !('said' in happened))
    return null;
  const { said } = happened;
  const who = { ...said.customer, handle: said.customer.id };
  if (happened.what === 'state') {
    const how = said.state === 'seen' ? 'opened' : said.state;
    return { type: 'reached', of: said.id, how };
  }
  if (happened.what === 'withdrawn') {
    const at = new Date(happened.at).toISOString();
    return { type: 'unsent', id: happened.id, of: said.id, who, at };
  }
  const at = new Date(said.at).toISOString();
  if (said.odd) return { type: said.odd, id: said.id, who, at };
  const pictures = said.pictures.map((name) => `${origin}/tintype/media/${name}`);
  return { type: 'direct', id: said.id, who, text: said.text, pictures, at };
};

/** Direct messages on a picture network: events, and tokens that expire. */
export const tintypeWire = (origin: () => string): Wire => ({
  path: '/tintype',
  title: 'Tintype',
  customers: [
    { id: 'leaf.by.leaf', name: 'Leaf by leaf' },
    { id: 'hanne_makes', name: 'Hanne' },
  ],
  greeting: () => null,
  hand: (happened, { word }, now) => {
    const event = eventOf(happened, origin());
    if (!event) return null;
    const body = JSON.stringify({ events: [event] });
    const time = new Date(now).toISOString();
    const mark = createHmac('sha512', word).update(`${time}\n${body}`).digest('base64');
    return {
      body,
      headers: { 'content-type': 'application/json', 'tintype-time': time, 'tintype-mark': mark },
    };
  },
});

export const tintypeRoutes = (app: FastifyInstance, network: Network, now: () => number): void => {
  let token = '';
  let until = 0;
  const byKey = forBusiness(network, (request) => {
    const { account, key } = network.setup();
    return isBasic(request, account, key);
  });
  const guarded = forBusiness(
    network,
    (request) => token !== '' && now() < until && isBearer(request, token),
  );
  app.post(
    '/tintype/token',
    byKey(() => {
      token = randomUUID();
      until = now() + TOKEN_S * 1_000;
      return { body: { access_token: token, token_type: 'Bearer', expires_in: TOKEN_S } };
    }),
  );
  app.get(
    '/tintype/me',
    guarded(() => ({ body: { account: network.setup().account } })),
  );
  app.post(
    '/tintype/directs',
    guarded((request) => {
      const { once, to, text, picture } = request.body as {
        once: string;
        to: string;
        text: string;
        picture: { link: string } | null;
      };
      if (network.fault() === 'window') return { status: 422, body: { error: 'window' } };
      const said = network.take(once, network.customer(to), text, picture ? [picture.link] : []);
      return { body: { direct: said.id } };
    }),
  );
  pictureRoute(app, '/tintype/media/:name', guarded);
};
