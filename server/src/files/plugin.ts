import { FILE_LARGEST_BYTES, FileMentionSchema, IdSchema } from '@porch/contract/entries';
import { z } from 'zod';
import { memberOf } from '../accounts/asking';
import type { Routing } from '../services';
import { pictureRefusals } from './intake';
import { sentBytes } from './sent-bytes';
import { nameOf, serveFile } from './serve';

export const FileInPath = z.object({ id: IdSchema });
export const asThumbnail = z.object({ size: z.enum(['whole', 'thumbnail']).default('whole') });

/** Files of the team: sending their own, and reading any that was sent to the business. */
export const filesRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { files } = services;

  app.put(
    '/api/files/:id',
    {
      config: { who: 'team' },
      bodyLimit: FILE_LARGEST_BYTES + 1,
      schema: {
        summary: 'Takes a file',
        description: 'Its name in `x-file-name`, percent-encoded',
        refuses: ['id-taken', ...pictureRefusals],
        consumes: ['application/octet-stream'],
        params: FileInPath,
        response: { 200: FileMentionSchema },
      },
    },
    async (request) => {
      const member = memberOf(request);
      const bytes = sentBytes(request);
      return files.take(request.params.id, nameOf(request), bytes, { memberId: member.id });
    },
  );

  app.get(
    '/api/files/:id',
    {
      config: { who: 'team' },
      schema: {
        summary: 'A file',
        refuses: ['not-found'],
        produces: ['*/*'],
        params: FileInPath,
        querystring: asThumbnail,
      },
    },
    async (request, reply) => {
      const file = files.find(request.params.id);
      return serveFile(reply, files, file, request.query.size === 'thumbnail');
    },
  );
};
