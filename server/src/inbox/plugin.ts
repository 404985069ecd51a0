import { GroupSchema, IdSchema, SeqSchema, ViewSchema } from '@porch/contract/entries';
import {
  AlikesSchema,
  DeedDoneSchema,
  DeedSchema,
  LinePageSchema,
  PicturesElsewhereSchema,
  RestSchema,
  RollPageSchema,
  SearchPageSchema,
  SinceSchema,
} from '@porch/contract/line';
import { z } from 'zod';
import { memberOf } from '../accounts/asking';
import type { Routing } from '../services';

const InPath = z.object({ id: IdSchema });
const EntryInPath = z.object({ id: IdSchema, entryId: IdSchema });
const seqInQuery = z.coerce.number().pipe(SeqSchema);

/** The line, conversations and search, for the team. */
export const inboxRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { line, reply, search, delivering, fetching, jobs, elsewhere, likely, write } = services;

  app.get(
    '/api/line',
    {
      config: { who: 'team' },
      schema: {
        querystring: z.object({
          view: ViewSchema.default('all'),
          group: GroupSchema,
          after: z.string().max(80).optional(),
        }),
        response: { 200: LinePageSchema },
      },
    },
    async (request) => {
      const { group, after, view } = request.query;
      return line.page(group, after ?? null, view);
    },
  );

  app.get(
    '/api/conversations/:id',
    {
      config: { who: 'team' },
      schema: {
        params: InPath,
        querystring: z.object({ before: seqInQuery.optional() }),
        response: { 200: RollPageSchema },
      },
    },
    async (request) => {
      return line.roll(request.params.id, request.query.before ?? null);
    },
  );

  app.get(
    '/api/conversations/:id/entries/:entryId/rest',
    {
      config: { who: 'team' },
      schema: { params: EntryInPath, response: { 200: RestSchema } },
    },
    async (request) => line.rest(request.params.id, request.params.entryId),
  );

  app.get(
    '/api/conversations/:id/alike',
    { config: { who: 'team' }, schema: { params: InPath, response: { 200: AlikesSchema } } },
    async (request) => ({ alike: likely.of(request.params.id) }),
  );

  app.put(
    '/api/conversations/:id/not-same/:otherId',
    {
      config: { who: 'team' },
      schema: {
        params: InPath.extend({ otherId: IdSchema }),
        body: z.object({}),
        response: { 204: z.null() },
      },
    },
    async (request, response) => {
      likely.notSame(request.params.id, request.params.otherId);
      return response.status(204).send(null);
    },
  );

  app.post(
    '/api/conversations/:id/entries/:entryId/pictures',
    {
      config: { who: 'team' },
      schema: {
        params: EntryInPath,
        body: z.object({}),
        response: { 200: PicturesElsewhereSchema },
      },
    },
    async (request) => elsewhere.show(line.entry(request.params.id, request.params.entryId)),
  );

  app.post(
    '/api/conversations/:id/entries/:entryId/again',
    {
      config: { who: 'team' },
      schema: { params: EntryInPath, body: z.object({}), response: { 204: z.null() } },
    },
    async (request, response) => {
      const entry = line.entry(request.params.id, request.params.entryId);
      await write(() =>
        entry.kind === 'visitor-said' ? fetching.again(entry) : delivering.again(entry),
      );
      await jobs.tick();
      return response.status(204).send(null);
    },
  );

  app.post(
    '/api/conversations/:id/deeds',
    {
      config: { who: 'team' },
      schema: { params: InPath, body: DeedSchema, response: { 200: DeedDoneSchema } },
    },
    async (request) => {
      const member = memberOf(request);
      return reply.deed(request.params.id, request.body, member);
    },
  );

  app.get(
    '/api/since',
    {
      config: { who: 'team' },
      schema: {
        querystring: z.object({ seq: seqInQuery, last: IdSchema.optional() }),
        response: { 200: SinceSchema },
      },
    },
    async (request) => {
      return line.since(request.query.seq, request.query.last ?? null);
    },
  );

  app.get(
    '/api/search',
    {
      config: { who: 'team' },
      schema: {
        querystring: z.object({ words: z.string().max(400), before: seqInQuery.optional() }),
        response: { 200: SearchPageSchema },
      },
    },
    async (request) => {
      return search(request.query.words, request.query.before ?? null);
    },
  );
};
