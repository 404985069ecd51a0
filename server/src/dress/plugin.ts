import {
  DraftSchema,
  DressedSchema,
  RevisionSchema,
  TrialAskedSchema,
  TrialSchema,
} from '@porch/contract/dress';
import { IdSchema } from '@porch/contract/entries';
import { ColoursSchema } from '@porch/contract/house';
import { coloursOfPicture } from '@porch/core/colours';
import { countries, countryOfZone } from '@porch/core/countries';
import { dressProblems } from '@porch/core/dress';
import { addressOf, isListed } from '@porch/core/website';
import type { FastifyRequest } from 'fastify';
import QRCode from 'qrcode';
import { z } from 'zod';
import { memberOf } from '../accounts/asking';
import { sitesOf } from '../doors/website/kind';
import { toDoor } from '../house/house';
import { drawn, pixelsOf } from '../pictures/pictures';
import { Refused } from '../refused';
import type { Routing } from '../services';
import type { DoorRecord } from '../store';

const DoorById = z.object({ id: IdSchema });
const DRESS_LARGEST_BYTES = 1024 * 1024;
const QR_PIXELS = 1_024;

/** The dressing room of each website door, and its code to print. */
export const dressRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { store, dressing, originOf } = services;

  const doorOf = (id: string): DoorRecord => {
    const door = store.doors.byId(id);
    if (!door) throw new Refused('not-found');
    return door;
  };

  const ownersDoor = (request: FastifyRequest, { id }: { id: string }) => ({
    member: memberOf(request),
    door: doorOf(id),
  });

  app.get(
    '/api/doors/:id/dress',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'How a website door looks: what is shown, and its draft',
        refuses: ['not-found'],
        params: DoorById,
        response: { 200: DressedSchema },
      },
    },
    async (request) => dressing.of(ownersDoor(request, request.params).door.id),
  );

  app.put(
    '/api/doors/:id/draft',
    {
      config: { who: 'owner' },
      bodyLimit: DRESS_LARGEST_BYTES,
      schema: {
        summary: 'Keeps the draft',
        description: 'It says on which `revision` it builds',
        refuses: ['not-found', 'changed-meanwhile', 'file-unknown', ...dressProblems],
        params: DoorById,
        body: DraftSchema,
        response: { 200: DressedSchema },
      },
    },
    async (request) => {
      const { door, member } = ownersDoor(request, request.params);
      return dressing.save(door.id, request.body.revision, request.body.dress, member);
    },
  );

  for (const [path, summary, work] of [
    ['publish', 'Shows the draft to everybody', dressing.publish],
    ['undo', 'Takes back what was published last', dressing.undo],
  ] as const) {
    app.post(
      `/api/doors/:id/${path}`,
      {
        config: { who: 'owner' },
        schema: {
          summary,
          refuses: ['not-found', 'changed-meanwhile', 'nothing-to-undo'],
          params: DoorById,
          body: RevisionSchema,
          response: { 200: DressedSchema },
        },
      },
      async (request) => {
        const { door, member } = ownersDoor(request, request.params);
        return work(door.id, request.body.revision, member);
      },
    );
  }

  app.post(
    '/api/doors/:id/trial',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Makes a token by which the draft is tried on a website',
        refuses: ['not-found', 'site-not-listed'],
        params: DoorById,
        body: TrialAskedSchema.nullish(),
        response: { 200: TrialSchema },
      },
    },
    async (request) => {
      const { door } = ownersDoor(request, request.params);
      // Only to a website of the owner's: whoever claims to be one would be handed the token.
      const seen = store.sightings
        .ofDoor(door.id)
        .find(({ origin }) => isListed(sitesOf(door), origin));
      const [site] = sitesOf(door);
      if (!seen && !site) throw new Refused('site-not-listed');
      const token = dressing.openTrial(door.id, request.body?.greeting);
      // In the fragment: that part of an address is sent to nobody.
      const address = seen?.origin ?? addressOf(site ?? '');
      return { token, url: `${address}/#hello-porch-trial=${token}` };
    },
  );

  app.get(
    '/api/doors/:id/qr.:kind',
    {
      config: { who: 'team' },
      schema: {
        summary: 'The door’s link as a code to scan',
        refuses: ['not-found'],
        produces: ['image/svg+xml', 'image/png'],
        params: DoorById.extend({ kind: z.enum(['svg', 'png']) }),
      },
    },
    async (request, reply) => {
      const door = doorOf(request.params.id);
      const { link } = toDoor(door, services, originOf(request));
      const { kind } = request.params;
      reply.header('content-disposition', `attachment; filename="door-${door.publicId}.${kind}"`);
      const svg = await QRCode.toString(link, { type: 'svg', margin: 4 });
      return kind === 'svg'
        ? reply.type('image/svg+xml').send(svg)
        : reply.type('image/png').send(await drawn(svg, QR_PIXELS));
    },
  );

  app.get(
    '/api/business/colours',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Colours found in the business’s picture',
        refuses: ['not-found'],
        response: { 200: ColoursSchema },
      },
    },
    async () => {
      const id = store.business.read()?.pictureId;
      const bytes = id ? store.pictures.bytes(id) : null;
      if (!bytes) throw new Refused('not-found');
      return coloursOfPicture(await pixelsOf(bytes));
    },
  );

  app.get(
    '/api/countries',
    {
      config: { who: 'team' },
      schema: {
        summary: 'Countries, with that of a time zone first',
        querystring: z.object({ zone: z.string().max(64).default('') }),
        response: {
          200: z.object({ countries: z.array(z.string()), guess: z.string().nullable() }),
        },
      },
    },
    async (request) => {
      return { countries: [...countries], guess: countryOfZone(request.query.zone) };
    },
  );
};
