import type { ErrorCode } from '@porch/contract/errors';
import type { FastifyInstance, FastifyRequest, FastifySchema, RouteOptions } from 'fastify';

/**
 * For whom a route is; each says it. `owner` and `team`: whoever is signed in so, by their cookie. `visitor`:
 * whoever has a token of a website door. `network`: what comes from outside and is proved by the door that it is
 * for. `anybody`: what is for everybody to ask.
 */
export type Who = 'owner' | 'team' | 'visitor' | 'network' | 'anybody';

declare module 'fastify' {
  interface FastifyContextConfig {
    who?: Who;
    /** What it writes is written from our own pages alone. */
    isFromOurPages?: boolean;
  }
  interface FastifySchema {
    /** With which codes it may be refused, besides those of every route of its kind. */
    refuses?: readonly ErrorCode[];
  }
  interface FastifyInstance {
    declared: Declared[];
  }
}

/** A route as it was declared. `url` has ":id" where an id stands. */
export interface Declared {
  method: string;
  url: string;
  who: Who;
  schema: FastifySchema;
  isSocket: boolean;
  isFromOurPages: boolean;
}

/** What the plugin for files adds by itself; whatever has a name of its own describes itself. */
const isFiles = ({ url }: RouteOptions): boolean => url.endsWith('*');

const asDeclared = (route: RouteOptions): Declared => {
  const { method, url, config, schema = {} } = route;
  const lacks = (what: string) => new Error(`${method} ${url} does not say ${what}`);
  const who = config?.who;
  if (!who) throw lacks('for whom it is');
  const isSocket = route.websocket === true;
  if (!isFiles(route)) {
    if (!schema.summary || (schema.hide && !isSocket)) throw lacks('what it does');
    if (!schema.response && !schema.produces && !isSocket) throw lacks('what it answers');
  }
  const isFromOurPages = config?.isFromOurPages === true;
  return { method: String(method), url, who, schema, isSocket, isFromOurPages };
};

/**
 * Keeps the server from starting with a route that does not say for whom it is, what it does and what it answers;
 * all that do stand in `app.declared`, once it is ready.
 */
export const askWhatRoutesAre = (app: FastifyInstance): void => {
  const routes: RouteOptions[] = [];
  app.decorate('declared', []);
  app.addHook('onRoute', (route) => {
    routes.push(route);
  });
  app.addHook('onReady', async () => {
    app.declared.push(...routes.map(asDeclared));
  });
};

/** For whom the routes of a scope are that do not say it themselves. */
export const allFor = (scope: FastifyInstance, who: Who): void => {
  scope.addHook('onRoute', (route) => {
    route.config = { who, ...route.config };
  });
};

/** Lets only our own pages write by the routes of a scope: a foreign page cannot forge its Origin header. */
export const fromOurPages = (
  scope: FastifyInstance,
  refuseForeignWrites: (request: FastifyRequest) => Promise<void>,
): void => {
  scope.addHook('onRequest', refuseForeignWrites);
  scope.addHook('onRoute', (route) => {
    route.config = { ...route.config, isFromOurPages: true };
  });
};
