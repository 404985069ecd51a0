import type { FastifyRequest } from 'fastify';
import { Refused } from '../refused';
import type { Settings } from '../settings';

const safeMethods = new Set(['GET', 'HEAD', 'OPTIONS']);

/** An origin in the one form that can be compared (RFC 6454, 4); null for none. */
const toOrigin = (text: string | undefined): string | null => {
  try {
    return text ? new URL(text).origin : null;
  } catch {
    return null;
  }
};

/** Under which address we are ours: as set, or as each request reached us. */
export const createOrigins = ({ publicOrigin }: Pick<Settings, 'publicOrigin'>) => {
  const originOf = (request: FastifyRequest): string =>
    publicOrigin ?? `${request.protocol === 'https' ? 'https' : 'http'}://${request.host}`;

  /** Whether a request comes from a page of ours: scheme, host and port. */
  const isOwnOrigin = (request: FastifyRequest): boolean => {
    const origin = toOrigin(request.headers.origin);
    return origin !== null && origin !== 'null' && origin === toOrigin(originOf(request));
  };

  /** Whether a request was sent to us by our own name; any will do while none is set. */
  const isOwnHost = (request: FastifyRequest): boolean =>
    publicOrigin === undefined ||
    toOrigin(`${new URL(publicOrigin).protocol}//${request.host}`) === toOrigin(publicOrigin);

  return {
    originOf,
    isOwnOrigin,
    /** Every write must come from a page of ours: a foreign page cannot forge its Origin header. */
    refuseForeignWrites: async (request: FastifyRequest): Promise<void> => {
      if (safeMethods.has(request.method)) return;
      if (!isOwnOrigin(request) || !isOwnHost(request)) throw new Refused('origin-not-ours');
    },
  };
};
