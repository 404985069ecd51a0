import type { Member } from '@porch/contract/people';
import type { FastifyRequest } from 'fastify';
import { Refused } from '../refused';
import { hashSecret } from '../security/tokens';
import type { App } from '../services';
import type { Asking } from './accounts';
import type { Sessions } from './sessions';

export const COOKIE = 'porch';

declare module 'fastify' {
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
