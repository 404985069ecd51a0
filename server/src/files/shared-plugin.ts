import { z } from 'zod';
import { Refused } from '../refused';
import { addressKey } from '../security/addresses';
import type { Routing } from '../services';
import { serveFile } from './serve';

const InPath = z.object({ token: z.string().max(160) });

/** Files for whoever was sent a link to one, because their network carries none. */
export const sharedFilesRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { sharedFiles, files, limits } = services;
  app.get(
    '/f/:token',
    {
      config: { who: 'anybody' },
      logLevel: 'silent',
      schema: {
        summary: 'A file that went to somebody as a link',
        description: 'For 30 days',
        refuses: ['too-many', 'link-stale'],
        produces: ['*/*'],
        params: InPath,
      },
    },
    async (request, reply) => {
      const waitMs = limits.networks.take(addressKey(request.ip));
      if (waitMs > 0) throw new Refused('too-many', { waitMs });
      const file = sharedFiles.open(request.params.token);
      if (!file) throw new Refused('link-stale');
      return serveFile(reply, files, file, false);
    },
  );
};
