import { CardCountsSchema, CardProposalsSchema, CardRowsSchema } from '@porch/contract/cards';
import { IdSchema } from '@porch/contract/entries';
import { TableFormSchema } from '@porch/contract/replies';
import { z } from 'zod';
import { sentBytes } from '../files/sent-bytes';
import { Refused } from '../refused';
import type { Routing } from '../services';
import { tableRefusals } from '../tables/reading';

const DoorById = z.object({ id: IdSchema });
const TABLE_LARGEST_BYTES = 2 * 1024 * 1024;

/** What became of what is asked often, and its tables. The cards themselves are dressed with their door. */
export const cardsRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { cards, cardTables, proposing, store } = services;

  const refuseUnknown = (id: string): void => {
    if (!store.doors.byId(id)) throw new Refused('not-found');
  };

  app.get(
    '/api/doors/:id/cards/counts',
    {
      config: { who: 'team' },
      schema: {
        summary: 'How often each card helped',
        params: DoorById,
        response: { 200: CardCountsSchema },
      },
    },
    async (request) => ({ counts: cards.counts(request.params.id) }),
  );

  app.get(
    '/api/doors/:id/cards/proposals',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Questions that keep coming without a card',
        refuses: ['not-found'],
        params: DoorById,
        response: { 200: CardProposalsSchema },
      },
    },
    async (request) => {
      refuseUnknown(request.params.id);
      return { proposals: await proposing.of(request.params.id) };
    },
  );

  app.post(
    '/api/doors/:id/cards/table',
    {
      config: { who: 'owner' },
      bodyLimit: TABLE_LARGEST_BYTES,
      schema: {
        summary: 'Takes cards from a table',
        refuses: ['not-found', ...tableRefusals],
        consumes: ['application/octet-stream'],
        params: DoorById,
        querystring: TableFormSchema,
        response: { 200: CardRowsSchema },
      },
    },
    async (request) => {
      refuseUnknown(request.params.id);
      return cardTables.read(request.query.as, sentBytes(request));
    },
  );

  app.get(
    '/api/doors/:id/cards/table',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Cards as a table',
        refuses: ['not-found'],
        produces: ['text/csv', 'application/json'],
        params: DoorById,
        querystring: TableFormSchema,
      },
    },
    async (request, reply) => {
      refuseUnknown(request.params.id);
      const { as } = request.query;
      return reply
        .header('content-type', as === 'csv' ? 'text/csv; charset=utf-8' : 'application/json')
        .header('content-disposition', `attachment; filename="asked-often.${as}"`)
        .send(cardTables.give(as, request.params.id));
    },
  );
};
