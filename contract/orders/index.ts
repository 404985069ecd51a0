import type { OrderRefusal } from '@porch/core/orders';
import { z } from 'zod';
import { TableProgressSchema, takenSchema } from '../tables';

export const ORDERS_TABLE_LARGEST_BYTES = 32 * 1024 * 1024;

const orderRefusals = [
  'number-missing',
  'number-too-long',
  'contact-missing',
  'email-wrong',
  'phone-wrong',
  'state-missing',
  'state-too-long',
  'day-wrong',
  'link-wrong',
  'too-many',
  'row-broken',
] as const satisfies readonly OrderRefusal[];

/** An order as whoever has its number and contact may see it; the team may anyway. */
export const OrderSaidSchema = z.object({
  number: z.string(),
  state: z.string(),
  /** YYYY-MM-DD; ''. */
  expectedOn: z.string(),
  link: z.string(),
});

/** An order as the business keeps it. */
export const OrderSchema = OrderSaidSchema.extend({ email: z.string(), phone: z.string() });

/** One as somebody of the team types it; what it may be is looked at where it is saved. */
const OrderTypedSchema = z.object({
  number: z.string().max(200),
  email: z.string().max(1_000),
  phone: z.string().max(200),
  state: z.string().max(1_000),
  expectedOn: z.string().max(200),
  link: z.string().max(2_000),
});
export type OrderTyped = z.infer<typeof OrderTypedSchema>;

/** `before`: the order as it was when somebody began to change it; null where it is new. */
export const OrderChangeSchema = z.object({
  before: OrderTypedSchema.nullable(),
  order: OrderTypedSchema,
});
export type OrderChange = z.infer<typeof OrderChangeSchema>;

/** Orders as they are shown, and how it goes on after them; null: it does not. */
export const OrderPageSchema = z.object({
  orders: z.array(OrderSchema),
  next: z.string().nullable(),
});
export type OrderPage = z.infer<typeof OrderPageSchema>;

/** What became of a table of orders. */
export const OrdersTakenSchema = takenSchema(orderRefusals);
export type OrdersTaken = z.infer<typeof OrdersTakenSchema>;

/** The orders of the house, and its shop. */
export const OrdersSchema = z.object({
  count: z.number().int(),
  progress: TableProgressSchema,
  /** What became of the last table since the server started; null: none was. */
  last: OrdersTakenSchema.nullable(),
  shop: z
    .object({
      url: z.string(),
      /** Why it did not answer when it was asked last; null: it did, or was not asked. */
      problem: z.string().nullable(),
    })
    .nullable(),
});
export type Orders = z.infer<typeof OrdersSchema>;

export const ShopSchema = z.object({
  url: z.string().max(2_000),
  /** Absent: as it was. Made by the house where there is none. */
  key: z.string().max(400).optional(),
});

/** What a shop answers of an order. */
export const ShopAnswerSchema = z.object({
  number: z.string().max(200),
  email: z.string().max(1_000).default(''),
  phone: z.string().max(200).default(''),
  state: z.string().max(1_000),
  expected: z.string().max(200).default(''),
  link: z.string().max(2_000).default(''),
});

/**
 * What shows that an order is theirs who stand in a conversation: a network or an answered mail has proved its contact;
 * they gave its number and its contact, as the panel asks for both; or only one of these, which anybody can claim.
 */
export const orderShownBy = ['proven', 'pair', 'claim'] as const;
export type OrderShownBy = (typeof orderShownBy)[number];

/** Orders beside a conversation; `words`: as they are put into an answer, in the language of whoever reads it. */
export const OrdersBesideSchema = z.object({
  orders: z.array(OrderSaidSchema.extend({ words: z.string(), shownBy: z.enum(orderShownBy) })),
});
export type OrdersBeside = z.infer<typeof OrdersBesideSchema>;

export const OrdersFoundSchema = z.object({ orders: z.array(OrderSaidSchema) });
export type OrdersFound = z.infer<typeof OrdersFoundSchema>;
