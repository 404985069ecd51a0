import type { FastifyReply, FastifyRequest } from 'fastify';
import { z } from 'zod';
import { voiceOf } from '../dress/voice';
import { Refused } from '../refused';
import type { Routing } from '../services';
import { type StopPage, stopPage } from './stop-page';

const InPath = z.object({ token: z.string().max(60) });
type Asking = Pick<FastifyRequest<{ Params: { token: string } }>, 'ip' | 'headers' | 'params'>;

const forAnybody = { who: 'anybody' } as const;

const FORM_LARGEST_BYTES = 4_096;

/** Where whoever got a mail says that it was not meant for them, or that no more shall come. */
export const stopRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { replyAddresses, store, visitorMails, dressing, limits, writeNow } = services;

  const look = ({ ip, headers, params }: Asking) => {
    const waitMs = limits.links.take(ip);
    if (waitMs > 0) throw new Refused('too-many', { waitMs });
    const looked = replyAddresses.lookDetail(params.token);
    if (looked.is !== 'visitor') throw new Refused('link-stale');
    const thread = store.threads.byId(looked.record.threadId);
    const asked = (headers['accept-language'] ?? '').split(',');
    const dress = dressing.published(thread?.doorId ?? '');
    const { language, say } = voiceOf(dress, asked);
    return {
      address: looked.record.address,
      say,
      page: { business: store.business.read()?.name ?? '', language, colours: dress.look },
    };
  };

  const send = (reply: FastifyReply, page: StopPage): FastifyReply => {
    const { html, policy } = stopPage(page);
    return reply
      .type('text/html; charset=utf-8')
      .header('cache-control', 'no-store')
      .header('referrer-policy', 'no-referrer')
      .header('content-security-policy', policy)
      .send(html);
  };

  app.get(
    '/mail/stop/:token',
    {
      config: forAnybody,
      logLevel: 'silent',
      schema: {
        summary: 'Asks whether no more mail is to come',
        refuses: ['too-many', 'link-stale'],
        produces: ['text/html'],
        params: InPath,
      },
    },
    async (request, reply) => {
      const { page, say } = look(request);
      const says = say('stopAsk', { business: page.business });
      return send(reply, { ...page, says, button: say('stopDo') });
    },
  );

  // Nothing of what is sent with it is looked at.
  for (const type of ['application/x-www-form-urlencoded', 'multipart/form-data']) {
    const options = { parseAs: 'string', bodyLimit: FORM_LARGEST_BYTES } as const;
    app.addContentTypeParser(type, options, (_request, _body, done) => done(null, {}));
  }

  // A mail program may ask for it by itself, with one click of its reader's (RFC 8058).
  app.post(
    '/mail/stop/:token',
    {
      config: forAnybody,
      logLevel: 'silent',
      schema: {
        summary: 'No more mail goes to the address that the token was made for',
        description: 'One click of a mail program (RFC 8058)',
        refuses: ['too-many', 'link-stale'],
        produces: ['text/html'],
        params: InPath,
      },
    },
    async (request, reply) => {
      const { address, page, say } = look(request);
      writeNow(() => ({ result: null, news: visitorMails.stop(address) }));
      return send(reply, { ...page, says: say('stopped'), button: null });
    },
  );
};
