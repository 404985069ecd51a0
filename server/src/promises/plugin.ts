import { PromisesSchema, PromisesShownSchema } from '@porch/contract/promises';
import type { Routing } from '../services';

/** What is promised to whoever writes: read by everybody of the team, set by its owners. */
export const promisesRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { promises } = services;

  app.get(
    '/api/promises',
    {
      config: { who: 'team' },
      schema: { summary: 'What visitors may expect', response: { 200: PromisesShownSchema } },
    },
    async () => promises.shown(),
  );

  app.put(
    '/api/promises',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Changes what visitors may expect',
        body: PromisesSchema,
        response: { 200: PromisesShownSchema },
      },
    },
    async (request) => {
      promises.set(request.body);
      return promises.shown();
    },
  );
};
