import { existsSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import fastifyStatic from '@fastify/static';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { COOKIE } from '../accounts/asking';
import { Refused } from '../refused';
import { appPolicy, readingPolicy } from '../security/headers';
import type { Routing } from '../services';

/** Built files carry a hash in their names, so they may be kept for good. */
const forGood = 'public, max-age=31536000, immutable';
const LOADER_SECONDS = 3_600;

/** The built app, the built panel and the loader. */
export const pagesRoutes = async ({ app, settings, services }: Routing): Promise<void> => {
  const { store } = services;
  const appDir = resolve(settings.appDir);
  const widgetDir = resolve(settings.widgetDir);
  const indexPath = join(appDir, 'index.html');
  if (!existsSync(indexPath) || !existsSync(widgetDir)) return;
  const index = readFileSync(indexPath, 'utf8');
  const entrance = readFileSync(join(appDir, 'entrance.html'), 'utf8');
  const loader = readFileSync(join(widgetDir, 'loader.js'), 'utf8');
  const lamp = readFileSync(join(appDir, 'lamp.svg'), 'utf8');
  const policy = appPolicy();

  const isNamedByContent = (path: string): boolean => /[-.][0-9A-Za-z]{8,}\.\w+$/.test(path);

  await app.register(fastifyStatic, {
    root: appDir,
    index: false,
    // The app's pages go out by `sendPage` only, with the policy that they need and no other.
    allowedPath: (path) => !/^\/(index|entrance)\.html(\.gz)?$/.test(path),
    wildcard: true,
    preCompressed: true,
    cacheControl: false,
    setHeaders: (response, path) => {
      response.setHeader('cache-control', isNamedByContent(path) ? forGood : 'no-cache');
      if (/\/developers\/\w+\.html$/.test(path)) {
        response.setHeader('content-security-policy', readingPolicy());
      }
      // A worker obeys the policy that its own script came with: it has to fetch what it keeps.
      if (/\/worker\.js(\.gz)?$/.test(path)) response.setHeader('content-security-policy', policy);
    },
  });
  await app.register(fastifyStatic, {
    root: widgetDir,
    prefix: '/widget/',
    decorateReply: false,
    index: false,
    preCompressed: true,
    cacheControl: false,
    setHeaders: (response, path) => {
      response.setHeader('cache-control', forGood);
      if (!/\/more-[^/]+$/.test(path)) return;
      // The loader fetches its second part from the business's own website.
      response.setHeader('access-control-allow-origin', '*');
      response.setHeader('cross-origin-resource-policy', 'cross-origin');
    },
  });

  app.get(
    '/loader.js',
    { schema: { summary: 'The loader', produces: ['text/javascript'] } },
    async (_request, reply) =>
      reply
        .headers({
          'cache-control': `public, max-age=${LOADER_SECONDS}`,
          'access-control-allow-origin': '*',
          'cross-origin-resource-policy': 'cross-origin',
        })
        .type('text/javascript; charset=utf-8')
        .send(loader),
  );

  // Browsers ask for it by this name where a page names none.
  app.get(
    '/favicon.ico',
    { schema: { summary: 'The light', produces: ['image/svg+xml'] } },
    async (_request, reply) =>
      reply
        .header('cache-control', `public, max-age=${LOADER_SECONDS}`)
        .type('image/svg+xml')
        .send(lamp),
  );

  const sendPage = (reply: FastifyReply, page: string) =>
    reply
      .headers({ 'content-security-policy': policy, 'cache-control': 'no-cache', vary: 'cookie' })
      .type('text/html; charset=utf-8')
      .send(page);

  /** Nobody comes in without a cookie: they read at once what they came for, before any of the app is there. */
  const wantsEntrance = ({ headers, url }: FastifyRequest): boolean =>
    store.business.read() !== null &&
    !new RegExp(`(^|; )${COOKIE}=`).test(headers.cookie ?? '') &&
    /^\/(sign-in|line)?($|[?])/.test(url);

  const sendApp = (request: FastifyRequest, reply: FastifyReply) =>
    sendPage(reply, wantsEntrance(request) ? entrance : index);

  // What a service worker keeps of it: the same for everybody.
  app.get(
    '/shell',
    {
      schema: {
        summary: 'The app for the service worker: the same for everybody',
        produces: ['text/html'],
      },
    },
    async (_request, reply) => sendPage(reply, index),
  );
  app.get(
    '/',
    {
      schema: {
        summary: 'The app; with the sign-in in it for whoever comes without a cookie',
        description: 'So is every other address that is none of these.',
        produces: ['text/html'],
      },
    },
    async (request, reply) => sendApp(request, reply),
  );
  app.setNotFoundHandler(async (request, reply) => {
    const wantsPage = request.method === 'GET' && request.headers.accept?.includes('text/html');
    const isOurs = !/^\/(api|door|talk|widget|pictures)\//.test(request.url);
    if (wantsPage && isOurs) return sendApp(request, reply);
    throw new Refused('not-found');
  });
};
