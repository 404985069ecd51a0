import { IdSchema } from '@porch/contract/entries';
import {
  ORDERS_TABLE_LARGEST_BYTES,
  OrderChangeSchema,
  OrderPageSchema,
  OrderSchema,
  OrdersBesideSchema,
  OrdersFoundSchema,
  OrdersSchema,
  OrdersTakenSchema,
  ShopSchema,
} from '@porch/contract/orders';
import { threadWrittenLast } from '@porch/core/conversation';
import {
  ORDER_NUMBER_LONGEST,
  type OrderSaid,
  orderInWords,
  toOrderSaid,
} from '@porch/core/orders';
import { z } from 'zod';
import { voiceOf } from '../dress/voice';
import { sentBytes } from '../files/sent-bytes';
import { Refused } from '../refused';
import type { Routing } from '../services';
import type { ConversationRecord } from '../store';
import { orderRefusals } from './orders';

/** Tables of orders, the shop that is asked, and what stands beside a conversation. */
export const ordersRoutes = async ({ app, services }: Routing): Promise<void> => {
  const { orders, shop, dressing } = services;

  /** As it is put into an answer: in the language and the words of the door by which they wrote last. */
  const inWords = (order: OrderSaid, { threads }: ConversationRecord): string => {
    const thread = threadWrittenLast(threads);
    const dress = dressing.published(thread?.doorId ?? '');
    const { language, say } = voiceOf(dress, [thread?.language ?? '']);
    return orderInWords(order, language, say);
  };

  app.get(
    '/api/orders',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'What is known of orders, and from where',
        response: { 200: OrdersSchema },
      },
    },
    async () => orders.shown(),
  );

  app.post(
    '/api/orders/table',
    {
      config: { who: 'owner' },
      bodyLimit: ORDERS_TABLE_LARGEST_BYTES,
      schema: {
        summary: 'Takes orders from a table',
        refuses: ['table-in-work', 'table-not-understood'],
        consumes: ['application/octet-stream'],
        response: { 200: OrdersTakenSchema },
      },
    },
    async (request) => orders.take(sentBytes(request)),
  );

  app.delete(
    '/api/orders',
    {
      config: { who: 'owner' },
      schema: { summary: 'Forgets all orders', response: { 200: OrdersSchema } },
    },
    async () => {
      await orders.drop();
      return orders.shown();
    },
  );

  const InPath = z.object({ number: z.string().min(1).max(ORDER_NUMBER_LONGEST) });
  app.get(
    '/api/orders/list',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Orders: the newest, or those that are sought by number, email or phone',
        querystring: z.object({
          query: z.string().max(200).default(''),
          after: z.string().max(100).default(''),
        }),
        response: { 200: OrderPageSchema },
      },
    },
    async ({ query: { query, after } }) => orders.page(query.trim(), after),
  );

  app.get(
    '/api/orders/one/:number',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'An order',
        refuses: ['not-found'],
        params: InPath,
        response: { 200: OrderSchema },
      },
    },
    async (request) => orders.byNumber(request.params.number),
  );

  app.put(
    '/api/orders/one',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Adds an order, or changes one',
        description: 'It says how the order was `before`',
        refuses: [...orderRefusals],
        body: OrderChangeSchema,
        response: { 200: OrderSchema },
      },
    },
    async (request) => orders.put(request.body),
  );

  app.delete(
    '/api/orders/one/:number',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Forgets an order',
        refuses: ['not-found'],
        params: InPath,
        response: { 204: z.null() },
      },
    },
    async (request, reply) => {
      orders.dropOne(request.params.number);
      return reply.status(204).send(null);
    },
  );

  app.put(
    '/api/orders/shop',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Says where the shop answers',
        refuses: ['link-not-understood'],
        body: ShopSchema,
        response: { 200: OrdersSchema },
      },
    },
    async (request) => {
      shop.set(request.body.url, request.body.key);
      return orders.shown();
    },
  );

  app.get(
    '/api/orders/shop/key',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'The key by which the shop knows who asks',
        response: { 200: z.object({ key: z.string().nullable() }) },
      },
    },
    async () => ({ key: shop.key() }),
  );

  app.post(
    '/api/orders/shop/try',
    {
      config: { who: 'owner' },
      schema: {
        summary: 'Asks the shop for an order, to try it',
        refuses: ['order-not-now'],
        body: z.object({ number: z.string().min(1).max(ORDER_NUMBER_LONGEST) }),
        response: { 200: OrdersFoundSchema },
      },
    },
    async (request) => {
      const found = await shop.find(request.body.number);
      if ('problem' in found) throw new Refused('order-not-now');
      return { orders: found.order ? [toOrderSaid(found.order)] : [] };
    },
  );

  app.get(
    '/api/conversations/:id/orders',
    {
      config: { who: 'team' },
      schema: {
        summary: 'Orders of whoever is in a conversation',
        refuses: ['not-found'],
        params: z.object({ id: IdSchema }),
        response: { 200: OrdersBesideSchema },
      },
    },
    async (request) => {
      const conversation = services.store.conversations.byId(request.params.id);
      if (!conversation) throw new Refused('not-found');
      return {
        orders: orders.beside(conversation).map((order) => ({
          ...order,
          words: inWords(order, conversation),
        })),
      };
    },
  );
};
