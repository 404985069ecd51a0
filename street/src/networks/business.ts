import { setTimeout as wait } from 'node:timers/promises';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import type { Network } from './network';
import { pictureOf } from './picture';

/** What a network answers a business. */
export interface Answer {
  status?: number;
  headers?: Record<string, string>;
  body: unknown;
}

/** What is asked of a network by a business, with the switches for what may go wrong. */
export const forBusiness =
  (network: Network, isProved: (request: FastifyRequest) => boolean) =>
  (handle: (request: FastifyRequest) => Answer) =>
  async (request: FastifyRequest, reply: FastifyReply): Promise<unknown> => {
    await wait(network.waitMs());
    const fault = network.fault();
    if (fault === 'broken') return reply.status(500).send('broken');
    if (fault === 'later') return reply.status(429).header('retry-after', '5').send('later');
    if (fault === 'revoked' || !isProved(request)) return reply.status(401).send('who are you?');
    const { status = 200, headers = {}, body } = handle(request);
    if (fault === 'cut') {
      // It was taken; the answer never gets there.
      request.raw.socket.destroy();
      return reply.hijack();
    }
    return reply.status(status).headers(headers).send(body);
  };

/** Pictures that customers have sent, for whoever has the key. */
export const pictureRoute = (
  app: FastifyInstance,
  path: string,
  guarded: ReturnType<typeof forBusiness>,
): void => {
  app.get(
    path,
    guarded((request) => {
      const { name } = request.params as { name: string };
      return { headers: { 'content-type': 'image/png' }, body: pictureOf(name) };
    }),
  );
};

/** The basic way in (RFC 7617). */
export const isBasic = (request: FastifyRequest, account: string, key: string): boolean =>
  request.headers.authorization === `Basic ${Buffer.from(`${account}:${key}`).toString('base64')}`;

export const isBearer = (request: FastifyRequest, key: string): boolean =>
  request.headers.authorization === `Bearer ${key}`;
