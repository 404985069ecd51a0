import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import fastifyCompress from '@fastify/compress';
import fastifyCookie from '@fastify/cookie';
import fastifySwagger from '@fastify/swagger';
import fastifyWebsocket from '@fastify/websocket';
import { SOCKET_FRAME_LARGEST_BYTES } from '@porch/contract/visitor';
import Fastify, { LogController } from 'fastify';
import {
  jsonSchemaTransform,
  serializerCompiler,
  validatorCompiler,
  type ZodTypeProvider,
} from 'fastify-type-provider-zod';
import { accountsRoom } from './accounts/plugin';
import type { PanelFiles } from './doors/page';
import { doorsRoom } from './doors/plugin';
import { teamDoorsRoom } from './doors/team-plugin';
import { dressRoom } from './dress/plugin';
import { filesRoom } from './files/plugin';
import { houseRoom } from './house/plugin';
import { inboxRoom } from './inbox/plugin';
import { lampRoom } from './lamp/plugin';
import { liveRoom } from './live/plugin';
import { pagesRoom } from './pages/plugin';
import { pairingRoom } from './pairing/plugin';
import { picturesRoom } from './pictures/plugin';
import { handleErrors } from './refused';
import { everywhere } from './security/headers';
import { refuseForeignWrites } from './security/origins';
import type { App, Services } from './services';
import type { Settings } from './settings';
import { teamRoom } from './team/plugin';

const BODY_LARGEST_BYTES = 64 * 1024;

const rooms = [
  accountsRoom,
  houseRoom,
  teamRoom,
  pairingRoom,
  picturesRoom,
  dressRoom,
  lampRoom,
  inboxRoom,
  filesRoom,
  liveRoom,
  doorsRoom,
  teamDoorsRoom,
  pagesRoom,
];

const readPanelFiles = (widgetDir: string): PanelFiles => {
  const path = join(widgetDir, 'files.json');
  return existsSync(path)
    ? JSON.parse(readFileSync(path, 'utf8'))
    : { script: 'panel.js', style: 'panel.css', preview: 'preview.js' };
};

/** Puts the server together without listening: tests talk to it through `inject`. */
export const buildApp = async (settings: Settings, services: Services): Promise<App> => {
  const app = Fastify({
    bodyLimit: BODY_LARGEST_BYTES,
    trustProxy: settings.trustProxy,
    logController: new LogController({ disableRequestLogging: true }),
    forceCloseConnections: true,
    logger:
      settings.logLevel === 'silent'
        ? false
        : {
            level: settings.logLevel,
            redact: ['req.headers.cookie', 'req.headers.authorization', '*.text', '*.password'],
          },
  }).withTypeProvider<ZodTypeProvider>();
  app.setValidatorCompiler(validatorCompiler);
  app.setSerializerCompiler(serializerCompiler);
  handleErrors(app);
  app.addHook('onRequest', refuseForeignWrites);
  app.addHook('onSend', async (_request, reply) => {
    reply.headers(everywhere);
  });
  app.addContentTypeParser(
    'application/octet-stream',
    { parseAs: 'buffer' },
    (_request, body, done) => done(null, body),
  );
  await app.register(fastifyCookie);
  await app.register(fastifyCompress, { threshold: 1_024, encodings: ['gzip'] });
  await app.register(fastifySwagger, {
    openapi: { info: { title: 'Hello Porch', version: '0.3.0' } },
    transform: jsonSchemaTransform,
  });
  await app.register(fastifyWebsocket, {
    options: { maxPayload: SOCKET_FRAME_LARGEST_BYTES, perMessageDeflate: false },
  });
  const panelFiles = readPanelFiles(settings.widgetDir);
  app.get('/healthz', { schema: { hide: true } }, async () => ({ ok: true }));
  app.get('/openapi.json', { schema: { hide: true } }, async () => app.swagger());
  for (const room of rooms) {
    await app.register(async (scope) =>
      room({ app: scope.withTypeProvider<ZodTypeProvider>(), settings, services, panelFiles }),
    );
  }
  app.addHook('preClose', async () => services.hub.closeAll());
  return app;
};
