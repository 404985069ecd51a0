import {
  FILE_LARGEST_BYTES,
  FileMentionSchema,
  IdSchema,
  SeqSchema,
} from '@porch/contract/entries';
import { DoorChangeSchema, DoorSchema } from '@porch/contract/team';
import { type DoorConfiguration, SaySchema, VisitorTokenSchema } from '@porch/contract/visitor';
import { frameAncestors, toSite } from '@porch/core/website';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { z } from 'zod';
import { memberAsking } from '../accounts/plugin';
import { asThumbnail } from '../files/plugin';
import { nameOf, serveFile } from '../files/serve';
import { toDoor } from '../house/house';
import type { Sender } from '../inbox/receive';
import { Refused } from '../refused';
import { panelPolicy } from '../security/headers';
import { isOwnOrigin } from '../security/origins';
import { hashSecret } from '../security/tokens';
import type { Room } from '../services';
import type { DoorRecord } from '../store';
import { panelPage } from './page';
import { servePanel } from './socket';

const DoorInPath = z.object({ door: IdSchema });
const FileOfDoor = DoorInPath.extend({ id: IdSchema });

/** How long a website may keep the loader's configuration; the lamp is corrected live meanwhile. */
const CONFIGURATION_SECONDS = 30;
const PLATE_PULSE_MS = 25_000;

/** The website door: what a business's website, a visitor's panel and the team's settings ask of it. */
export const doorsRoom = async ({ app, services, panelFiles }: Room): Promise<void> => {
  const { website, store, clock, lamp, hub, receive, files, limits } = services;

  const businessName = (): string => store.business.read()?.name ?? '';

  const listedOrigin = (request: FastifyRequest, door: DoorRecord): string => {
    const origin = request.headers.origin ?? '';
    website.refuseUnlisted(door, origin);
    return origin;
  };

  /** Who a visitor's token says they are. It comes in a header: addresses end up in logs. */
  const senderAsking = (request: FastifyRequest, door: DoorRecord): Sender => {
    const token = VisitorTokenSchema.safeParse(
      request.headers.authorization?.replace(/^Bearer /, ''),
    );
    if (!token.success) throw new Refused('token-unknown');
    const site = request.headers['x-site'];
    if (typeof site === 'string' && site) website.refuseUnlisted(door, site);
    return { doorId: door.id, tokenHash: hashSecret(token.data) };
  };

  const conversationAsking = (request: FastifyRequest, door: DoorRecord) => {
    const sender = senderAsking(request, door);
    const conversation = receive.conversationOf(sender);
    if (!conversation) throw new Refused('not-found');
    return conversation;
  };

  app.get(
    '/door/:door/configuration.js',
    { schema: { params: DoorInPath, hide: true } },
    async (request, reply) => {
      const door = website.door(request.params.door);
      reply.headers({
        'access-control-allow-origin': listedOrigin(request, door),
        vary: 'origin',
        'cache-control': `public, max-age=${CONFIGURATION_SECONDS}`,
      });
      const configuration: DoorConfiguration = {
        door: door.publicId,
        business: businessName(),
        lamp: lamp.now(),
        now: clock.now(),
      };
      return reply
        .type('text/javascript')
        .send(`export default ${JSON.stringify(configuration)};\n`);
    },
  );

  app.get('/door/:door/lamp', { schema: { params: DoorInPath, hide: true } }, (request, reply) => {
    const door = website.door(request.params.door);
    const origin = listedOrigin(request, door);
    reply.hijack();
    const { raw } = reply;
    raw.writeHead(200, {
      'access-control-allow-origin': origin,
      vary: 'origin',
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    });
    const send = (text: string) => raw.write(text);
    const tell = (state: unknown, now: number) =>
      send(`data: ${JSON.stringify({ lamp: state, now })}\n\n`);
    tell(lamp.now(), clock.now());
    const leave = hub.addPlate({ send: tell, close: () => raw.end() });
    const pulse = setInterval(() => send(':\n\n'), PLATE_PULSE_MS);
    raw.on('error', () => raw.destroy());
    raw.on('close', () => {
      clearInterval(pulse);
      leave();
    });
  });

  const sendPage = (reply: FastifyReply, door: DoorRecord, place: 'frame' | 'page') =>
    reply
      .headers({
        'content-security-policy': panelPolicy(
          place === 'frame' ? frameAncestors(door.sites) : "'none'",
        ),
        'cache-control': 'no-store',
      })
      .type('text/html; charset=utf-8')
      .send(panelPage(panelFiles, door, businessName(), place));

  app.get(
    '/door/:door/panel',
    { schema: { params: DoorInPath, hide: true } },
    async (request, reply) => sendPage(reply, website.door(request.params.door), 'frame'),
  );

  app.get('/talk/:door', { schema: { params: DoorInPath, hide: true } }, async (request, reply) =>
    sendPage(reply, website.door(request.params.door), 'page'),
  );

  app.get(
    '/door/:door/live',
    {
      websocket: true,
      schema: { params: DoorInPath },
      preValidation: async (request) => {
        if (!isOwnOrigin(request)) throw new Refused('origin-not-ours');
        website.door(request.params.door);
      },
    },
    (socket, request) => {
      servePanel(services, website.door(request.params.door), socket, request);
    },
  );

  app.get(
    '/door/:door/entries',
    {
      schema: {
        params: DoorInPath,
        querystring: z.object({
          before: z.coerce.number().pipe(SeqSchema).optional(),
          since: z.coerce.number().pipe(SeqSchema).optional(),
        }),
      },
    },
    async (request) => {
      const door = website.door(request.params.door);
      const conversation = conversationAsking(request, door);
      const { before, since } = request.query;
      const missed = since === undefined ? null : website.since(conversation, since);
      return missed ?? website.before(conversation, before ?? Number.MAX_SAFE_INTEGER);
    },
  );

  app.post(
    '/door/:door/entries',
    { schema: { params: DoorInPath, body: SaySchema, response: { 204: z.null() } } },
    async (request, reply) => {
      const door = website.door(request.params.door);
      const sender = senderAsking(request, door);
      const waitMs =
        limits.messages.take(sender.tokenHash) ||
        (receive.conversationOf(sender) ? 0 : limits.newVisitors.take(request.ip));
      if (waitMs) throw new Refused('too-many', { waitMs });
      await receive.message(sender, request.body, hub.isHere(sender.tokenHash));
      return reply.status(204).send(null);
    },
  );

  app.put(
    '/door/:door/files/:id',
    {
      bodyLimit: FILE_LARGEST_BYTES + 1,
      schema: { params: FileOfDoor, response: { 200: FileMentionSchema } },
    },
    async (request) => {
      const door = website.door(request.params.door);
      const sender = senderAsking(request, door);
      const waitMs = limits.uploads.take(request.ip);
      if (waitMs) throw new Refused('too-many', { waitMs });
      const visitor = receive.visitorFor(sender);
      const bytes = request.body as Buffer;
      return files.take(request.params.id, nameOf(request), bytes, { visitorId: visitor.id });
    },
  );

  app.get(
    '/door/:door/files/:id',
    { schema: { params: FileOfDoor, querystring: asThumbnail } },
    async (request, reply) => {
      const conversation = conversationAsking(request, website.door(request.params.door));
      const file = files.find(request.params.id);
      if (file.conversationId !== conversation.id) throw new Refused('not-found');
      return serveFile(reply, files, file, request.query.size === 'thumbnail');
    },
  );

  app.put(
    '/api/doors/:id',
    {
      schema: {
        params: z.object({ id: IdSchema }),
        body: DoorChangeSchema,
        response: { 200: DoorSchema },
      },
    },
    async (request) => {
      const { role } = memberAsking(services, request);
      if (role !== 'owner') throw new Refused('role-not-enough');
      const door = store.doors.byId(request.params.id);
      if (!door) throw new Refused('not-found');
      const sites = request.body.sites.map((typed) => {
        const site = toSite(typed);
        if (!site) throw new Refused('site-not-understood', { field: 'sites' });
        return site;
      });
      const changed = { ...door, sites: [...new Set(sites)] };
      store.doors.setSites(door.id, changed.sites);
      return toDoor(changed, services.originOf(request));
    },
  );
};
