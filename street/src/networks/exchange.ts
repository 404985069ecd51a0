import { createHmac } from 'node:crypto';
import type { FastifyInstance } from 'fastify';
import { escaped } from '../page';
import { forBusiness, isBearer } from './business';
import type { Network, Wire } from './network';

const RATE = 8_000;

/** Two seconds of a hum, as somebody who speaks would be heard: RIFF, WAVE, PCM. */
const hum = (): Buffer => {
  const samples = Buffer.from(
    Array.from({ length: RATE * 2 }, (_none, at) => 128 + Math.round(40 * Math.sin(at / 9))),
  );
  const head = Buffer.alloc(44);
  head.write('RIFF', 0);
  head.writeUInt32LE(36 + samples.length, 4);
  head.write('WAVEfmt ', 8);
  head.writeUInt32LE(16, 16);
  head.writeUInt16LE(1, 20);
  head.writeUInt16LE(1, 22);
  head.writeUInt32LE(RATE, 24);
  head.writeUInt32LE(RATE, 28);
  head.writeUInt16LE(1, 32);
  head.writeUInt16LE(8, 34);
  head.write('data', 36);
  head.writeUInt32LE(samples.length, 40);
  return Buffer.concat([head, samples]);
};

const prove = (body: string, word: string, now: number) => {
  const seconds = Math.floor(now / 1_000);
  const mark = createHmac('sha256', word).update(`${seconds}.${body}`).digest('hex');
  return {
    body,
    headers: { 'content-type': 'application/json', 'exchange-proof': `${seconds}.${mark}` },
  };
};

/** What the door said last that callers are to hear. */
export interface LastCall {
  heard: string;
}

/** A telephone exchange: it asks what is to be done with a call, and hands over what came of it. */
export const exchangeWire = (origin: () => string, last: LastCall): Wire => ({
  path: '/exchange',
  title: 'Telephone exchange',
  customers: [
    { id: '+447700900123', name: 'Rosa' },
    { id: '+442079460777', name: 'The garden club' },
  ],
  greeting: () => null,
  hand: (happened, { word }, now) => {
    if (happened.what !== 'said') return null;
    const { id, customer, text, at } = happened.said;
    const spoken = {
      event: 'spoken',
      seconds: 2,
      recording: `${origin()}/exchange/recordings/${id}`,
      text,
    };
    const what = text ? spoken : { event: 'missed' };
    return prove(JSON.stringify({ call: id, from: customer.id, at, ...what }), word, now);
  },
  more: () => `<h2>Call the business</h2>
<form method="post" action="/exchange/call"><label>From <input name="from" value="+447700900123"></label><br>
<label>Speak after the tone (empty: hang up) <input name="text" size="40"></label> <button>Call</button></form>
<p>What the caller heard: ${escaped(last.heard) || 'nobody has called yet'}</p>`,
});

export const exchangeRoutes = (
  app: FastifyInstance,
  network: Network,
  now: () => number,
  last: LastCall,
): void => {
  const guarded = forBusiness(network, (request) => isBearer(request, network.setup().key));
  app.get(
    '/exchange/line',
    guarded(() => ({ body: { number: network.setup().account } })),
  );
  app.get(
    '/exchange/recordings/:id',
    guarded(() => ({ headers: { 'content-type': 'audio/wav' }, body: hum() })),
  );
  app.post<{ Body: { from?: string; text?: string } }>(
    '/exchange/call',
    async ({ body }, reply) => {
      const { from = '', text = '' } = body;
      const { address, word } = network.setup();
      const asked = JSON.stringify({ call: `call-${now()}`, from, at: now(), event: 'calls' });
      const answer = await fetch(address, { method: 'POST', ...prove(asked, word, now()) }).catch(
        () => null,
      );
      const plan = answer?.ok
        ? ((await answer.json()) as { ring: string[]; order: string; say: string })
        : { ring: [], order: 'all', say: '(the door did not answer)' };
      const rang =
        plan.ring.length > 0 ? `it rang at ${plan.ring.join(', ')} (${plan.order}); ` : '';
      last.heard = `${rang}then: “${plan.say}”, and the tone`;
      network.say(network.customer(from), { text });
      return reply.redirect('/exchange', 303);
    },
  );
};
