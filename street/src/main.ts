import Fastify from 'fastify';
import { mailPages } from './mail/page';
import { createPostOffice } from './mail/post-office';
import { openNetworks } from './networks';
import { letPassersBy } from './passers-by';
import { pushPage } from './push/page';
import { createPushService, pushRoutes } from './push/service';
import { openShop } from './shop';
import { kindsOfPages } from './site/kinds';
import { renderPage, sitePages } from './site/page';

/** The time; with CLOCK=by-hand that which the process says that started this one. */
const clockOf = (): (() => number) => {
  if (process.env.CLOCK !== 'by-hand') return Date.now;
  let at = Number(process.env.CLOCK_START);
  process.on('message', (message: { setClock?: number }) => {
    at = message.setClock ?? at;
  });
  return () => at;
};

/** The simulated outside world: its own process, its own port, the same wire as the real thing. */
const start = async (): Promise<void> => {
  const port = Number(process.env.STREET_PORT ?? 4870);
  const server = process.env.PORCH_ORIGIN ?? 'http://127.0.0.1:4860';
  const door = process.env.DOOR ?? 'quillfern-front-door';
  // The demo has doors for some pages; whoever names one door gets it everywhere.
  const doorsOfPages: Record<string, string> = process.env.DOOR
    ? {}
    : { '/repotting-bench': 'quillfern-bench-door', '/deutsch': 'quillfern-german-door' };
  const clock = clockOf();
  const app = Fastify({ forceCloseConnections: true });
  const snippetOn = (path: string): string =>
    `<script async src="${server}/loader.js" data-door="${doorsOfPages[path] ?? door}"></script>`;
  for (const page of sitePages) {
    app.get(page.path, async (_request, reply) =>
      reply.type('text/html; charset=utf-8').send(renderPage(page, snippetOn(page.path))),
    );
  }
  for (const { path, headers, html } of kindsOfPages) {
    const standing = { server, snippet: snippetOn(path) };
    app.get(path, async (_request, reply) =>
      reply
        .headers(headers?.(standing) ?? {})
        .type('text/html; charset=utf-8')
        .send(html(standing)),
    );
  }
  const pushService = createPushService();
  let origin = '';
  pushRoutes(app, pushService, () => origin, clock);
  app.addContentTypeParser(
    'application/x-www-form-urlencoded',
    { parseAs: 'string' },
    (_request, body, done) => done(null, Object.fromEntries(new URLSearchParams(String(body)))),
  );
  pushPage(app, pushService);
  const postOffice = createPostOffice({
    now: clock,
    porchMailPort: () => Number(process.env.PORCH_MAIL_PORT ?? port - 5),
  });
  mailPages(app, postOffice);
  openShop(app, clock);
  const networks = openNetworks(app, {
    origin: () => origin,
    now: clock,
    setups: JSON.parse(process.env.NETWORKS ?? '{}'),
  });
  await postOffice.listen(Number(process.env.STREET_MAIL_PORT ?? port + 5));
  await app.listen({ port, host: '127.0.0.1' });
  const address = app.server.address() as { port: number };
  origin = `http://127.0.0.1:${address.port}`;
  const stop = process.env.QUIET === '1' ? () => {} : letPassersBy(door, server, origin);
  process.stdout.write(`the street is at ${origin}\n`);
  process.send?.({ listening: address.port });
  const close = async (): Promise<void> => {
    stop();
    networks.close();
    await postOffice.close();
    await app.close();
    process.exit(0);
  };
  process.once('SIGTERM', close);
  process.once('SIGINT', close);
};

start().catch((error) => {
  process.stderr.write(`The street could not start: ${error.message}\n`);
  process.exit(1);
});
