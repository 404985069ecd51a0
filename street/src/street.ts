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

/** A street that takes requests. */
export interface OpenStreet {
  port: number;
  origin: string;
  close(): Promise<void>;
}

/**
 * The simulated outside world: its own port, the same wire as the real thing. `env`: as the process's own is; `clock`
 * gives UTC epoch milliseconds.
 */
export const openStreet = async (
  env: NodeJS.ProcessEnv,
  clock: () => number,
): Promise<OpenStreet> => {
  const port = Number(env.STREET_PORT ?? 4870);
  const server = env.PORCH_ORIGIN ?? 'http://127.0.0.1:4860';
  const door = env.DOOR ?? 'quillfern-front-door';
  // The demo has doors for some pages; whoever names one door gets it everywhere.
  const doorsOfPages: Record<string, string> = env.DOOR
    ? {}
    : { '/repotting-bench': 'quillfern-bench-door', '/deutsch': 'quillfern-german-door' };
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
    porchMailPort: () => Number(env.PORCH_MAIL_PORT ?? port - 5),
  });
  mailPages(app, postOffice);
  openShop(app, clock);
  const networks = openNetworks(app, {
    origin: () => origin,
    now: clock,
    setups: JSON.parse(env.NETWORKS ?? '{}'),
  });
  await postOffice.listen(Number(env.STREET_MAIL_PORT ?? port + 5));
  await app.listen({ port, host: '127.0.0.1' });
  const address = app.server.address() as { port: number };
  origin = `http://127.0.0.1:${address.port}`;
  const stop = env.QUIET === '1' ? () => {} : letPassersBy(door, server, origin);
  return {
    port: address.port,
    origin,
    close: async () => {
      stop();
      networks.close();
      await postOffice.close();
      await app.close();
    },
  };
};
