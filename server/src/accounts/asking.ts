import type { Member } from '@porch/contract/people';
import type { FastifyInstance, FastifyRequest, RouteOptions } from 'fastify';
import { Refused } from '../refused';
import { hashSecret } from '../security/tokens';
import type { App } from '../services';
import type { Asking } from './accounts';
import type { Sessions } from './sessions';

export const COOKIE = 'porch';

/**
 * For whom a route is; each says it. `owner` and `team`: whoever is signed in so, by their cookie. `visitor`:
 * whoever has a token of a website door. `network`: what comes from outside and is proved by the door that it is
 * for. `anybody`: what is for everybody to ask.
 */
export type Who = 'owner' | 'team' | 'visitor' | 'network' | 'anybody';

declare module 'fastify' {
  interface FastifyContextConfig {
    who?: Who;
  }
  interface FastifyRequest {
    asking: Asking | null;
  }
}

/** The session that a request's cookie names, by the hash of its secret; '' when there is none. */
export const sessionHashOf = (request: FastifyRequest): string => {
  const secret = request.cookies[COOKIE];
  return secret ? hashSecret(secret) : '';
};

/** Who is asking, where a route is for the team. */
export const askingOf = (request: FastifyRequest): Asking => {
  if (!request.asking) throw new Refused('sign-in-needed');
  return request.asking;
};

export const memberOf = (request: FastifyRequest): Member => askingOf(request).me;

/** A route and for whom it is, as it was declared. */
export interface Declared {
  method: string;
  url: string;
  who: Who;
}

declare module 'fastify' {
  interface FastifyInstance {
    declared: Declared[];
  }
}

/**
 * Keeps the server from starting with a route that does not say for whom it is; all that do stand in
 * `app.declared`, once it is ready.
 */
export const askForWhom = (app: App): void => {
  const routes: RouteOptions[] = [];
  app.decorate('declared', []);
  app.addHook('onRoute', (route) => {
    routes.push(route);
  });
  app.addHook('onReady', async () => {
    for (const { method, url, config } of routes) {
      const who = config?.who;
      if (!who) throw new Error(`${url} does not say for whom it is`);
      app.declared.push({ method: String(method), url, who });
    }
  });
};

/** For whom the routes of a scope are that do not say it themselves. */
export const allFor = (scope: FastifyInstance, who: Who): void => {
  scope.addHook('onRoute', (route) => {
    route.config = { who, ...route.config };
  });
};

/** Lets nobody to a route of the team but whom it is for, before its body is read. */
export const guardTeam = (app: App, sessions: Sessions): void => {
  app.decorateRequest('asking', null);
  app.addHook('onRequest', async (request) => {
    const { who } = request.routeOptions.config;
    const sessionHash = sessionHashOf(request);
    const me = sessionHash ? sessions.memberBy(sessionHash) : null;
    request.asking = me && { me, sessionHash, address: request.ip };
    if (who === 'anybody') return;
    if (!me) throw new Refused('sign-in-needed');
    if (who === 'owner' && me.role !== 'owner') throw new Refused('role-not-enough');
  });
};
