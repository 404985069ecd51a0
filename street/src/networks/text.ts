import { createHmac } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import { forBusiness, isBasic, pictureRoute } from './business';
import type { Network, Wire } from './network';

/** The gateway by which text messages come and go: forms both ways. `stopped`: who wants none any more. */
export const textWire = (origin: () => string, stopped: Set<string>): Wire => ({
  path: '/texts',
  title: 'Text messages',
  customers: [
    { id: '+447700900123', name: 'Rosa' },
    { id: '+447700900456', name: 'Emlyn' },
    { id: '+447700900789', name: 'Ines’s aunt' },
  ],
  greeting: () => null,
  hand: (happened, { word }, now) => {
    const form = new URLSearchParams();
    if (happened.what === 'said') {
      const { said } = happened;
      form.set('event', 'text');
      form.set('id', said.id);
      form.set('from', said.customer.id);
      form.set('text', said.odd ? `(${said.odd})` : said.text);
      form.set('at', String(Math.floor(said.at / 1_000)));
      form.set('nth', String(said.nth));
      form.set('media', said.pictures.map((name) => `${origin()}/texts/media/${name}`).join(' '));
      if (/^\s*stop\s*$/i.test(said.text)) stopped.add(said.customer.id);
      if (/^\s*start\s*$/i.test(said.text)) stopped.delete(said.customer.id);
    } else if (happened.what === 'state' && happened.said.state !== 'seen') {
      form.set('event', 'report');
      form.set('id', happened.said.id);
      form.set('status', happened.said.state);
    } else return null;
    const body = form.toString();
    const seconds = Math.floor(now / 1_000);
    const mark = createHmac('sha256', word).update(`${seconds}.${body}`).digest('hex');
    return {
      body,
      headers: {
        'content-type': 'application/x-www-form-urlencoded',
        'gateway-signature': `t=${seconds},v1=${mark}`,
      },
    };
  },
});

export const textRoutes = (
  app: FastifyInstance,
  network: Network,
  stopped: ReadonlySet<string>,
): void => {
  const guarded = forBusiness(network, (request) => {
    const { account, key } = network.setup();
    return isBasic(request, account, key);
  });
  const form = { 'content-type': 'application/x-www-form-urlencoded' };
  app.get(
    '/texts/account',
    guarded(() => ({ headers: form, body: 'state=open' })),
  );
  app.post(
    '/texts/messages',
    guarded((request) => {
      const { to = '', text = '', reference = '' } = request.body as Record<string, string>;
      if (stopped.has(to) || network.fault() === 'window') {
        return { status: 422, headers: form, body: 'error=stopped' };
      }
      if (!/^\+[1-9]\d{6,14}$/.test(to)) {
        return { status: 422, headers: form, body: 'error=unknown' };
      }
      const { id } = network.take(reference, network.customer(to), text, []);
      return { headers: form, body: new URLSearchParams({ id }).toString() };
    }),
  );
  pictureRoute(app, '/texts/media/:name', guarded);
};
