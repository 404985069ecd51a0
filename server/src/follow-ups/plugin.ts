import {
  FeedSchema,
  FollowUpsPageSchema,
  MakeFeedSchema,
  NewFeedSchema,
} from '@porch/contract/follow-ups';
import { z } from 'zod';
import { askingOf, memberOf } from '../accounts/asking';
import { passwordRefusals } from '../accounts/attempts';
import { Refused } from '../refused';
import type { Routing } from '../services';

const After = z.object({ after: z.string().max(80).optional() });

/** What is owed: its list for the team, and the calendar of each of them. */
export const followUpsRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { accounts, followUps, originOf } = services;
  const page = { querystring: After, response: { 200: FollowUpsPageSchema } };

  app.get(
    '/api/follow-ups',
    { config: { who: 'team' }, schema: { summary: 'What is owed', ...page } },
    async (request) => followUps.due(request.query.after ?? null),
  );

  app.get(
    '/api/follow-ups/late',
    {
      config: { who: 'team' },
      schema: {
        summary: 'How much of what is owed is late',
        response: { 200: z.object({ late: z.number().int().nonnegative() }) },
      },
    },
    async () => ({ late: followUps.late() }),
  );

  app.get(
    '/api/follow-ups/done',
    { config: { who: 'team' }, schema: { summary: 'What was owed and is done', ...page } },
    async (request) => followUps.done(request.query.after ?? null),
  );

  app.get(
    '/api/me/feed',
    {
      config: { who: 'team' },
      schema: {
        summary: 'Whether one’s follow-ups can be read as a calendar',
        response: { 200: FeedSchema },
      },
    },
    async (request) => ({ madeAt: followUps.feedMadeAt(memberOf(request).id) }),
  );

  app.post(
    '/api/me/feed',
    {
      config: { who: 'team' },
      schema: {
        summary: 'Makes a new address for the calendar of one’s follow-ups',
        refuses: [...passwordRefusals],
        body: MakeFeedSchema,
        response: { 200: NewFeedSchema },
      },
    },
    async (request) => {
      const { password } = request.body;
      await accounts.prove(askingOf(request), password, 'password');
      return { address: followUps.renewFeed(memberOf(request).id, originOf(request)) };
    },
  );

  app.delete(
    '/api/me/feed',
    {
      config: { who: 'team' },
      schema: { summary: 'Ends the calendar of one’s follow-ups', response: { 204: z.null() } },
    },
    async (request, reply) => {
      followUps.dropFeed(memberOf(request).id);
      return reply.code(204).send(null);
    },
  );
};

/** Calendars by their secret addresses, for programs that cannot sign in. */
export const feedRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { followUps, limits, originOf } = services;
  app.get(
    '/feeds/:secret.ics',
    {
      config: { who: 'anybody' },
      // An address is a secret: it stands in no log.
      logLevel: 'silent',
      schema: {
        summary: 'A member’s follow-ups as a calendar',
        refuses: ['too-many', 'not-found'],
        produces: ['text/calendar'],
        params: z.object({ secret: z.string().max(60) }),
      },
    },
    async (request, reply) => {
      const waitMs = limits.feeds.take(request.ip);
      if (waitMs > 0) throw new Refused('too-many', { waitMs });
      const calendar = followUps.calendar(request.params.secret, originOf(request));
      if (calendar === null) throw new Refused('not-found');
      return reply
        .type('text/calendar; charset=utf-8')
        .header('cache-control', 'private, no-store')
        .send(calendar);
    },
  );
};
