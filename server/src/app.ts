import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Readable, Writable } from 'node:stream';
import fastifyCompress from '@fastify/compress';
import fastifyCookie from '@fastify/cookie';
import fastifySwagger from '@fastify/swagger';
import fastifyWebsocket from '@fastify/websocket';
import type { Refusal } from '@porch/contract/errors';
import { SOCKET_FRAME_LARGEST_BYTES } from '@porch/contract/visitor';
import Fastify, {
  type FastifyInstance,
  type FastifyReply,
  type FastifyRequest,
  LogController,
} from 'fastify';
import {
  serializerCompiler,
  validatorCompiler,
  type ZodTypeProvider,
} from 'fastify-type-provider-zod';
import { z } from 'zod';
import { guardTeam } from './accounts/asking';
import { accountsRoutes } from './accounts/plugin';
import { cardsRoutes } from './cards/plugin';
import { doorbellRoutes } from './doorbell/plugin';
import { bridgeContractRoutes } from './doors/bridge/contract-plugin';
import { networkRoutes } from './doors/network-plugin';
import { networkDoorsRoutes } from './doors/networks-plugin';
import { teamDoorsRoutes } from './doors/team-plugin';
import type { PanelFiles } from './doors/website/page';
import { websiteRoutes } from './doors/website/plugin';
import { dressRoutes } from './dress/plugin';
import { emojiRoutes } from './emoji/plugin';
import { filesRoutes } from './files/plugin';
import { sharedFilesRoutes } from './files/shared-plugin';
import { feedRoutes, followUpsRoutes } from './follow-ups/plugin';
import { greetedRoutes, greetingsRoutes } from './greetings/plugin';
import { hoursRoutes } from './hours/plugin';
import { houseRoutes } from './house/plugin';
import { inboxRoutes } from './inbox/plugin';
import { jobsRoutes } from './jobs/plugin';
import { lampRoutes } from './lamp/plugin';
import { liveRoutes } from './live/plugin';
import { mailRoutes } from './mail/plugin';
import { stopRoutes } from './mail/stop-plugin';
import { description } from './openapi/describe';
import { allFor, askWhatRoutesAre, fromOurPages } from './openapi/routes';
import { ordersRoutes } from './orders/plugin';
import { pagesRoutes } from './pages/plugin';
import { pairingRoutes } from './pairing/plugin';
import { picturesRoutes } from './pictures/plugin';
import { promisesRoutes } from './promises/plugin';
import { handleErrors } from './refused';
import { repliesRoutes } from './replies/plugin';
import { addressKey } from './security/addresses';
import { inGoodTime } from './security/bodies';
import { boundConnected } from './security/connections';
import { createGate } from './security/gate';
import { everywhere, overTls } from './security/headers';
import { createProxyWatch, isOverTls, type ProxyProblem, proxyDetails } from './security/proxy';
import type { App, Routing, Services } from './services';
import type { Settings } from './settings';
import { shelfRoutes } from './shelf/plugin';
import { teamRoutes } from './team/plugin';
import { writingRoutes } from './writing/plugin';

const BODY_LARGEST_BYTES = 64 * 1024;
/** A request's first lines come at once, or nobody is there. */
const HEADERS_LONGEST_MS = 10_000;
/** What a whole request may take at the very most: the largest file on the slowest line. */
const REQUEST_LONGEST_MS = 15 * 60_000;
/** Who listens is asked to go; whoever has not gone by then is sent. */
const FAREWELL_MS = 1_000;

/** RFC 6455, 7.4.1. */
const GOING_AWAY = 1001;

const HealthSchema = z.object({
  ok: z.boolean(),
  canWrite: z.boolean(),
  /** The variable that has to be set for it to be safe. */
  set: z.string().optional(),
});

type RoutesOf = (given: Routing) => Promise<void>;

/** For whoever is signed in: by cookie, and from our own pages only. */
const teamSubjects: readonly RoutesOf[] = [
  accountsRoutes,
  houseRoutes,
  teamRoutes,
  pairingRoutes,
  picturesRoutes,
  dressRoutes,
  lampRoutes,
  hoursRoutes,
  promisesRoutes,
  followUpsRoutes,
  jobsRoutes,
  inboxRoutes,
  filesRoutes,
  liveRoutes,
  teamDoorsRoutes,
  networkDoorsRoutes,
  doorbellRoutes,
  mailRoutes,
  cardsRoutes,
  greetingsRoutes,
  ordersRoutes,
  shelfRoutes,
  repliesRoutes,
  writingRoutes,
];
/** For visitors of websites: by a token, and from our own pages where something is written. */
const visitorSubjects: readonly RoutesOf[] = [websiteRoutes];
/** For what networks hand over: proved by each door, by the bytes as they came. */
const networkSubjects: readonly RoutesOf[] = [networkRoutes];
/** Files for everybody. */
const publicSubjects: readonly RoutesOf[] = [
  feedRoutes,
  greetedRoutes,
  stopRoutes,
  sharedFilesRoutes,
  bridgeContractRoutes,
  emojiRoutes,
  pagesRoutes,
];

const readPanelFiles = (widgetDir: string): PanelFiles => {
  const path = join(widgetDir, 'files.json');
  return existsSync(path)
    ? JSON.parse(readFileSync(path, 'utf8'))
    : {
        script: 'panel.js',
        parts: [],
        style: 'panel.css',
        preview: 'preview.js',
        more: 'more.js',
        emoji: { script: 'emoji.js', style: 'emoji.css', sources: { en: 'emoji-names-en.json' } },
      };
};

/** Closes every connection that lasts: politely, then whether its other end answers or not. */
const sayFarewell = (app: App, { hub }: Services, done: () => void): void => {
  hub.closePlates();
  const { clients } = app.websocketServer;
  app.websocketServer.close(() => done());
  for (const client of clients) client.close(GOING_AWAY);
  setTimeout(() => {
    for (const client of clients) client.terminate();
  }, FAREWELL_MS).unref();
};

/** Keeps for the owner what is wrong with the proxies before the house; null: nothing is any more. */
const keepProxyFinding = (
  { store, clock, report }: Services,
  problem: ProxyProblem | null,
): void => {
  const kind = 'proxy-not-trusted';
  try {
    if (problem === null) store.findings.drop(kind);
    else store.findings.write({ kind, at: clock.now(), detail: proxyDetails[problem] });
  } catch (error) {
    // A full disk is no reason not to open.
    report(error);
  }
};

/** Whose a request is: of a network's door, for two networks may share an address, or of whoever is at an address. */
const laneOf = ({ url, ip }: FastifyRequest, { doors }: Services['store']): string => {
  const [, door] = /^\/in\/([^/?]+)/.exec(url) ?? [];
  // A door that there is not is no lane of its own: whoever makes them up would have as many as they like.
  return door && doors.byPublicId(door) ? `in ${door}` : addressKey(ip);
};

/** Puts the server together without listening: tests talk to it through `inject`. */
export const buildApp = async (
  settings: Settings,
  services: Services,
  logTo: Writable = process.stdout,
): Promise<App> => {
  services.rowsBehind.find();
  const proxies = createProxyWatch(settings, (problem) => {
    app.log.error(proxyDetails[problem]);
    keepProxyFinding(services, problem);
  });
  const app = Fastify({
    bodyLimit: BODY_LARGEST_BYTES,
    trustProxy: proxies.trust,
    requestTimeout: REQUEST_LONGEST_MS,
    http: { headersTimeout: HEADERS_LONGEST_MS },
    logController: new LogController({ disableRequestLogging: true }),
    // An address that cannot be read never gets to a route, nor to the handler of its errors.
    frameworkErrors: (_error, _request, reply: FastifyReply) => {
      void reply
        .headers(everywhere)
        .status(400)
        .send({ code: 'bad-request' } satisfies Refusal);
    },
    forceCloseConnections: true,
    logger:
      settings.logLevel === 'silent'
        ? false
        : {
            level: settings.logLevel,
            stream: logTo,
            redact: ['req.headers.cookie', 'req.headers.authorization', '*.text', '*.password'],
          },
  }).withTypeProvider<ZodTypeProvider>();
  if (!settings.trustProxy) boundConnected(app.server, settings.limits.connectionsOfAnAddress);
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  services.disk.onProblem((problem) =>
    app.log.error({ problem }, 'nothing can be written: is the disk full, or may it only be read?'),
  );
  services.onReport((error) => app.log.error(error));
  const atStart = proxies.problem();
  if (atStart) app.log.error(proxyDetails[atStart]);
  keepProxyFinding(services, atStart);
  const gate = createGate();
  app.addHook('onRequest', (request, _reply, done) =>
    gate.enter(() => laneOf(request, services.store), done),
  );
  app.addHook('onRequest', async ({ raw }) => proxies.look(raw.headers, raw.socket.remoteAddress));
  handleErrors(app, services.disk, services.report);
  const onEach = isOverTls(settings) ? { ...everywhere, ...overTls } : everywhere;
  app.addHook('onSend', async (_request, reply) => {
    for (const [name, value] of Object.entries(onEach)) {
      if (!reply.hasHeader(name)) reply.header(name, value);
    }
  });
  app.addHook('preParsing', async (request, reply, payload) =>
    inGoodTime(request, reply, payload as Readable, settings.bodyLongestMs),
  );
  app.addContentTypeParser(
    'application/octet-stream',
    { parseAs: 'buffer' },
    (_request, body, done) => done(null, body),
  );
  askWhatRoutesAre(app);
  await app.register(fastifyCompress, { threshold: 1_024, encodings: ['gzip'] });
  await app.register(fastifySwagger, description);
  await app.register(fastifyWebsocket, {
    options: { maxPayload: SOCKET_FRAME_LARGEST_BYTES, perMessageDeflate: false },
    preClose: (done) => sayFarewell(app, services, done),
  });
  const panelFiles = readPanelFiles(settings.widgetDir);
  app.get(
    '/healthz',
    {
      config: { who: 'anybody' },
      schema: {
        summary: 'Whether the house stands and can write',
        response: { 200: HealthSchema, 503: HealthSchema },
      },
    },
    async (_request, reply) => {
      const ok = services.disk.canWrite();
      const set = proxies.problem() === null ? {} : { set: 'TRUST_PROXY' };
      return reply.status(ok ? 200 : 503).send({ ok, canWrite: ok, ...set });
    },
  );
  app.get(
    '/openapi.json',
    {
      config: { who: 'anybody' },
      schema: { summary: 'This description', produces: ['application/json'] },
    },
    async () => app.swagger(),
  );
  const open = async (scope: FastifyInstance, subjects: readonly RoutesOf[]): Promise<void> => {
    for (const routesOf of subjects) {
      await scope.register(async (inner) =>
        routesOf({
          app: inner.withTypeProvider<ZodTypeProvider>() as App,
          settings,
          services,
          panelFiles,
        }),
      );
    }
  };
  await app.register(async (scope) => {
    await scope.register(fastifyCookie);
    fromOurPages(scope, services.refuseForeignWrites);
    guardTeam(scope as App, services.sessions);
    await open(scope, teamSubjects);
  });
  await app.register(async (scope) => {
    allFor(scope, 'visitor');
    fromOurPages(scope, services.refuseForeignWrites);
    await open(scope, visitorSubjects);
  });
  await app.register(async (scope) => {
    allFor(scope, 'network');
    await open(scope, networkSubjects);
  });
  await app.register(async (scope) => {
    allFor(scope, 'anybody');
    await open(scope, publicSubjects);
  });
  app.addHook('onReady', async () => services.wires.begin());
  app.addHook('onClose', async () => {
    services.afterwards.stop();
    services.rowsBehind.stop();
    services.darkroom.end();
    services.mailReader.end();
    services.pusher.end();
    services.outside.end();
    services.anywhere.end();
    services.mailboxes.stop();
    services.wires.stop();
    await services.mailPort.close();
  });
  return app;
};
