import {
  FILE_LARGEST_BYTES,
  FileMentionSchema,
  IdSchema,
  SeqSchema,
} from '@porch/contract/entries';
import {
  type LetterToVisitor,
  type OtherWays,
  SOCKET_FRAME_LARGEST_BYTES,
  type ToVisitor,
  type TrialData,
  VisitorLetterSchema,
  VisitorTokenSchema,
} from '@porch/contract/visitor';
import type { ThreadState } from '@porch/core/conversation';
import type { Dress } from '@porch/core/dress';
import { frameAncestors } from '@porch/core/website';
import type { FastifyReply, FastifyRequest } from 'fastify';
import { z } from 'zod';
import { pictureRefusals } from '../../files/intake';
import { asThumbnail } from '../../files/plugin';
import { sentBytes } from '../../files/sent-bytes';
import { nameOf, serveFile } from '../../files/serve';
import { Refused } from '../../refused';
import { addressKey } from '../../security/addresses';
import { everywhere, framed, panelPolicy, previewPolicy } from '../../security/headers';
import { hashSecret } from '../../security/tokens';
import type { Routing } from '../../services';
import type { DoorRecord } from '../../store';
import { sitesOf } from './kind';
import { panelPage, previewPage } from './page';
import { servePanel } from './socket';
import { openTalk } from './talk';
import type { Visitor } from './visiting';

/** In which language a visitor agreed to be kept, as the panel says beside a file; null: they did not. */
const consentIn = (request: FastifyRequest): string | null => {
  const consent = request.headers['x-consent'];
  return typeof consent === 'string' ? consent : null;
};

const DoorInPath = z.object({ door: IdSchema });
const FileOfDoor = DoorInPath.extend({ id: IdSchema });
const InLanguage = z.object({ language: z.string().max(20).default('') });
const PanelAsked = InLanguage.extend({ draft: z.enum(['trial', 'preview']).optional() });
const PreviewAsked = z.object({ door: z.enum(['open', 'closed']).default('open') });
const PageOfPlate = z.object({ page: z.string().max(1_000).default('') });

/** In which languages a request would like to be answered: as it says, then as its browser does. */
const languagesAsked = (request: FastifyRequest, language: string): string[] => [
  ...(language ? [language] : []),
  ...String(request.headers['accept-language'] ?? '').split(','),
];

/** How long a website may keep the loader's configuration; the lamp is corrected live meanwhile. */
const CONFIGURATION_SECONDS = 30;
const PLATE_PULSE_MS = 25_000;
const LETTER_LARGEST_BYTES = 4 * SOCKET_FRAME_LARGEST_BYTES;
/** Whoever does not read where the lamp's state is told is cut off; they come back and are told anew. */
const LAMP_UNREAD_MOST_BYTES = 16 * 1024;

declare module 'fastify' {
  interface FastifyRequest {
    visitor: Visitor | null;
  }
}

const forAnybody = { who: 'anybody' } as const;

/** The website door: what a business's website and a visitor's panel ask of it. */
export const websiteRoutes = async ({
  app,
  services,
  settings,
  panelFiles,
}: Routing): Promise<void> => {
  const { website, clock, lamp, hub, visiting, files, limits, dressing, shown } = services;
  const { sightings, connections, isOwnOrigin, ringing, report, store } = services;

  const listedOrigin = (request: FastifyRequest, door: DoorRecord, page: string): string => {
    const origin = request.headers.origin ?? '';
    // Also where it is not allowed: the owner is told, and may allow it.
    sightings.note(door, origin, page);
    website.refuseUnlisted(door, origin);
    return origin;
  };

  const configurationOf = (request: FastifyRequest, door: DoorRecord, dress: Dress) => {
    const { language } = request.query as z.infer<typeof InLanguage>;
    const state = { lamp: lamp.atDoor(door.id), now: clock.now() };
    return {
      ...shown.configuration(door, dress, languagesAsked(request, language), state),
      more: `/widget/${panelFiles.more}`,
    };
  };

  /** The door in a path, before anything else of the request has been read. */
  const doorInPath = (request: FastifyRequest): DoorRecord => {
    const params = DoorInPath.safeParse(request.params);
    if (!params.success) throw new Refused('not-found');
    return website.door(params.data.door);
  };

  const openDoorInPath = (request: FastifyRequest): DoorRecord =>
    website.openDoor(doorInPath(request).publicId);

  /** Who a visitor's token says they are. It comes in a header: addresses end up in logs. */
  const visitorAsking = (request: FastifyRequest, door: DoorRecord): Visitor => {
    const token = VisitorTokenSchema.safeParse(
      request.headers.authorization?.replace(/^Bearer /, ''),
    );
    if (!token.success) throw new Refused('token-unknown');
    const site = request.headers['x-site'];
    if (typeof site === 'string' && site) website.refuseUnlisted(door, site);
    return { doorId: door.id, tokenHash: hashSecret(token.data) };
  };

  // Who asks is found out before anything else of the request is read.
  app.decorateRequest('visitor', null);
  app.addHook('onRequest', async (request) => {
    if (request.routeOptions.config.who !== 'visitor') return;
    request.visitor = visitorAsking(request, doorInPath(request));
  });

  const visitorOf = (request: FastifyRequest): Visitor => {
    if (!request.visitor) throw new Refused('token-unknown');
    return request.visitor;
  };

  const threadOf = (request: FastifyRequest): ThreadState => {
    const thread = visiting.stateOf(visitorOf(request));
    if (!thread) throw new Refused('not-found');
    return thread;
  };

  app.get(
    '/door/:door/configuration.js',
    {
      config: forAnybody,
      schema: {
        summary: 'What the loader asks',
        description: 'For listed websites only (CORS)',
        refuses: ['not-found', 'door-closed', 'site-not-listed'],
        produces: ['text/javascript'],
        params: DoorInPath,
        querystring: InLanguage,
      },
    },
    async (request, reply) => {
      const door = website.openDoor(request.params.door);
      reply.headers({
        'access-control-allow-origin': listedOrigin(request, door, ''),
        vary: 'origin',
        'cache-control': `public, max-age=${CONFIGURATION_SECONDS}`,
      });
      const configuration = configurationOf(request, door, dressing.published(door.id));
      return reply
        .type('text/javascript')
        .send(`export default ${JSON.stringify(configuration)};\n`);
    },
  );

  app.options(
    '/door/:door/trial',
    {
      config: forAnybody,
      schema: {
        summary: 'Whether a website may ask for the draft',
        refuses: ['not-found', 'door-closed', 'site-not-listed'],
        response: { 204: z.null() },
        params: DoorInPath,
      },
    },
    async (request, reply) => {
      const door = website.openDoor(request.params.door);
      return reply
        .headers({
          'access-control-allow-origin': listedOrigin(request, door, ''),
          'access-control-allow-headers': 'authorization',
          vary: 'origin',
        })
        .status(204)
        .send(null);
    },
  );

  app.get(
    '/door/:door/trial',
    {
      config: forAnybody,
      schema: {
        summary: 'The draft, for whoever has the trial’s token',
        description: 'Its token as `Authorization: Bearer`',
        refuses: ['not-found', 'door-closed', 'site-not-listed', 'link-stale'],
        produces: ['application/json'],
        params: DoorInPath,
        querystring: InLanguage,
      },
    },
    async (request, reply): Promise<TrialData> => {
      const door = website.openDoor(request.params.door);
      const origin = listedOrigin(request, door, '');
      reply.headers({
        'access-control-allow-origin': origin,
        vary: 'origin',
        'cache-control': 'no-store',
      });
      const token = request.headers.authorization?.replace(/^Bearer /, '') ?? '';
      const dress = dressing.tried(door.id, token, addressKey(request.ip));
      return {
        configuration: configurationOf(request, door, dress),
        view: shown.view(door, dress, languagesAsked(request, request.query.language)),
      };
    },
  );

  const followLamp = {
    summary: 'The light as an event stream',
    refuses: ['not-found', 'door-closed', 'site-not-listed', 'too-many'] as const,
    params: DoorInPath,
    querystring: PageOfPlate,
    produces: ['text/event-stream'],
  };
  app.get('/door/:door/lamp', { config: forAnybody, schema: followLamp }, (request, reply) => {
    connections.refuseIfTooMany(request.ip);
    const door = website.openDoor(request.params.door);
    const origin = listedOrigin(request, door, request.query.page);
    ringing.landed(door.id, request.query.page).catch(report);
    reply.hijack();
    const { raw } = reply;
    raw.writeHead(200, {
      ...everywhere,
      'access-control-allow-origin': origin,
      vary: 'origin',
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    });
    const send = (text: string): void => {
      if (raw.writableLength > LAMP_UNREAD_MOST_BYTES) raw.destroy();
      else raw.write(text);
    };
    const disconnect = connections.add(request.ip);
    const tell = (state: unknown, now: number) =>
      send(`data: ${JSON.stringify({ lamp: state, now })}\n\n`);
    tell(lamp.atDoor(door.id), clock.now());
    const leave = hub.addPlate({ doorId: door.id, send: tell, close: () => raw.end() });
    const pulse = setInterval(() => send(':\n\n'), PLATE_PULSE_MS);
    raw.on('error', () => raw.destroy());
    raw.on('close', () => {
      clearInterval(pulse);
      leave();
      disconnect();
    });
  });

  const sendPage = (
    request: FastifyRequest,
    reply: FastifyReply,
    place: 'frame' | 'page',
    { door: publicId, language, draft }: z.infer<typeof DoorInPath> & z.infer<typeof PanelAsked>,
  ) => {
    const door = website.door(publicId);
    const view = shown.view(door, dressing.published(door.id), languagesAsked(request, language));
    const data = {
      door: door.publicId,
      place: (place === 'frame' && draft) || place,
      view,
      isClosed: door.closedAt !== null,
    };
    // The link's page may stand in a frame of our own: the owner tries it there.
    const ancestors = frameAncestors(place === 'frame' ? sitesOf(door) : []);
    return reply
      .headers({
        ...framed,
        'content-security-policy': panelPolicy(ancestors),
        'cache-control': 'no-store',
      })
      .type('text/html; charset=utf-8')
      .send(panelPage(panelFiles, data));
  };

  const asPanel = { params: DoorInPath, querystring: PanelAsked, produces: ['text/html'] };
  app.get(
    '/door/:door/panel',
    {
      config: forAnybody,
      schema: { summary: 'The panel in a frame', refuses: ['not-found'], ...asPanel },
    },
    async (request, reply) =>
      sendPage(request, reply, 'frame', { ...request.params, ...request.query }),
  );

  app.get(
    '/talk/:door',
    {
      config: forAnybody,
      schema: { summary: 'The panel on a page of its own', refuses: ['not-found'], ...asPanel },
    },
    async (request, reply) =>
      sendPage(request, reply, 'page', { ...request.params, ...request.query }),
  );

  app.get(
    '/door/:door/preview',
    {
      config: forAnybody,
      schema: {
        summary: 'The dressing room’s imaginary website',
        refuses: ['not-found'],
        produces: ['text/html'],
        params: DoorInPath,
        querystring: PreviewAsked,
      },
    },
    async (request, reply) => {
      const door = website.door(request.params.door);
      return reply
        .headers({ 'content-security-policy': previewPolicy(), 'cache-control': 'no-store' })
        .type('text/html; charset=utf-8')
        .send(previewPage(panelFiles, shown.business(door).name, request.query.door));
    },
  );

  app.get(
    '/door/:door/live',
    {
      config: forAnybody,
      websocket: true,
      schema: {
        summary: 'The socket of a visitor’s panel',
        refuses: ['not-found', 'origin-not-ours', 'too-many'],
        params: DoorInPath,
      },
      onRequest: async (request) => {
        if (!isOwnOrigin(request)) throw new Refused('origin-not-ours');
        connections.refuseIfTooMany(request.ip);
        doorInPath(request);
      },
    },
    (socket, request) => {
      servePanel({ services, settings }, website.door(request.params.door), socket, request);
    },
  );

  app.post(
    '/door/:door/letters',
    {
      config: forAnybody,
      bodyLimit: LETTER_LARGEST_BYTES,
      schema: {
        summary: 'The socket’s words as a letter, where no socket is let through',
        description: '`{ says: [hello, …] }`, at most 8, answered by `{ says: […] }`',
        refuses: ['not-found', 'too-many'],
        produces: ['application/json'],
        params: DoorInPath,
        body: VisitorLetterSchema,
      },
      onRequest: async (request) => {
        doorInPath(request);
        const waitMs = limits.letters.take(addressKey(request.ip));
        if (waitMs) throw new Refused('too-many', { waitMs });
      },
    },
    async (request): Promise<LetterToVisitor> => {
      const says: ToVisitor[] = [];
      const talk = openTalk(services, website.door(request.params.door), request.ip, (message) =>
        says.push(message),
      );
      try {
        for (const message of request.body.says) if (!(await talk.hear(message))) break;
      } finally {
        talk.end();
      }
      return { says };
    },
  );

  app.post(
    '/door/:door/ways',
    {
      schema: {
        summary: 'By which other doors the conversation may go on',
        refuses: ['too-many'],
        produces: ['application/json'],
        params: DoorInPath,
        body: z.object({ language: z.string().max(20) }),
      },
    },
    async (request): Promise<OtherWays> => {
      const visitor = visitorOf(request);
      if (limits.hints.take(visitor.tokenHash)) throw new Refused('too-many', { waitMs: 10_000 });
      return services.otherWays.waysFor(visitor, request.body.language);
    },
  );

  app.get(
    '/door/:door/entries',
    {
      schema: {
        summary: 'Older entries, and those since one',
        produces: ['application/json'],
        params: DoorInPath,
        querystring: z.object({
          before: z.coerce.number().pipe(SeqSchema).optional(),
          since: z.coerce.number().pipe(SeqSchema).optional(),
          last: IdSchema.optional(),
        }),
      },
    },
    async (request) => {
      const thread = threadOf(request);
      const { before, since, last } = request.query;
      const missed = since === undefined ? null : website.since(thread, since, last ?? null);
      return missed ?? website.before(thread, before ?? Number.MAX_SAFE_INTEGER);
    },
  );

  app.put(
    '/door/:door/files/:id',
    {
      bodyLimit: FILE_LARGEST_BYTES + 1,
      schema: {
        summary: 'Takes a file of the visitor',
        refuses: ['door-closed', 'consent-needed', 'id-taken', ...pictureRefusals],
        consumes: ['application/octet-stream'],
        params: FileOfDoor,
        response: { 200: FileMentionSchema },
      },
      // Door, token, consent and limits are looked at before ten megabytes are read.
      onRequest: async (request) => {
        openDoorInPath(request);
        const visitor = visitorOf(request);
        const waitMs = limits.uploads.take(addressKey(request.ip));
        if (waitMs) throw new Refused('too-many', { waitMs });
        visiting.refuseWithoutConsent(visitor, consentIn(request));
      },
    },
    async (request) => {
      website.openDoor(request.params.door);
      const visitor = visitorOf(request);
      const thread = visiting.threadFor(visitor, consentIn(request));
      const by = { threadId: thread.id, address: addressKey(request.ip) };
      return files.take(request.params.id, nameOf(request), sentBytes(request), by);
    },
  );

  app.get(
    '/door/:door/files/:id',
    {
      schema: {
        summary: 'A file of this conversation',
        produces: ['*/*'],
        params: FileOfDoor,
        querystring: asThumbnail,
      },
    },
    async (request, reply) => {
      const { threadId } = threadOf(request);
      const file = files.find(request.params.id);
      // A picture of a card is of all who come to the door.
      const isCards = store.cards.hasFile(website.door(request.params.door).id, file.id);
      // One of the shelf is of all to whom it was said.
      const isTheirs = file.inThread === threadId || store.shelf.isSaidTo(file.id, threadId);
      if (!isTheirs && !isCards) throw new Refused('not-found');
      return serveFile(reply, files, file, request.query.size === 'thumbnail');
    },
  );
};
