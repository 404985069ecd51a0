import { LampSchema } from '@porch/contract/team';
import { memberAsking } from '../accounts/plugin';
import type { Room } from '../services';

export const lampRoom = async ({ app, services }: Room): Promise<void> => {
  app.put(
    '/api/lamp',
    { schema: { body: LampSchema, response: { 200: LampSchema } } },
    async (request) => {
      memberAsking(services, request);
      return services.lamp.set(request.body);
    },
  );
};
