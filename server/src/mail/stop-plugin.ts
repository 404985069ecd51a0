import { chooseLanguage, directionOf, fillGaps } from '@porch/core/door-texts';
import { languagesOf, textsOf } from '@porch/core/dress';
import type { FastifyReply } from 'fastify';
import { z } from 'zod';
import { Refused } from '../refused';
import type { Routing } from '../services';

const InPath = z.object({ token: z.string().max(60) });
const forAnybody = { who: 'anybody' } as const;

const FORM_LARGEST_BYTES = 4_096;

const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** Where whoever got a mail says that it was not meant for them, or that no more shall come. */
export const stopRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { replyAddresses, store, clock, dressing, limits, writeNow } = services;

  const look = (ip: string, token: string) => {
    const waitMs = limits.links.take(ip);
    if (waitMs > 0) throw new Refused('too-many', { waitMs });
    const looked = replyAddresses.lookDetail(token);
    if (looked.is !== 'visitor') throw new Refused('link-stale');
    const thread = store.threads.byId(looked.record.threadId);
    const dress = dressing.published(thread?.doorId ?? '');
    const language = chooseLanguage([], languagesOf(dress), dress.fallback);
    return { address: looked.record.address, language, texts: textsOf(dress, language) };
  };

  const page = (reply: FastifyReply, language: string, inside: string): FastifyReply =>
    reply
      .type('text/html; charset=utf-8')
      .header('cache-control', 'no-store')
      .header('referrer-policy', 'no-referrer')
      .header(
        'content-security-policy',
        "default-src 'none'; style-src 'self'; form-action 'self'; frame-ancestors 'none'",
      )
      .send(
        `<!doctype html><html lang="${escaped(language)}" dir="${directionOf(language)}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escaped(store.business.read()?.name ?? '')}</title><link rel="stylesheet" href="/app.css"></head><body><main>${inside}</main></body></html>`,
      );

  app.get(
    '/mail/stop/:token',
    { config: forAnybody, logLevel: 'silent', schema: { hide: true, params: InPath } },
    async (request, reply) => {
      const { language, texts } = look(request.ip, request.params.token);
      const business = store.business.read()?.name ?? '';
      const asked = fillGaps(texts.stopAsk, { business });
      return page(
        reply,
        language,
        `<h1>${escaped(business)}</h1><p>${escaped(asked)}</p><form method="post"><button type="submit">${escaped(texts.stopDo)}</button></form>`,
      );
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
    { config: forAnybody, logLevel: 'silent', schema: { hide: true, params: InPath } },
    async (request, reply) => {
      const { address, language, texts } = look(request.ip, request.params.token);
      writeNow(() => {
        store.visitorMail.stop(address, clock.now());
        return { result: null, news: [] };
      });
      return page(reply, language, `<h1>${escaped(texts.stopped)}</h1>`);
    },
  );
};
