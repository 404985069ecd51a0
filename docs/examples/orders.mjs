// A shop that answers where an order is, in one file and without a package. Run it with the key that the house shows:
//   ORDERS_KEY=whsec_… PORT=4910 node orders.mjs
import { createHmac, timingSafeEqual } from 'node:crypto';
import { createServer } from 'node:http';

const key = Buffer.from(process.env.ORDERS_KEY.replace('whsec_', ''), 'base64');

/** People write a number in their own way: capitals, spaces and dashes don't matter. */
const plain = (number) => number.toUpperCase().replace(/[^A-Z0-9]/g, '');

const orders = new Map(
  [{ number: 'QF-7', email: 'wren@post.example', state: 'Packed', expected: '2026-12-03' }].map(
    (order) => [plain(order.number), order],
  ),
);

const isFromTheHouse = (headers, body) => {
  const time = headers['webhook-timestamp'];
  if (!(Math.abs(Date.now() / 1000 - Number(time)) <= 300)) return false;
  const signed = `${headers['webhook-id']}.${time}.${body}`;
  const right = createHmac('sha256', key).update(signed).digest();
  return String(headers['webhook-signature'])
    .split(' ')
    .some((one) => {
      const given = Buffer.from(one.replace('v1,', ''), 'base64');
      return given.length === right.length && timingSafeEqual(given, right);
    });
};

createServer(async (request, response) => {
  let body = '';
  for await (const part of request) body += part;
  if (!isFromTheHouse(request.headers, body)) return response.writeHead(401).end();
  const order = orders.get(plain(JSON.parse(body).number));
  if (!order) return response.writeHead(404).end();
  response.writeHead(200, { 'content-type': 'application/json' }).end(JSON.stringify(order));
}).listen(process.env.PORT, () => process.stdout.write('ready\n'));
