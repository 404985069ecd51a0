import { FILE_LARGEST_BYTES, IdSchema } from '@porch/contract/entries';
import { BusinessSchema, CropSchema, PictureShapeSchema } from '@porch/contract/house';
import { MemberSchema } from '@porch/contract/people';
import type { FastifyRequest } from 'fastify';
import { z } from 'zod';
import { memberOf } from '../accounts/asking';
import { pictureRefusals } from '../files/intake';
import { sentBytes } from '../files/sent-bytes';
import { Refused } from '../refused';
import type { Routing } from '../services';

const bodyLimit = FILE_LARGEST_BYTES + 1;

/** The business's picture and the faces of the team; anybody may see them who knows where. */
export const picturesRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { pictures, store, clock, change, limits } = services;

  /** Before ten megabytes are read. */
  const refuseCrowd = async (request: FastifyRequest): Promise<void> => {
    const waitMs = limits.uploads.take(`member ${memberOf(request).id}`);
    if (waitMs) throw new Refused('too-many', { waitMs });
  };

  const take = (request: FastifyRequest, crop: z.infer<typeof CropSchema>): Promise<string> =>
    pictures.take(sentBytes(request), crop, memberOf(request).id);

  app.put(
    '/api/business/picture',
    {
      config: { who: 'owner' },
      bodyLimit,
      onRequest: refuseCrowd,
      schema: {
        summary: 'The business’s picture: a square out of what is sent',
        refuses: ['not-found', ...pictureRefusals],
        consumes: ['application/octet-stream'],
        querystring: CropSchema.extend({ shape: PictureShapeSchema }),
        response: { 200: BusinessSchema },
      },
    },
    async (request) => {
      const pictureId = await take(request, request.query);
      const business = store.business.read();
      if (!business) throw new Refused('not-found');
      const changed = { ...business, pictureId, pictureShape: request.query.shape };
      change(() => store.business.write(changed, clock.now()));
      return changed;
    },
  );

  app.delete(
    '/api/business/picture',
    {
      config: { who: 'owner' },
      schema: { summary: 'Takes the business’s picture away', response: { 204: z.null() } },
    },
    async (_request, reply) => {
      const business = store.business.read();
      if (business)
        change(() => store.business.write({ ...business, pictureId: null }, clock.now()));
      return reply.status(204).send(null);
    },
  );

  app.put(
    '/api/me/picture',
    {
      config: { who: 'team' },
      bodyLimit,
      onRequest: refuseCrowd,
      schema: {
        summary: 'One’s own face: a square out of what is sent',
        refuses: [...pictureRefusals],
        consumes: ['application/octet-stream'],
        querystring: CropSchema,
        response: { 200: MemberSchema },
      },
    },
    async (request) => {
      const me = memberOf(request);
      const changed = { ...me, pictureId: await take(request, request.query) };
      change(() => store.members.update(changed));
      return changed;
    },
  );

  app.delete(
    '/api/me/picture',
    {
      config: { who: 'team' },
      schema: { summary: 'Takes one’s own face away', response: { 204: z.null() } },
    },
    async (request, reply) => {
      change(() => store.members.update({ ...memberOf(request), pictureId: null }));
      return reply.status(204).send(null);
    },
  );

  app.get(
    '/pictures/:id',
    {
      config: { who: 'anybody' },
      schema: {
        summary: 'A face, or the business’s picture',
        refuses: ['not-found'],
        produces: ['image/*'],
        params: z.object({ id: IdSchema }),
      },
    },
    async (request, reply) => {
      const bytes = store.pictures.bytes(request.params.id);
      if (!bytes) throw new Refused('not-found');
      return reply
        .headers({
          'content-type': 'image/webp',
          'content-security-policy': "default-src 'none'; sandbox",
          'cache-control': 'public, max-age=31536000, immutable',
          // The plate shows it on the business's own website.
          'cross-origin-resource-policy': 'cross-origin',
        })
        .send(bytes);
    },
  );
};
