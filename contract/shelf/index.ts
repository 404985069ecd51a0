import {
  SHELF_MINUTES_MOST,
  SHELF_STARTS_MOST,
  type ShelfRefusal,
  type ShelfThing,
  shelfKinds,
  shelfLongest,
  stocks,
} from '@porch/core/shelf';
import { z } from 'zod';
import { FileMentionSchema, IdSchema, ShelfSaidSchema, TimeSchema } from '../entries';
import { TableProgressSchema, takenSchema } from '../tables';

export const SHELF_TABLE_LARGEST_BYTES = 64 * 1024 * 1024;
/** How many a page of the shelf has. */
export const SHELF_PAGE = 30;

/** Twice as long as it may be, so that its excess can be told. */
const line = (field: keyof typeof shelfLongest) => z.string().max(shelfLongest[field] * 2);

const thing = {
  kind: z.enum(shelfKinds),
  name: line('name'),
  text: line('text'),
  link: line('link'),
  sku: line('sku'),
  price: z.string().max(40),
  currency: z.string().max(3),
  stock: z.enum(stocks),
  code: line('code'),
  until: TimeSchema.nullable(),
  address: line('address'),
  hours: line('hours'),
  starts: z.array(TimeSchema).max(SHELF_STARTS_MOST * 2),
  minutes: z
    .number()
    .int()
    .min(0)
    .max(SHELF_MINUTES_MOST * 2),
  pictureUrl: line('pictureUrl'),
};

/** Something on the shelf as somebody has typed it. */
export const ShelfChangeSchema = z.object({
  /** On which it builds; 0: it is new. */
  revision: z.number().int().min(0),
  thing: z.object(thing) satisfies z.ZodType<ShelfThing>,
  /** A picture that was brought along; null: none. */
  fileId: IdSchema.nullable(),
});
export type ShelfChange = z.infer<typeof ShelfChangeSchema>;

export const ShelfShownSchema = z.object({
  ...thing,
  id: IdSchema,
  picture: FileMentionSchema.nullable(),
  revision: z.number().int(),
  changedAt: TimeSchema,
  /** It is gone: it can be put into no answer. */
  isOver: z.boolean(),
});
export type ShelfShown = z.infer<typeof ShelfShownSchema>;

export const ShelfPageSchema = z.object({
  things: z.array(ShelfShownSchema),
  /** Ask for the next page with this; null at the end. */
  next: z.string().nullable(),
  count: z.number().int(),
});
export type ShelfPage = z.infer<typeof ShelfPageSchema>;

/** What can be put into an answer, as it would be said there. */
export const ShelfNearSchema = z.object({
  things: z.array(ShelfSaidSchema),
  /** Whether there is anything on the shelf at all. */
  isAny: z.boolean(),
});
export type ShelfNear = z.infer<typeof ShelfNearSchema>;

const shelfRefusals = [
  'kind-wrong',
  'too-many',
  'name-missing',
  'address-missing',
  'link-missing',
  'picture-missing',
  'starts-missing',
  'price-wrong',
  'currency-wrong',
  'stock-wrong',
  'until-wrong',
  'starts-wrong',
  'minutes-wrong',
  'link-wrong',
  'picture-wrong',
  'words-too-long',
  'starts-too-many',
  'row-broken',
] as const satisfies readonly ShelfRefusal[];

export const ShelfTakenSchema = takenSchema(shelfRefusals);
export type ShelfTaken = z.infer<typeof ShelfTakenSchema>;

/** How tables of the shelf stand. */
export const ShelfTablesSchema = z.object({
  count: z.number().int(),
  progress: TableProgressSchema,
  /** What became of the last one since the server started; null: none was. */
  last: ShelfTakenSchema.nullable(),
});
export type ShelfTables = z.infer<typeof ShelfTablesSchema>;
