import type { FastifyInstance } from 'fastify';
import { choice, escaped, streetPage } from '../page';
import { createBusyMorning } from './busy-morning';
import { exchangeRoutes, exchangeWire } from './exchange';
import { createNetwork, type Network, type Setup } from './network';
import { networkPages } from './page';
import { pictureOf } from './picture';
import { pigeonpostRoutes, pigeonpostWire } from './pigeonpost';
import { textRoutes, textWire } from './text';
import { tintypeRoutes, tintypeWire } from './tintype';
import { newListed, townfinderRoutes, townfinderWire } from './townfinder';
import { type Feed, waveletRoutes, waveletWire } from './wavelet';

/** How each network knows the business at first: its account and its key. */
export type Setups = Readonly<Record<string, Partial<Setup>>>;

/** All the networks of the street, each with its own wire and its own pages. */
export const openNetworks = (
  app: FastifyInstance,
  { origin, now, setups }: { origin: () => string; now: () => number; setups: Setups },
): { networks: readonly Network[]; close: () => void } => {
  const open = (wire: Parameters<typeof createNetwork>[0]): Network => {
    const network = createNetwork(wire, now);
    void network.connect(setups[wire.path.slice(1)] ?? {});
    networkPages(app, network);
    app.get<{ Params: { name: string } }>(`${wire.path}/shown/:name`, async (request, reply) =>
      reply.type('image/png').send(pictureOf(request.params.name)),
    );
    return network;
  };
  const stopped = new Set<string>();
  const texts = open(textWire(origin, stopped));
  textRoutes(app, texts, stopped);
  const pigeonpost = open(pigeonpostWire);
  pigeonpostRoutes(app, pigeonpost);
  const feed: Feed = [];
  const wavelet = open(waveletWire(origin, feed));
  waveletRoutes(app, wavelet, feed);
  const tintype = open(tintypeWire(origin));
  tintypeRoutes(app, tintype, now);
  const listed = newListed();
  const townfinder = open(townfinderWire(listed));
  townfinderRoutes(app, townfinder, now, listed);
  const last = { heard: '' };
  const exchange = open(exchangeWire(origin, last));
  exchangeRoutes(app, exchange, now, last);
  // By the phone nobody writes: it is no part of a busy morning.
  const networks = [pigeonpost, wavelet, tintype, townfinder, texts];
  const morning = createBusyMorning(networks);
  app.post<{ Body: { speed?: string } }>('/networks/busy-morning', async ({ body }, reply) => {
    morning.play(Math.min(600, Math.max(1, Number(body.speed) || 1)));
    return reply.redirect('/networks', 303);
  });
  app.get('/networks', async (_request, reply) =>
    reply.type('text/html; charset=utf-8').send(
      streetPage(
        'The street’s networks',
        `<p><a href="/exchange">The telephone exchange</a></p><p>Made-up networks by which made-up people write to the business, each with switches for what may go wrong.</p><ul>${networks
          .map(({ wire }) => `<li><a href="${wire.path}">${escaped(wire.title)}</a></li>`)
          .join('')}</ul>
<h2>A busy morning</h2>
<p>Forty people write by all of them, three times each.</p>
<form method="post" action="/networks/busy-morning"><label>How fast ${choice(
          'speed',
          { '1': 'As it would be', '10': 'Ten times as fast', '60': 'In a few seconds' },
          '10',
        )}</label> <button>Let it begin</button></form>`,
      ),
    ),
  );
  return {
    networks,
    close: () => {
      morning.stop();
      exchange.close();
      for (const network of networks) network.close();
    },
  };
};
