import { createHmac, timingSafeEqual } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import type { FastifyInstance } from 'fastify';
import { choice, escaped, streetPage } from './page';

interface ShopOrder {
  number: string;
  email: string;
  phone: string;
  state: string;
  expected: string;
  link: string;
}

const faults = { none: 'All is well', silent: 'It does not answer', broken: 'It fails' } as const;
type Fault = keyof typeof faults;

const SILENT_MS = 20_000;
const TOLERANCE_SECONDS = 300;

const DAY_MS = 24 * 3_600_000;

const dayAfter = (now: number, days: number): string =>
  new Date(now + days * DAY_MS).toISOString().slice(0, 10);

/** What Quillfern's shop has sold of late, as it stands on a day. */
const ordersOn = (now: number): ShopOrder[] => [
  {
    number: 'QF-2001',
    email: 'wren@post.example',
    phone: '',
    state: 'Packed, waiting for the van',
    expected: dayAfter(now, 2),
    link: 'https://carrier.example/QF-2001',
  },
  {
    number: 'QF-2002',
    email: '',
    phone: '+447700900123',
    state: 'Sent',
    expected: dayAfter(now, 1),
    link: '',
  },
];

const keyOf = (number: string): string => number.toUpperCase().replace(/[^A-Z0-9]/g, '');

/** Whether a request is signed by whoever has the key (Standard Webhooks: id, time and body, HMAC-SHA256). */
const isSigned = (
  key: string,
  headers: Readonly<Record<string, string | string[] | undefined>>,
  body: string,
  nowSeconds: number,
): boolean => {
  const [id, time, marks] = ['id', 'timestamp', 'signature'].map((name) =>
    String(headers[`webhook-${name}`] ?? ''),
  ) as [string, string, string];
  if (Math.abs(nowSeconds - Number(time)) > TOLERANCE_SECONDS) return false;
  const secret = Buffer.from(key.replace('whsec_', ''), 'base64');
  const right = createHmac('sha256', secret).update(`${id}.${time}.${body}`).digest();
  return marks.split(' ').some((mark) => {
    const given = Buffer.from(mark.replace('v1,', ''), 'base64');
    return given.length === right.length && timingSafeEqual(given, right);
  });
};

/** The business's own shop, as far as it is asked where an order is. */
export const openShop = (app: FastifyInstance, now: () => number): void => {
  let key = '';
  let fault: Fault = 'none';

  // The body as it came: it is signed.
  app.register(async (shop) => {
    shop.removeAllContentTypeParsers();
    shop.addContentTypeParser('*', { parseAs: 'string' }, (_request, body, done) =>
      done(null, body),
    );
    shop.post('/shop/orders', async (request, reply) => {
      if (fault === 'silent') await wait(SILENT_MS);
      if (fault === 'broken') return reply.status(500).send('broken');
      const body = String(request.body);
      if (!isSigned(key, request.headers, body, now() / 1_000)) {
        return reply.status(401).send('who are you?');
      }
      const { number } = JSON.parse(body) as { number: string };
      const order = ordersOn(now()).find((one) => keyOf(one.number) === keyOf(number));
      return order ?? reply.status(404).send({ error: 'unknown' });
    });
  });

  app.get('/shop', async (_request, reply) =>
    reply.type('text/html; charset=utf-8').send(
      streetPage(
        'Quillfern’s shop',
        `<p>It is asked where an order is at <code>/shop/orders</code> here.</p>
<form method="post" action="/shop"><p><label>Key that the house shows <input name="key" size="50" value="${escaped(key)}"></label></p>
<p><label>What goes wrong ${choice('fault', faults, fault)}</label></p><button>Save</button></form>
<h2>Orders</h2><ul>${ordersOn(now())
          .map(
            ({ number, email, phone, state }) =>
              `<li><strong>${escaped(number)}</strong>, ${escaped(email || phone)}: ${escaped(state)}</li>`,
          )
          .join('')}</ul>`,
      ),
    ),
  );
  app.post<{ Body: { key?: string; fault?: string } }>('/shop', async ({ body }, reply) => {
    key = (body.key ?? '').trim();
    fault = body.fault !== undefined && body.fault in faults ? (body.fault as Fault) : 'none';
    return reply.redirect('/shop', 303);
  });
};
