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
        summary: 'A page of the line',
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
        summary: 'A row of the line, and a stretch of its roll',
        description:
          'With `receipts` of what a network carries. Of a conversation that was put together with another one: that one (`row.id`)',
        refuses: ['not-found'],
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
      schema: {
        summary: 'What else stood in the mail that a message came in',
        description: '"" for nothing',
        refuses: ['not-found'],
        params: EntryInPath,
        response: { 200: RestSchema },
      },
    },
    async (request) => line.rest(request.params.id, request.params.entryId),
  );

  app.get(
    '/api/conversations/:id/alike',
    {
      config: { who: 'team' },
      schema: {
        summary: 'Who may be the same person',
        refuses: ['not-found'],
        params: InPath,
        response: { 200: AlikesSchema },
      },
    },
    async (request) => ({ alike: likely.of(request.params.id) }),
  );

  app.put(
    '/api/conversations/:id/not-same/:otherId',
    {
      config: { who: 'team' },
      schema: {
        summary: 'Says that two people are not the same one',
        refuses: ['not-found'],
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
        summary: 'Fetches the pictures that a mail shows',
        refuses: ['not-found'],
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
      schema: {
        summary: 'Tries again to carry what a network did not take',
        refuses: ['not-found'],
        params: EntryInPath,
        body: z.object({}),
        response: { 204: z.null() },
      },
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
      schema: {
        summary: 'Does something in a conversation: answers, wraps up, puts by',
        description:
          '`say` (`threadId`: to which of its writers; `picked`: from what it was made; `shelf`: what of the shelf goes with it, three at most), `read`, `wrap-up`, `put-by`, `take-back`, `owe`, `owe-otherwise`, `owe-done`, `owe-again` (what is owed; the last three say `of` which), `own-mail` (`of`: the entry by which a mail was held back, `isTheirs`), `join` (`other`), `part` (`threadIds`)',
        refuses: [
          'not-found',
          'id-taken',
          'text-empty',
          'text-too-long',
          'too-many-segments',
          'file-unknown',
          'shelf-gone',
          'offer-over',
          'door-closed',
          'door-mute',
          'person-stopped',
          'window-closed',
          'whom-unclear',
          'time-not-ahead',
          'moved-meanwhile',
          'too-many-of-these',
        ],
        params: InPath,
        body: DeedSchema,
        response: { 200: DeedDoneSchema },
      },
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
        summary: 'What came after an entry',
        description:
          '`last` names the entry there; where another one stands, or too much came, the answer is to read anew (`isTooMuch`)',
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
        summary: 'Finds conversations by words',
        querystring: z.object({ words: z.string().max(400), before: seqInQuery.optional() }),
        response: { 200: SearchPageSchema },
      },
    },
    async (request) => {
      return search(request.query.words, request.query.before ?? null);
    },
  );
};
