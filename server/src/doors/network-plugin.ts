import { IdSchema } from '@porch/contract/entries';
import type { FastifyRequest } from 'fastify';
import { z } from 'zod';
import { JobFailed } from '../jobs/worker';
import { Refused } from '../refused';
import { addressKey } from '../security/addresses';
import type { Routing } from '../services';
import type { DoorRecord } from '../store';
import type { DoorKind, Handed } from './registry';

const DoorInPath = z.object({ door: IdSchema });

const HANDED_LARGEST_BYTES = 1024 * 1024;

/** Names that a header may carry, of a length that is worth reading. */
const HEADER_FIT = /^[\w.-]{1,80}$/;

/**
 * What networks hand over. No cookie is looked at and no origin asked for: each door proves what is meant for it,
 * by the bytes as they came. It is acknowledged once it is on disk; what is not, the network hands over again.
 */
export const networkRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { store, registry, taking, pulling, listings, limits, write } = services;

  // Every body as it came: a signature is of the bytes, not of what they mean.
  app.removeAllContentTypeParsers();
  app.addContentTypeParser('*', { parseAs: 'buffer' }, (_request, body, done) => done(null, body));

  /** The door in a path at which something may be handed over. */
  const doorIn = (request: FastifyRequest): { door: DoorRecord; kind: DoorKind } => {
    const params = DoorInPath.safeParse(request.params);
    const door = params.success ? store.doors.byPublicId(params.data.door) : null;
    const kind = door && registry.kindOf(door);
    if (!door || !kind?.hear) throw new Refused('not-found');
    if (door.closedAt !== null) throw new Refused('door-closed');
    return { door, kind };
  };

  /** What cannot be proved now may be once the key is back: the network is to come again. */
  const secretOf = (door: DoorRecord): string | null => {
    try {
      return registry.secretOf(door);
    } catch (error) {
      if (error instanceof JobFailed) throw new Refused('secret-sealed');
      throw error;
    }
  };

  const handed = (request: FastifyRequest, door: DoorRecord): Handed => ({
    door,
    secret: secretOf(door),
    body: Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0),
    headers: request.headers,
    query: request.query as Record<string, unknown>,
  });

  const slowDown = async (request: FastifyRequest): Promise<void> => {
    const { door } = doorIn(request);
    // Two networks may come from one address (a bridge's, a proxy's): one that says much holds up no other.
    const waitMs = limits.networks.take(`${door.id} ${addressKey(request.ip)}`);
    if (waitMs) throw new Refused('too-many', { waitMs });
  };

  app.get(
    '/in/:door',
    {
      schema: {
        summary: 'What a network asks before it hands anything over',
        produces: ['text/plain', 'application/json'],
        params: DoorInPath,
      },
      onRequest: slowDown,
    },
    async (request, reply) => {
      const { door, kind } = doorIn(request);
      if (!kind.greet) throw new Refused('not-found');
      const { type, text } = kind.greet(handed(request, door));
      return reply.type(type).send(text);
    },
  );

  app.post(
    '/in/:door',
    {
      bodyLimit: HANDED_LARGEST_BYTES,
      schema: {
        summary: 'What a network hands over',
        description:
          'Proved by the door. Answered once it is on disk, with 204 or what the network wants to hear; anything else is to be handed over again. 1 MB and 500 things at most; `docs/doors.md` has what each of them says',
        consumes: ['*/*'],
        produces: ['*/*'],
        params: DoorInPath,
      },
      onRequest: slowDown,
    },
    async (request, reply) => {
      const { door, kind } = doorIn(request);
      const heard = (await kind.hear?.(handed(request, door))) ?? {};
      const understood = taking.understand(door.id, heard);
      await write(() => {
        if (heard.isNudge) pulling.begin(door.id);
        if (heard.isListingChanged) listings.begin(door.id);
        return taking.now(understood);
      }, door.id);
      taking.tellTyping(understood);
      const ignored = heard.ignored?.filter((name) => HEADER_FIT.test(name)).join(', ');
      if (ignored) reply.header('ignored-fields', ignored);
      if (!heard.answer) return reply.status(204).send();
      return reply.type(heard.answer.type).send(heard.answer.text);
    },
  );
};
