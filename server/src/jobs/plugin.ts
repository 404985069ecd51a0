import { DeadJobsSchema } from '@porch/contract/jobs';
import { z } from 'zod';
import { Refused } from '../refused';
import type { Routing } from '../services';

const JobInPath = z.object({ id: z.coerce.number().int().positive() });

/** What had to happen and was given up: looked at, tried again, or left. */
export const jobsRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { store, jobs, clock, write } = services;

  /** A change that the house's screens are to know of. */
  const change = async (id: number, work: (id: number) => boolean): Promise<void> => {
    const isDone = await write(() => ({ result: work(id), news: [], isHouse: true }));
    if (!isDone) throw new Refused('not-found');
  };

  app.get(
    '/api/jobs/dead',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'What could not be done',
        querystring: z.object({ before: z.coerce.number().int().positive().optional() }),
        response: { 200: DeadJobsSchema },
      },
    },
    async (request) => {
      const jobs = store.jobs.dead(request.query.before);
      return { jobs, count: store.jobs.deadCount() };
    },
  );

  app.post(
    '/api/jobs/:id/again',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Tries again what could not be done',
        refuses: ['not-found'],
        params: JobInPath,
        response: { 204: z.null() },
      },
    },
    async (request, reply) => {
      await change(request.params.id, (id) => store.jobs.revive(id, clock.now()));
      await jobs.tick();
      return reply.status(204).send(null);
    },
  );

  app.delete(
    '/api/jobs/:id',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Leaves what could not be done',
        refuses: ['not-found'],
        params: JobInPath,
        response: { 204: z.null() },
      },
    },
    async (request, reply) => {
      await change(request.params.id, store.jobs.leave);
      return reply.status(204).send(null);
    },
  );
};
