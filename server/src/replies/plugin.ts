import { IdSchema } from '@porch/contract/entries';
import {
  FitsSchema,
  QuickRepliesSchema,
  QuickReplyChangeSchema,
  QuickReplySchema,
  TableFormSchema,
  TakenInSchema,
} from '@porch/contract/replies';
import { z } from 'zod';
import { memberOf } from '../accounts/asking';
import { sentBytes } from '../files/sent-bytes';
import type { Routing } from '../services';
import { tableRefusals } from '../tables/reading';

const forTeam = { who: 'team' } as const;
const ById = z.object({ id: IdSchema });
const TABLE_LARGEST_BYTES = 8 * 1024 * 1024;

/** Stored answers: used and written by everybody of the team; somebody's own by themselves only. */
export const repliesRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { quickReplies, replyTables, fitting } = services;

  app.get(
    '/api/quick-replies',
    {
      config: forTeam,
      schema: {
        summary: 'Stored answers',
        description: 'Nothing is told that is the same as at the mark `known`',
        querystring: z.object({ known: z.string().max(60).default('') }),
        response: { 200: QuickRepliesSchema },
      },
    },
    async (request) => quickReplies.of(memberOf(request).id, request.query.known),
  );

  app.get(
    '/api/conversations/:id/fits',
    {
      config: forTeam,
      schema: {
        summary: 'Stored or earlier answers that may fit what was said',
        description: 'Three at most, with the `words` that both have',
        refuses: ['not-found'],
        params: ById,
        response: { 200: FitsSchema },
      },
    },
    async (request) => fitting.of(request.params.id, memberOf(request).id),
  );

  app.put(
    '/api/quick-replies/:id',
    {
      config: forTeam,
      schema: {
        summary: 'Keeps a stored answer',
        description: 'It says on which `revision` it builds',
        refuses: [
          'not-found',
          'changed-meanwhile',
          'text-empty',
          'text-too-long',
          'too-many-of-these',
          'short-code-taken',
          'file-unknown',
          'shelf-gone',
        ],
        params: ById,
        body: QuickReplyChangeSchema,
        response: { 200: QuickReplySchema },
      },
    },
    async (request) => quickReplies.put(request.params.id, request.body, memberOf(request).id),
  );

  app.delete(
    '/api/quick-replies/:id',
    {
      config: forTeam,
      schema: {
        summary: 'Takes a stored answer away',
        refuses: ['not-found'],
        params: ById,
        response: { 204: z.null() },
      },
    },
    async (request, reply) => {
      quickReplies.drop(request.params.id, memberOf(request).id);
      return reply.status(204).send(null);
    },
  );

  app.post(
    '/api/quick-replies/table',
    {
      config: forTeam,
      bodyLimit: TABLE_LARGEST_BYTES,
      schema: {
        summary: 'Takes stored answers from a table',
        refuses: ['table-in-work', ...tableRefusals],
        consumes: ['application/octet-stream'],
        querystring: TableFormSchema.extend({ language: z.string().max(3).default('en') }),
        response: { 200: TakenInSchema },
      },
    },
    async (request) => {
      const { as, language } = request.query;
      return replyTables.take(as, sentBytes(request), memberOf(request).id, language);
    },
  );

  app.get(
    '/api/quick-replies/table',
    {
      config: forTeam,
      schema: {
        summary: 'Stored answers as a table',
        produces: ['text/csv', 'application/json'],
        querystring: TableFormSchema,
      },
    },
    async (request, reply) => {
      const { as } = request.query;
      return reply
        .header('content-type', as === 'csv' ? 'text/csv; charset=utf-8' : 'application/json')
        .header('content-disposition', `attachment; filename="quick-replies.${as}"`)
        .send(replyTables.give(as, memberOf(request).id));
    },
  );
};
