import { Readable } from 'node:stream';
import { IdSchema, ShelfSaidSchema } from '@porch/contract/entries';
import { TableFormSchema } from '@porch/contract/replies';
import {
  SHELF_TABLE_LARGEST_BYTES,
  ShelfChangeSchema,
  ShelfNearSchema,
  ShelfPageSchema,
  ShelfShownSchema,
  ShelfTablesSchema,
  ShelfTakenSchema,
} from '@porch/contract/shelf';
import { shelfKinds } from '@porch/core/shelf';
import { z } from 'zod';
import { memberOf } from '../accounts/asking';
import { sentBytes } from '../files/sent-bytes';
import { Refused } from '../refused';
import type { Routing } from '../services';
import type { ConversationRecord } from '../store';
import { tableRefusals } from '../tables/reading';

const forTeam = { who: 'team' } as const;
const forOwner = { who: 'owner' } as const;
const ById = z.object({ id: IdSchema });
const QUERY_LONGEST = 200;

const types = { csv: 'text/csv; charset=utf-8', json: 'application/ld+json; charset=utf-8' };

/** The shelf: written and used by everybody of the team; read in and written out, whole, by its owners. */
export const shelfRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { shelf, shelfSaying, shelfTables, store } = services;

  const conversationOf = (id: string): ConversationRecord => {
    const conversation = store.conversations.byId(id);
    if (!conversation) throw new Refused('not-found');
    return conversation;
  };

  app.get(
    '/api/shelf',
    {
      config: forTeam,
      schema: {
        summary: 'A page of the shelf',
        querystring: z.object({
          kind: z.enum(shelfKinds).optional(),
          query: z.string().max(QUERY_LONGEST).default(''),
          after: z.string().max(1_000).default(''),
        }),
        response: { 200: ShelfPageSchema },
      },
    },
    async (request) => {
      const { kind = null, query, after } = request.query;
      return shelf.page({ kind, query, after });
    },
  );

  app.get(
    '/api/shelf/:id',
    {
      config: forTeam,
      schema: {
        summary: 'A thing of the shelf',
        refuses: ['not-found'],
        params: ById,
        response: { 200: ShelfShownSchema },
      },
    },
    async (request) => shelf.of(request.params.id),
  );

  app.put(
    '/api/shelf/:id',
    {
      config: forTeam,
      schema: {
        summary: 'Keeps a thing of the shelf',
        description: 'It says on which `revision` it builds',
        refuses: [
          'not-found',
          'changed-meanwhile',
          'text-empty',
          'text-too-long',
          'too-many-of-these',
          'number-out-of-range',
          'price-not-understood',
          'link-not-understood',
          'shelf-taken',
          'file-unknown',
        ],
        params: ById,
        body: ShelfChangeSchema,
        response: { 200: ShelfShownSchema },
      },
    },
    async (request) => shelf.put(request.params.id, request.body),
  );

  app.delete(
    '/api/shelf/:id',
    {
      config: forTeam,
      schema: { summary: 'Takes a thing off the shelf', params: ById, response: { 204: z.null() } },
    },
    async (request, reply) => {
      shelf.drop(request.params.id);
      return reply.status(204).send(null);
    },
  );

  app.get(
    '/api/shelf-tables',
    {
      config: forOwner,
      schema: { summary: 'How far the taking of a table is', response: { 200: ShelfTablesSchema } },
    },
    async () => shelfTables.shown(),
  );

  app.post(
    '/api/shelf-tables',
    {
      config: forOwner,
      bodyLimit: SHELF_TABLE_LARGEST_BYTES,
      schema: {
        summary: 'Takes things from a table',
        refuses: ['table-in-work', ...tableRefusals],
        consumes: ['application/octet-stream'],
        querystring: TableFormSchema,
        response: { 200: ShelfTakenSchema },
      },
    },
    async (request) => shelfTables.take(request.query.as, sentBytes(request)),
  );

  app.delete(
    '/api/shelf-tables',
    {
      config: forOwner,
      schema: { summary: 'Stops the taking of a table', response: { 200: ShelfTablesSchema } },
    },
    async () => {
      await shelfTables.drop();
      return shelfTables.shown();
    },
  );

  app.get(
    '/api/shelf-tables/written',
    {
      config: forOwner,
      schema: {
        summary: 'The shelf as a table',
        produces: ['text/csv', 'application/json'],
        querystring: TableFormSchema,
      },
    },
    async (request, reply) => {
      const { as } = request.query;
      return reply
        .header('content-type', types[as])
        .header('content-disposition', `attachment; filename="shelf.${as}"`)
        .send(Readable.from(shelfTables.give(as)));
    },
  );

  app.get(
    '/api/conversations/:id/shelf',
    {
      config: forTeam,
      schema: {
        summary: 'Things of the shelf as they would be said in a conversation',
        refuses: ['not-found'],
        params: ById,
        querystring: z.object({ query: z.string().max(QUERY_LONGEST).default('') }),
        response: { 200: ShelfNearSchema },
      },
    },
    async (request) => ({
      things: shelfSaying.near(conversationOf(request.params.id), request.query.query),
      isAny: store.shelf.count() > 0,
    }),
  );

  app.post(
    '/api/conversations/:id/shelf/:thing',
    {
      config: forTeam,
      schema: {
        summary: 'A thing of the shelf, with its picture brought here',
        refuses: ['not-found', 'shelf-gone', 'offer-over'],
        params: ById.extend({ thing: IdSchema }),
        response: { 200: ShelfSaidSchema },
      },
    },
    async (request) => {
      const { id, thing } = request.params;
      return shelfSaying.ready(conversationOf(id), thing, memberOf(request).id);
    },
  );
};
