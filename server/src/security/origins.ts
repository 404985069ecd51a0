import type { FastifyRequest } from 'fastify';
import type { Clock } from '../clock';
import { Refused } from '../refused';
import type { Settings } from '../settings';

const SAID_EVERY_MS = 60_000;

const safeMethods = new Set(['GET', 'HEAD', 'OPTIONS']);

/** An origin in the one form that can be compared (RFC 6454, 4); null for none. */
const toOrigin = (text: string | undefined): string | null => {
  try {
    return text ? new URL(text).origin : null;
  } catch {
    return null;
  }
};

/** The same host over TLS, which nobody else can have. */
const overTls = (origin: string | null): string | null =>
  origin?.startsWith('http:') ? toOrigin(origin.replace(/^http:/, 'https:')) : null;

/** Under which address we are ours: as set, or as each request reached us. */
export const createOrigins = (
  { publicOrigin, trustProxy }: Pick<Settings, 'publicOrigin' | 'trustProxy'>,
  clock: Clock,
) => {
  const isAsReached = publicOrigin === undefined && trustProxy !== false;
  let saidAt = Number.NEGATIVE_INFINITY;

  const originOf = (request: FastifyRequest): string =>
    publicOrigin ?? `${request.protocol === 'https' ? 'https' : 'http'}://${request.host}`;

  /** Whether a request comes from a page of ours: scheme, host and port. */
  const isOwnOrigin = (request: FastifyRequest): boolean => {
    const origin = toOrigin(request.headers.origin);
    const ours = toOrigin(originOf(request));
    if (origin === null || origin === 'null') return false;
    // Behind two proxies the inner one often says "http" of what the outer one took over TLS; the page knows better.
    return origin === ours || (isAsReached && origin === overTls(ours));
  };

  /** Whether a request was sent to us by our own name; any will do while none is set. */
  const isOwnHost = (request: FastifyRequest): boolean =>
    publicOrigin === undefined ||
    toOrigin(`${new URL(publicOrigin).protocol}//${request.host}`) === toOrigin(publicOrigin);

  /** Says once a minute whose write was refused, and as what we take ourselves: what is set wrong shows in that. */
  const sayRefused = (request: FastifyRequest): void => {
    if (clock.steady() - saidAt < SAID_EVERY_MS) return;
    saidAt = clock.steady();
    request.log.warn(
      { from: toOrigin(request.headers.origin), ours: toOrigin(originOf(request)) },
      'a write was refused, because its page is not ours: where it is, set PUBLIC_ORIGIN and TRUST_PROXY',
    );
  };

  return {
    originOf,
    isOwnOrigin,
    /** Every write must come from a page of ours: a foreign page cannot forge its Origin header. */
    refuseForeignWrites: async (request: FastifyRequest): Promise<void> => {
      if (safeMethods.has(request.method)) return;
      if (isOwnOrigin(request) && isOwnHost(request)) return;
      sayRefused(request);
      throw new Refused('origin-not-ours');
    },
  };
};
