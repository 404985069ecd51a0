import { dayFrom } from '../days';
import { momentTyped } from '../hours';
import { isShelfKind } from './kinds';
import { priceFrom } from './price';
import {
  newThing,
  problemInThing,
  type ShelfProblem,
  type ShelfThing,
  type Stock,
  shelfKey,
  tidyThing,
} from './thing';

/** What the columns of a table of the shelf may be called, the first being our own. */
export const shelfColumns = {
  kind: ['kind', 'type'],
  name: ['name', 'title', 'product', 'product name'],
  sku: ['sku', 'article', 'article number', 'item number', 'id'],
  price: ['price', 'amount'],
  currency: ['currency'],
  stock: ['stock', 'in stock', 'availability', 'available'],
  text: ['text', 'description', 'about'],
  code: ['code', 'coupon', 'discount code'],
  until: ['until', 'ends', 'valid until', 'valid through'],
  address: ['address'],
  hours: ['hours', 'opening hours'],
  starts: ['starts', 'times', 'start'],
  minutes: ['minutes', 'duration'],
  link: ['link', 'url', 'page'],
  picture: ['picture', 'image', 'image link', 'image url'],
} as const satisfies Readonly<Record<string, readonly string[]>>;
export type ShelfColumn = keyof typeof shelfColumns;
export type ShelfCells = Partial<Record<ShelfColumn, string>>;

/** Why a row of a table was not taken. */
export type ShelfRefusal =
  | 'kind-wrong'
  | 'too-many'
  | 'row-broken'
  | `${'name' | 'address' | 'link' | 'picture' | 'starts'}-missing`
  | `${'price' | 'currency' | 'stock' | 'until' | 'starts' | 'minutes' | 'link' | 'picture'}-wrong`
  | 'words-too-long'
  | 'starts-too-many';

/** The cells of a row by what they are, whatever its columns are called. */
export const shelfCells = (row: Readonly<Record<string, string>>): ShelfCells =>
  Object.fromEntries(
    Object.entries(shelfColumns).flatMap(([column, names]) => {
      const name = names.find((one) => one in row);
      return name === undefined ? [] : [[column, row[name] ?? '']];
    }),
  );

const stockWords: readonly (readonly [Stock, RegExp])[] = [
  ['', /^$/],
  ['in', /^(yes|y|true|in|in ?stock|available|limitedavailability|onlineonly|instoreonly)$/],
  ['out', /^(no|n|false|out|out ?of ?stock|sold ?out|discontinued)$/],
  ['to-order', /^(to ?order|(pre|back|made ?to) ?-?order|presale)$/],
];

/** Whether it can be had, as a shop writes it: "yes", "3", "https://schema.org/InStock"; null for what says nothing. */
const stockFrom = (typed: string): Stock | null => {
  const word = typed
    .trim()
    .replace(/^https?:\/\/schema\.org\//i, '')
    .toLowerCase()
    .replace(/[-_]/g, ' ');
  if (/^\d+([.,]\d+)?$/.test(word)) return Number(word.replace(',', '.')) > 0 ? 'in' : 'out';
  return stockWords.find(([, words]) => words.test(word))?.[0] ?? null;
};

const LAST_OF_DAY_MS = 59_999;

/** "2026-12-01T10:00", "2026-12-01 10:00" in the zone, or with an offset of its own; a day alone: `alone` of it. */
const momentFrom = (
  typed: string,
  { zone, country }: Place,
  alone: string | null,
): number | null => {
  const text = typed.trim();
  if (/^\d{4}-\d\d-\d\dT\d\d:\d\d(:\d\d(\.\d+)?)?(Z|[+-]\d\d:?\d\d)$/i.test(text)) {
    const at = Date.parse(text);
    return Number.isNaN(at) ? null : at;
  }
  const [, dayTyped = '', time = alone ?? ''] =
    /^([\d./-]+)(?:[T ]+(\d{1,2}:\d\d)(?::\d\d)?)?$/.exec(text) ?? [];
  const day = dayFrom(dayTyped, country);
  return day && time ? momentTyped(day, time, zone) : null;
};

const untilFrom = (typed: string, place: Place): number | null | undefined => {
  if (typed.trim() === '') return null;
  const at = momentFrom(typed, place, '23:59');
  if (at === null) return undefined;
  return /[T\s]\d/.test(typed.trim()) ? at : at + LAST_OF_DAY_MS;
};

const startsFrom = (typed: string, place: Place): number[] | null => {
  const all = typed
    .split(/[;\n|]/)
    .filter((one) => one.trim())
    .map((one) => momentFrom(one, place, null));
  return all.every((at) => at !== null) ? all : null;
};

/** By whose clocks and in whose money a table is read. */
export interface Place {
  country: string;
  zone: string;
  currency: string;
}

const refusalOf = ({ field, why }: ShelfProblem): ShelfRefusal => {
  if (field === 'starts' && why === 'too-long') return 'starts-too-many';
  if (why === 'too-long') return 'words-too-long';
  return `${field === 'pictureUrl' ? 'picture' : field}-${why}` as ShelfRefusal;
};

/**
 * A row of a table as something on the shelf, or why it is none. A row without a kind is an item. `hasPicture`: whether
 * one of our own is kept with what has that key.
 */
export const readShelfRow = (
  cells: ShelfCells,
  place: Place,
  hasPicture: (key: string) => boolean = () => false,
): ShelfThing | ShelfRefusal => {
  const cell = (column: ShelfColumn): string => (cells[column] ?? '').trim();
  const kind = cell('kind').toLowerCase() || 'item';
  if (!isShelfKind(kind)) return 'kind-wrong';
  const money = priceFrom(cell('price'), cell('currency').toUpperCase() || place.currency);
  if (money === null) return 'price-wrong';
  const stock = stockFrom(cell('stock'));
  if (stock === null) return 'stock-wrong';
  const until = untilFrom(cell('until'), place);
  if (until === undefined) return 'until-wrong';
  const starts = startsFrom(cells.starts ?? '', place);
  if (starts === null) return 'starts-wrong';
  const minutes = cell('minutes') === '' ? 0 : Number(cell('minutes'));
  const thing = tidyThing({
    ...newThing(kind),
    ...money,
    name: cell('name'),
    text: cell('text'),
    link: cell('link'),
    sku: cell('sku'),
    stock,
    code: cell('code'),
    until,
    address: cell('address'),
    hours: cell('hours'),
    starts,
    minutes,
    pictureUrl: cell('picture'),
  });
  const problem = problemInThing(thing, kind === 'picture' && hasPicture(shelfKey(thing)));
  return problem ? refusalOf(problem) : thing;
};

const iso = (at: number): string => new Date(at).toISOString();

/** Something on the shelf as a row of a table; read in again it is the same. */
export const toShelfCells = (thing: ShelfThing): Record<ShelfColumn, string> => ({
  kind: thing.kind,
  name: thing.name,
  sku: thing.sku,
  price: thing.price,
  currency: thing.currency,
  stock: thing.stock,
  text: thing.text,
  code: thing.code,
  until: thing.until === null ? '' : iso(thing.until),
  address: thing.address,
  hours: thing.hours,
  starts: thing.starts.map(iso).join('; '),
  minutes: thing.minutes ? String(thing.minutes) : '',
  link: thing.link,
  picture: thing.pictureUrl,
});
