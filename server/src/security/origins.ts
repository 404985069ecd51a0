import type { FastifyRequest } from 'fastify';
import { Refused } from '../refused';

/** Whether a request's Origin is the address under which it reached us. */
export const isOwnOrigin = (request: FastifyRequest): boolean => {
  const { origin } = request.headers;
  if (!origin) return false;
  try {
    return new URL(origin).host === request.host;
  } catch {
    return false;
  }
};

const safeMethods = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Every write must come from a page of ours: a foreign page cannot forge its Origin header. */
export const refuseForeignWrites = async (request: FastifyRequest): Promise<void> => {
  if (!safeMethods.has(request.method) && !isOwnOrigin(request)) {
    throw new Refused('origin-not-ours');
  }
};
