// A bridge between Hello Porch and a counter: what is typed here arrives at the door, and answers are printed.
//   PORCH=<the door's address> KEY=<its key> PORT=4900 node docs/examples/bridge.mjs
// Type "wren: Do you have ferns?" and press Enter. It needs Node and nothing else.
import { createHmac, randomUUID, timingSafeEqual } from 'node:crypto';
import { createServer } from 'node:http';
import { createInterface } from 'node:readline';

const { PORCH, KEY = '', PORT = '4900' } = process.env;
const BODY_LARGEST = 1_000_000;
const MINUTES = 5 * 60;

const say = (text) => process.stdout.write(`${text}\n`);

const markOf = (id, seconds, body) =>
  `v1,${createHmac('sha256', Buffer.from(KEY.replace('whsec_', ''), 'base64'))
    .update(`${id}.${seconds}.${body}`)
    .digest('base64')}`;

const isSame = (one, other) =>
  one.length === other.length && timingSafeEqual(Buffer.from(one), Buffer.from(other));

/** Whether the door has sent this, and just now. While its key is changed there are two marks. */
const isProved = ({ headers }, body) => {
  const { 'webhook-id': id, 'webhook-timestamp': seconds, 'webhook-signature': marks } = headers;
  if (!id || !marks || Math.abs(Date.now() / 1_000 - Number(seconds)) > MINUTES) return false;
  return marks.split(' ').some((mark) => isSame(mark, markOf(id, seconds, body)));
};

/** Hands something over to the door, again until it is taken: the same id is the same thing. */
const hand = async (type, data, id = randomUUID()) => {
  const body = JSON.stringify({ type, timestamp: new Date().toISOString(), data });
  const seconds = Math.floor(Date.now() / 1_000);
  const headers = {
    'content-type': 'application/json',
    'webhook-id': id,
    'webhook-timestamp': String(seconds),
    'webhook-signature': markOf(id, seconds, body),
  };
  const answer = await fetch(PORCH, { method: 'POST', headers, body }).catch(() => null);
  if (answer?.ok) return;
  if (answer && answer.status < 500 && answer.status !== 429) {
    return say(`not taken: ${answer.status} ${await answer.text()}`);
  }
  setTimeout(() => hand(type, data, id), 2_000);
};

/** What this network can do. */
const can = {
  name: 'The counter',
  textLongest: 1_000,
  filesMost: 0,
  fileLargestBytes: 0,
  receipts: 'read',
};

/** By the door's id of a message, ours: it may come twice. */
const printed = new Map();

const print = ({ id, to, text }) => {
  const known = printed.get(id);
  if (known) return known;
  const mine = `counter-${printed.size + 1}`;
  printed.set(id, mine);
  say(`to ${to}: ${text}`);
  setTimeout(() => hand('receipt', { id: mine, step: 'read' }), 500);
  return mine;
};

createServer(async (request, response) => {
  let body = '';
  for await (const chunk of request) {
    body += chunk;
    if (body.length > BODY_LARGEST) return response.writeHead(413).end();
  }
  if (!isProved(request, body)) return response.writeHead(401).end();
  const { type, data } = JSON.parse(body);
  const answers = { capabilities: () => can, message: () => ({ id: print(data), step: 'sent' }) };
  // What a later door may ask is passed over.
  const answer = answers[type]?.() ?? {};
  response.writeHead(200, { 'content-type': 'application/json' }).end(JSON.stringify(answer));
}).listen(Number(PORT), () => say(`the bridge listens at port ${PORT}`));

createInterface({ input: process.stdin }).on('line', (line) => {
  const [, who, text] = /^\s*([^:]{1,60}):\s*(.+)$/.exec(line) ?? [];
  if (!text) return say('Type "wren: Do you have ferns?"');
  hand('message', { id: randomUUID(), from: { id: who, name: who }, text });
});
