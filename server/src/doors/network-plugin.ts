import { DeliverySchema, InboundSchema } from '@porch/contract/doors';
import { IdSchema } from '@porch/contract/entries';
import type { FastifyRequest } from 'fastify';
import { z } from 'zod';
import { JobFailed } from '../jobs/worker';
import { Refused } from '../refused';
import { addressKey } from '../security/addresses';
import type { Routing } from '../services';
import type { DoorRecord } from '../store';
import type { Heard } from './registry';

const DoorInPath = z.object({ door: IdSchema });
const HANDED_LARGEST_BYTES = 1024 * 1024;
/** So much may come in one go; a network that has more says it again. */
const HEARD_MOST = 500;

/**
 * What networks hand over. No cookie is looked at and no origin asked for: each door proves what is meant for it,
 * by the bytes as they came. It is acknowledged once it is on disk; what is not, the network hands over again.
 */
export const networkRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { store, registry, receive, delivering, limits } = services;

  // Every body as it came: a signature is of the bytes, not of what they mean.
  app.removeAllContentTypeParsers();
  app.addContentTypeParser('*', { parseAs: 'buffer' }, (_request, body, done) => done(null, body));

  /** The door in a path at which something may be handed over. */
  const doorIn = (request: FastifyRequest): DoorRecord => {
    const params = DoorInPath.safeParse(request.params);
    const door = params.success ? store.doors.byPublicId(params.data.door) : null;
    if (!door || !registry.kindOf(door)?.hear) throw new Refused('not-found');
    if (door.closedAt !== null) throw new Refused('door-closed');
    return door;
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

  const heardBy = async (request: FastifyRequest, door: DoorRecord): Promise<Heard> => {
    const { headers } = request;
    const body = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
    const query = request.query as Record<string, unknown>;
    const secret = secretOf(door);
    return (await registry.kindOf(door)?.hear?.({ door, secret, body, headers, query })) ?? {};
  };

  app.post(
    '/in/:door',
    {
      bodyLimit: HANDED_LARGEST_BYTES,
      schema: { params: DoorInPath, hide: true },
      onRequest: async (request) => {
        doorIn(request);
        const waitMs = limits.networks.take(addressKey(request.ip));
        if (waitMs) throw new Refused('too-many', { waitMs });
      },
    },
    async (request, reply) => {
      const door = doorIn(request);
      const { inbounds = [], deliveries = [], answer } = await heardBy(request, door);
      if (inbounds.length + deliveries.length > HEARD_MOST) throw new Refused('bad-request');
      const said = inbounds.map((one) => InboundSchema.safeParse({ ...one, doorId: door.id }));
      const told = deliveries.map((one) => DeliverySchema.safeParse(one));
      if ([...said, ...told].some(({ success }) => !success)) throw new Refused('bad-request');
      await Promise.all([
        ...said.flatMap(({ data }) => (data ? [receive.inbound(data)] : [])),
        ...told.flatMap(({ data }) => (data ? [delivering.report(door.id, data)] : [])),
      ]);
      if (!answer) return reply.status(204).send();
      return reply.type(answer.type).send(answer.text);
    },
  );
};
