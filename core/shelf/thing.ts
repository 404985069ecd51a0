import { isWebLink } from '../links/web';
import { cleanLine, cleanMessage } from '../text';
import type { ShelfKind } from './kinds';
import { isCurrency, isPrice } from './price';

export const stocks = ['', 'in', 'out', 'to-order'] as const;
/** Whether it can be had; '': that is not said. */
export type Stock = (typeof stocks)[number];

/** Something that stands on the shelf, to be put into answers. What its kind does not have is empty. */
export interface ShelfThing {
  kind: ShelfKind;
  name: string;
  /** What is said of it, in the owner's words. */
  text: string;
  /** A page with more of it; of a place: a map with the route. */
  link: string;
  /** By what a shop knows it. */
  sku: string;
  /** "24.50"; '' */
  price: string;
  /** ISO 4217; '' where there is no price. */
  currency: string;
  stock: Stock;
  /** What whoever takes up the offer says or types. */
  code: string;
  /** The last moment of an offer, UTC epoch milliseconds; null: it does not end. */
  until: number | null;
  address: string;
  hours: string;
  /** When the free times begin, UTC epoch milliseconds. */
  starts: number[];
  /** How long each of them is; 0: that is not said. */
  minutes: number;
  /** Where its picture lies, as a table has said; ''. */
  pictureUrl: string;
}

export const SHELF_MOST = 200_000;
export const SHELF_STARTS_MOST = 20;
export const SHELF_MINUTES_MOST = 24 * 60;

/** How long each may be, in characters. */
export const shelfLongest = {
  name: 120,
  text: 600,
  link: 500,
  sku: 60,
  code: 40,
  address: 200,
  hours: 200,
  pictureUrl: 1_000,
} as const;
type Worded = keyof typeof shelfLongest;
const worded = Object.keys(shelfLongest) as Worded[];

export type ShelfField = Exclude<keyof ShelfThing, 'kind' | 'name'>;

/** What each kind has beside its name and its picture. */
export const shelfFields: Readonly<Record<ShelfKind, readonly ShelfField[]>> = {
  item: ['price', 'currency', 'stock', 'sku', 'link', 'text'],
  offer: ['text', 'code', 'until', 'link'],
  place: ['address', 'hours', 'link', 'text'],
  page: ['link', 'text'],
  picture: ['text'],
  slots: ['starts', 'minutes', 'address', 'text', 'link'],
};

/** One of a kind with nothing in it yet. */
export const newThing = (kind: ShelfKind): ShelfThing => ({
  kind,
  name: '',
  text: '',
  link: '',
  sku: '',
  price: '',
  currency: '',
  stock: '',
  code: '',
  until: null,
  address: '',
  hours: '',
  starts: [],
  minutes: 0,
  pictureUrl: '',
});

/** Cleaned, the free times in their order, and without what its kind does not have. */
export const tidyThing = (typed: ShelfThing): ShelfThing => {
  const { kind } = typed;
  const has = (field: ShelfField): boolean => shelfFields[kind].includes(field);
  const line = (field: Worded): string =>
    field === 'name' || field === 'pictureUrl' || has(field) ? cleanLine(typed[field]) : '';
  const price = has('price') ? typed.price : '';
  return {
    kind,
    name: line('name'),
    text: has('text') ? cleanMessage(typed.text) : '',
    link: line('link'),
    sku: line('sku'),
    price,
    currency: price ? typed.currency : '',
    stock: has('stock') ? typed.stock : '',
    code: line('code'),
    until: has('until') ? typed.until : null,
    address: line('address'),
    hours: line('hours'),
    starts: has('starts') ? [...new Set(typed.starts)].sort((a, b) => a - b) : [],
    minutes: has('minutes') ? typed.minutes : 0,
    pictureUrl: line('pictureUrl'),
  };
};

/** What is wrong with something on the shelf, and with which part of it. */
export interface ShelfProblem {
  field: keyof ShelfThing;
  why: 'missing' | 'wrong' | 'too-long';
  limit?: number;
}

const needed: Readonly<Record<ShelfKind, readonly ('address' | 'link')[]>> = {
  item: [],
  offer: [],
  place: ['address'],
  page: ['link'],
  picture: [],
  slots: [],
};

/** What is wrong with a tidied thing first; null: nothing. `hasPicture`: one of our own is kept with it. */
export const problemInThing = (thing: ShelfThing, hasPicture: boolean): ShelfProblem | null => {
  if (thing.name === '') return { field: 'name', why: 'missing' };
  for (const field of worded) {
    const limit = shelfLongest[field];
    if (thing[field].length > limit) return { field, why: 'too-long', limit };
  }
  for (const field of needed[thing.kind]) {
    if (thing[field] === '') return { field, why: 'missing' };
  }
  for (const field of ['link', 'pictureUrl'] as const) {
    if (thing[field] !== '' && !isWebLink(thing[field], shelfLongest[field])) {
      return { field, why: 'wrong' };
    }
  }
  if (thing.price !== '' && !isPrice(thing.price)) return { field: 'price', why: 'wrong' };
  if (thing.price !== '' && !isCurrency(thing.currency)) return { field: 'currency', why: 'wrong' };
  if (thing.kind === 'picture' && !hasPicture && thing.pictureUrl === '') {
    return { field: 'pictureUrl', why: 'missing' };
  }
  if (thing.kind === 'slots' && thing.starts.length === 0) {
    return { field: 'starts', why: 'missing' };
  }
  if (thing.starts.length > SHELF_STARTS_MOST) {
    return { field: 'starts', why: 'too-long', limit: SHELF_STARTS_MOST };
  }
  const isLength = Number.isInteger(thing.minutes) && thing.minutes >= 0;
  if (!isLength || thing.minutes > SHELF_MINUTES_MOST) return { field: 'minutes', why: 'wrong' };
  return null;
};

/** Whether it is gone: an offer that has ended, times that have all begun. */
export const isOver = (
  { kind, until, starts }: Pick<ShelfThing, 'kind' | 'until' | 'starts'>,
  now: number,
): boolean => (kind === 'slots' ? starts.every((at) => at <= now) : until !== null && until < now);

/** By what two are the same thing: its kind and what the shop knows it by, or its name. */
export const shelfKey = ({ kind, sku, name }: Pick<ShelfThing, 'kind' | 'sku' | 'name'>): string =>
  `${kind} ${sku ? `# ${sku}` : name}`.normalize('NFKC').toLowerCase().replace(/\s+/g, ' ');
