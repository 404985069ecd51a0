import { LampSchema } from '@porch/contract/lamp';
import type { Routing } from '../services';

export const lampRoutes = async ({ app, services }: Routing): Promise<void> => {
  app.put(
    '/api/lamp',
    { config: { who: 'team' }, schema: { body: LampSchema, response: { 200: LampSchema } } },
    async (request) => {
      return services.lamp.set(request.body);
    },
  );
};
