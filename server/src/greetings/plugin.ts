import { IdSchema } from '@porch/contract/entries';
import { GreetingCountsSchema } from '@porch/contract/greetings';
import { z } from 'zod';
import { Refused } from '../refused';
import { addressKey } from '../security/addresses';
import type { Routing } from '../services';

const DoorById = z.object({ id: IdSchema });
const GreetingAtDoor = z.object({ door: IdSchema, greeting: IdSchema });

/** What came of a door's greetings, for the team. */
export const greetingsRoutes = async ({ app, services }: Routing): Promise<void> => {
  app.get(
    '/api/doors/:id/greetings/counts',
    {
      config: { who: 'team' },
      schema: {
        summary: 'How often each greeting was seen and answered',
        params: DoorById,
        response: { 200: GreetingCountsSchema },
      },
    },
    async (request) => ({ counts: services.greetings.counts(request.params.id) }),
  );
};

/** What a page of the business's website says by itself: it carries nothing of whoever is on it. */
export const greetedRoutes = async ({ app, services }: Routing): Promise<void> => {
  app.post(
    '/door/:door/greeted/:greeting',
    {
      config: { who: 'anybody' },
      bodyLimit: 1,
      schema: {
        summary: 'A greeting was seen',
        refuses: ['not-found', 'door-closed', 'site-not-listed', 'too-many'],
        response: { 204: z.null() },
        params: GreetingAtDoor,
      },
    },
    async (request, reply) => {
      const { website, greetings, limits } = services;
      const door = website.openDoor(request.params.door);
      website.refuseUnlisted(door, request.headers.origin ?? '');
      const waitMs = limits.hints.take(`greeted ${addressKey(request.ip)}`);
      if (waitMs) throw new Refused('too-many', { waitMs });
      greetings.seen(door.id, request.params.greeting);
      return reply.status(204).send(null);
    },
  );
};
