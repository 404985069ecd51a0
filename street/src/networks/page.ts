import type { FastifyInstance } from 'fastify';
import { choice, escaped, streetPage } from '../page';
import { faultsInWords, toFault } from './faults';
import type { Network, Odd, Said } from './network';

const HTML = 'text/html; charset=utf-8';
/** As many pictures as nobody needs, all at once. */
const MANY = 20;

const statesInWords = {
  sent: 'sent',
  delivered: 'delivered',
  seen: 'seen',
  failed: 'not sent',
} as const;

const picturesOf = (network: Network, { pictures, by }: Said): string =>
  pictures
    .map((one) =>
      by === 'customer'
        ? `<img src="${network.wire.path}/shown/${encodeURIComponent(one)}" alt="A picture" width="72">`
        : `<a href="${escaped(one)}">A file from the business</a>`,
    )
    .join(' ');

const slipOf = (network: Network, said: Said): string => {
  const mine = said.by === 'customer';
  const at = `${network.wire.path}/said/${said.id}`;
  const words = said.isWithdrawn ? '<em>taken back</em>' : escaped(said.text || said.odd || '');
  const doings =
    mine && !said.isWithdrawn
      ? `<form method="post" action="${at}/change"><label>Change it to <input name="text" required></label> <button>Change</button></form>
<form method="post" action="${at}/withdraw"><button>Take back</button></form>`
      : '';
  return `<li><strong>${mine ? escaped(said.customer.name || said.customer.id) : 'The business'}</strong> · ${
    said.isChanged ? 'changed · ' : ''
  }${statesInWords[said.state]}<br>${words} ${picturesOf(network, said)}${doings}</li>`;
};

const rollOf = (network: Network, id: string): string =>
  network
    .talk(id)
    .map((said) => slipOf(network, said))
    .join('') || '<li>Nothing was said yet.</li>';

/** Draws what is new while the page is open, but for what somebody is typing in. */
const script = (path: string): string => `<script>
setInterval(async () => {
  if (document.activeElement && document.activeElement.closest('#roll')) return;
  const text = await (await fetch(${JSON.stringify(path)})).text();
  const roll = document.querySelector('#roll');
  if (roll.innerHTML !== text) roll.innerHTML = text;
}, 1500);
</script>`;

const phonePage = (network: Network, id: string, text: string): string => {
  const { path, title } = network.wire;
  const { name } = network.customer(id);
  const here = `${path}/phone/${encodeURIComponent(id)}`;
  const button = (value: string, label: string) =>
    `<button name="what" value="${value}">${label}</button>`;
  return streetPage(
    `${name || id} on ${title}`,
    `<p><a href="${path}">All of ${escaped(title)}</a></p>
<ul class="mails" id="roll" aria-live="polite">${rollOf(network, id)}</ul>
<form method="post" action="${here}"><label>Write to the business<textarea name="text">${escaped(text)}</textarea></label><br>
${button('say', 'Send')} ${button('typing', 'Type only')}
<h2>Something else</h2>
${button('picture', 'A picture')} ${button('pictures', `${MANY} pictures`)} ${button('place', 'A place')} ${button('card', 'A contact card')} ${button('sticker', 'A sticker')} ${button('unknown', 'A kind that nobody knows')}</form>${script(`${here}/roll`)}`,
  );
};

const networkPage = (network: Network): string => {
  const { path, title, customers } = network.wire;
  const { address, account, key, word } = network.setup();
  const field = (name: string, label: string, value: string) =>
    `<p><label>${label}<br><input name="${name}" value="${escaped(value)}" size="50" autocomplete="off"></label></p>`;
  return streetPage(
    title,
    `<p><a href="/networks">The street’s networks</a></p>
<h2>Phones of made-up customers</h2>
<ul>${customers
      .map(
        ({ id, name }) =>
          `<li><a href="${path}/phone/${encodeURIComponent(id)}">${escaped(name)}</a> (${escaped(id)})</li>`,
      )
      .join('')}</ul>
<form method="post" action="${path}/somebody"><label>Somebody else, called <input name="id" required></label> <button>Take their phone</button></form>
${network.wire.more?.() ?? ''}
<h2>What goes wrong</h2>
<form method="post" action="${path}/fault"><label>This network ${choice('fault', faultsInWords, network.fault())}</label> <button>Set</button></form>
<h2>For the business</h2>
<p>Its account here: <strong>${escaped(account)}</strong>, its key: <code>${escaped(key)}</code></p>
<form method="post" action="${path}/connect">${field('address', 'Address of its door', address)}${field('word', 'Word', word)}${field('account', 'Its account', account)}<button>Save</button></form>
<p>The last that its door answered: ${escaped(network.lastAnswer()) || 'nothing yet'}</p>`,
  );
};

type At = { Params: { id: string } };
const odds: readonly Odd[] = ['place', 'card', 'sticker', 'unknown'];

/** A network's own pages: its customers' phones, its switches, and where a business puts in its door. */
export const networkPages = (app: FastifyInstance, network: Network): void => {
  const { path, title } = network.wire;
  const phoneOf = (id: string): string => `${path}/phone/${encodeURIComponent(id)}`;
  app.get(path, async (_request, reply) => reply.type(HTML).send(networkPage(network)));
  app.get<At & { Querystring: { text?: string } }>(
    `${path}/phone/:id`,
    async ({ params: { id }, query }, reply) => {
      network.look(id);
      return reply.type(HTML).send(phonePage(network, id, query.text ?? ''));
    },
  );
  app.get<At>(`${path}/phone/:id/roll`, async ({ params: { id } }, reply) => {
    network.look(id);
    return reply.type(HTML).send(rollOf(network, id));
  });
  app.post<At & { Body: { text?: string; what?: string } }>(
    `${path}/phone/:id`,
    async ({ params: { id }, body }, reply) => {
      const customer = network.customer(id);
      const { text = '', what = 'say' } = body;
      const odd = odds.find((one) => one === what);
      const names = (count: number): string[] =>
        Array.from({ length: count }, (_, at) => `leaf-${Date.now() % 100_000}-${at}`);
      if (what === 'typing') network.type(customer);
      else if (odd) network.say(customer, { odd });
      else if (what === 'picture') network.say(customer, { text, pictures: names(1) });
      else if (what === 'pictures') network.say(customer, { text, pictures: names(MANY) });
      else if (text.trim()) network.say(customer, { text });
      return reply.redirect(phoneOf(id), 303);
    },
  );
  // Where a link to the business leads: in whose hands it is, the street does not know.
  app.get<{ Querystring: { text?: string } }>(`${path}/write`, async ({ query }, reply) => {
    const text = query.text ?? '';
    const phones = network.wire.customers
      .map(
        ({ id, name }) =>
          `<li><a href="${escaped(`${phoneOf(id)}?${new URLSearchParams({ text })}`)}">${escaped(name || id)}</a></li>`,
      )
      .join('');
    const page = `<p>Whose phone is it?</p><ul>${phones}</ul>`;
    return reply.type(HTML).send(streetPage(`Write by ${title}`, page));
  });
  app.post<{ Body: { id?: string } }>(`${path}/somebody`, async ({ body }, reply) =>
    reply.redirect(body.id?.trim() ? phoneOf(body.id.trim()) : path, 303),
  );
  app.post<At & { Body: { text?: string } }>(
    `${path}/said/:id/change`,
    async ({ params: { id }, body }, reply) => {
      network.change(id, body.text ?? '');
      return reply.redirect(phoneOf(network.byId(id)?.customer.id ?? ''), 303);
    },
  );
  app.post<At>(`${path}/said/:id/withdraw`, async ({ params: { id } }, reply) => {
    network.withdraw(id);
    return reply.redirect(phoneOf(network.byId(id)?.customer.id ?? ''), 303);
  });
  app.post<{ Body: { fault?: string } }>(`${path}/fault`, async ({ body }, reply) => {
    network.setFault(toFault(body.fault));
    return reply.redirect(path, 303);
  });
  app.post<{ Body: Record<string, string> }>(`${path}/connect`, async ({ body }, reply) => {
    const { address = '', word = '', account } = body;
    const known = network.setup();
    const wrong = await network.connect({ address, word, account: account ?? known.account });
    if (!wrong) return reply.redirect(path, 303);
    const back = `<p role="alert">${escaped(wrong)}</p><p><a href="${path}">Back to ${escaped(title)}</a></p>`;
    return reply.type(HTML).send(streetPage('Not connected', back));
  });
};
