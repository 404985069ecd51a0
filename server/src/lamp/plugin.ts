import { IdSchema } from '@porch/contract/entries';
import { LampSchema, TeamLampSchema } from '@porch/contract/lamp';
import { OutChangeSchema } from '@porch/contract/people';
import { BY_HAND_LONGEST_MS } from '@porch/core/lamp';
import { z } from 'zod';
import { memberOf } from '../accounts/asking';
import { Refused } from '../refused';
import type { Routing } from '../services';

export const lampRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { lamp, here, store, clock, change } = services;

  app.put(
    '/api/lamp',
    {
      config: { who: 'team' },
      schema: {
        summary: 'Sets the light by hand',
        refuses: ['time-not-ahead'],
        body: LampSchema,
        response: { 200: TeamLampSchema },
      },
    },
    async (request) => {
      const { id } = memberOf(request);
      here.note(id);
      // Whoever lights it is there.
      if (request.body.state === 'lit') change(() => store.members.setOut(id, null));
      return lamp.set(request.body);
    },
  );

  app.delete(
    '/api/lamp/ask',
    {
      config: { who: 'team' },
      schema: {
        summary: 'What the team was asked about the light is answered',
        response: { 204: z.null() },
      },
    },
    async (_request, reply) => {
      lamp.ask(null);
      return reply.code(204).send(null);
    },
  );

  app.put(
    '/api/members/:id/out',
    {
      config: { who: 'team' },
      schema: {
        summary: 'Says until when a member is out',
        refuses: ['not-found', 'role-not-enough', 'time-not-ahead'],
        params: z.object({ id: IdSchema }),
        body: OutChangeSchema,
        response: { 200: TeamLampSchema },
      },
    },
    async (request) => {
      const { id } = request.params;
      const { id: mine, role } = memberOf(request);
      // Where somebody else is, the owner may have to say for them.
      if (id !== mine && role !== 'owner') throw new Refused('role-not-enough');
      if (!store.members.byId(id)) throw new Refused('not-found');
      const { out } = request.body;
      const aheadMs = out?.until ? out.until - clock.now() : 1;
      if (aheadMs <= 0) throw new Refused('time-not-ahead', { field: 'until' });
      if (aheadMs > BY_HAND_LONGEST_MS) {
        throw new Refused('bad-request', { field: 'until', limit: BY_HAND_LONGEST_MS });
      }
      here.note(mine);
      change(() => store.members.setOut(id, out));
      return lamp.forTeam();
    },
  );
};
