import { IdSchema } from '@porch/contract/entries';
import { frameAncestors } from '@porch/core/website';
import type { FastifyReply } from 'fastify';
import { z } from 'zod';
import { sitesOf } from '../doors/website/kind';
import { emojiPage } from '../doors/website/page';
import { emojiPolicy, framed } from '../security/headers';
import type { Routing } from '../services';

const InLanguage = z.object({ language: z.string().max(20).default('') });

/** The picker of emoji, in a frame of the app, and of a door's panel on its websites. */
export const emojiRoutes = async ({ app, services, panelFiles }: Routing): Promise<void> => {
  const send = (reply: FastifyReply, language: string, ancestors: string) =>
    reply
      .headers({
        ...framed,
        'content-security-policy': emojiPolicy(ancestors),
        'cache-control': 'no-cache',
      })
      .type('text/html; charset=utf-8')
      .send(emojiPage(panelFiles.emoji, language.slice(0, 2).toLowerCase()));

  app.get(
    '/widget/emoji',
    {
      config: { who: 'anybody' },
      schema: {
        summary: 'The emoji picker of the app',
        produces: ['text/html'],
        querystring: InLanguage,
      },
    },
    async (request, reply) => send(reply, request.query.language, "'self'"),
  );

  app.get(
    '/door/:door/emoji',
    {
      config: { who: 'anybody' },
      schema: {
        summary: 'The emoji picker of a panel',
        refuses: ['not-found'],
        produces: ['text/html'],
        params: z.object({ door: IdSchema }),
        querystring: InLanguage,
      },
    },
    async (request, reply) => {
      const sites = sitesOf(services.website.door(request.params.door));
      return send(reply, request.query.language, frameAncestors(sites));
    },
  );
};
