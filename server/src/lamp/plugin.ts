import { LampSchema } from '@porch/contract/lamp';
import type { Room } from '../services';

export const lampRoom = async ({ app, services }: Room): Promise<void> => {
  app.put(
    '/api/lamp',
    { config: { who: 'team' }, schema: { body: LampSchema, response: { 200: LampSchema } } },
    async (request) => {
      return services.lamp.set(request.body);
    },
  );
};
