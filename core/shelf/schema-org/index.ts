import type { ShelfKind } from '../kinds';
import type { ShelfCells } from '../rows';
import type { ShelfThing } from '../thing';

/** Something in the words of schema.org, as JSON-LD has it. */
export type Node = Readonly<Record<string, unknown>>;

const isNode = (value: unknown): value is Node =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const listOf = (value: unknown): unknown[] =>
  Array.isArray(value) ? value : value === undefined || value === null ? [] : [value];

/** A property, whether it is written in full or in short: "name", "schema:name", "https://schema.org/name". */
const valuesOf = (node: Node, name: string): unknown[] =>
  [name, `schema:${name}`, `https://schema.org/${name}`, `http://schema.org/${name}`].flatMap(
    (key) => listOf(node[key]),
  );

const bare = (name: string): string => name.replace(/^(schema:|https?:\/\/schema\.org\/)/, '');

const typesOf = (node: Node): string[] => listOf(node['@type']).map((one) => bare(String(one)));

/** Whatever names something lies no deeper than that. */
const DEEPEST = 8;

/** A value as text: a word, a figure, or what names or addresses something; '' for anything else. */
const wordsOf = (value: unknown, depth = 0): string => {
  if (typeof value === 'string' || typeof value === 'number') return String(value);
  if (!isNode(value) || depth > DEEPEST) return '';
  const said = value['@value'] ?? value['@id'];
  if (typeof said === 'string' || typeof said === 'number') return String(said);
  return (
    ['contentUrl', 'url', 'value', 'name']
      .flatMap((name) => valuesOf(value, name))
      .map((one) => wordsOf(one, depth + 1))
      .find(Boolean) ?? ''
  );
};

/** The first of a node's properties that says anything, as text. */
const textOf = (node: Node, ...names: string[]): string =>
  names
    .flatMap((name) => valuesOf(node, name))
    .map((value) => wordsOf(value))
    .find(Boolean) ?? '';

/** What stands there as things with properties of their own. A word may be written as one as well: it is none. */
const nodesOf = (node: Node, name: string): Node[] =>
  valuesOf(node, name).filter((value): value is Node => isNode(value) && !('@value' in value));

const ADDRESS_PARTS = ['streetAddress', 'postalCode', 'addressLocality', 'addressRegion'] as const;

const addressOf = (node: Node): string => {
  const [postal] = nodesOf(node, 'address');
  if (!postal) return textOf(node, 'address');
  return (
    ADDRESS_PARTS.map((part) => textOf(postal, part))
      .filter(Boolean)
      .join(', ') || textOf(postal, 'name')
  );
};

/** "PT1H30M" → "90" (ISO 8601); '' for anything else. */
const minutesOf = (duration: string): string => {
  const [, hours, minutes] = /^PT(?:(\d+)H)?(?:(\d+)M)?$/.exec(duration) ?? [];
  return hours || minutes ? String(Number(hours ?? 0) * 60 + Number(minutes ?? 0)) : '';
};

const common = (node: Node): ShelfCells => ({
  name: textOf(node, 'name', 'headline'),
  text: textOf(node, 'description', 'caption'),
  link: textOf(node, 'url'),
  picture: textOf(node, 'image', 'thumbnailUrl'),
});

const item = (node: Node): ShelfCells => {
  const [offer = {}] = nodesOf(node, 'offers');
  const [spec = {}] = nodesOf(offer, 'priceSpecification');
  return {
    sku: textOf(node, 'sku', 'productID', 'mpn'),
    price:
      textOf(offer, 'price', 'lowPrice') || textOf(spec, 'price') || textOf(offer, 'highPrice'),
    currency: textOf(offer, 'priceCurrency') || textOf(spec, 'priceCurrency'),
    stock: textOf(offer, 'availability'),
    link: textOf(node, 'url') || textOf(offer, 'url'),
  };
};

const slots = (node: Node): ShelfCells => {
  const [place = {}] = nodesOf(node, 'location');
  const parts = nodesOf(node, 'subEvent');
  const starts = (parts.length > 0 ? parts : [node]).map((one) => textOf(one, 'startDate'));
  return {
    starts: starts.filter(Boolean).join('; '),
    minutes: minutesOf(textOf(node, 'duration')),
    address: addressOf(place) || textOf(node, 'location'),
  };
};

const readers: Readonly<Record<ShelfKind, (node: Node) => ShelfCells>> = {
  item,
  offer: (node) => ({
    code: textOf(node, 'identifier', 'serialNumber'),
    until: textOf(node, 'validThrough', 'availabilityEnds'),
  }),
  place: (node) => ({
    address: addressOf(node),
    hours: valuesOf(node, 'openingHours')
      .map((value) => wordsOf(value))
      .filter(Boolean)
      .join(', '),
    link: textOf(node, 'hasMap') || textOf(node, 'url'),
  }),
  page: () => ({}),
  picture: (node) => ({ picture: textOf(node, 'contentUrl', 'url'), link: '' }),
  slots,
};

const PLACES = /(Place|Business|Store|Shop|Organization|Restaurant|Salon|Office)$/;

const kindOf = (node: Node): ShelfKind | null => {
  const types = typesOf(node);
  const is = (...names: string[]): boolean => names.some((name) => types.includes(name));
  if (is('Product', 'IndividualProduct', 'ProductModel', 'Service')) return 'item';
  if (is('Offer', 'Demand')) return 'offer';
  if (is('ImageObject')) return 'picture';
  if (types.some((type) => /Event$/.test(type))) return 'slots';
  if (is('WebPage', 'Article', 'BlogPosting') || types.some((type) => /Page$/.test(type))) {
    return 'page';
  }
  return types.some((type) => PLACES.test(type)) ? 'place' : null;
};

/** Something in the words of schema.org as a row of a table; null for what has no place on the shelf. */
export const fromSchemaOrg = (value: unknown): ShelfCells | null => {
  if (!isNode(value)) return null;
  // What stands in a list is wrapped (https://schema.org/ListItem).
  const [inner] = typesOf(value).includes('ListItem') ? nodesOf(value, 'item') : [];
  const node = inner ?? value;
  const kind = kindOf(node);
  return kind && { kind, ...common(node), ...readers[kind](node) };
};

/** What stands in a file of JSON-LD, when it is read whole: one thing, a list of them, or a graph. */
export const nodesIn = (file: unknown): unknown[] => {
  if (Array.isArray(file)) return file;
  if (!isNode(file)) return [];
  if (Array.isArray(file['@graph'])) return file['@graph'];
  const listed = valuesOf(file, 'itemListElement');
  return listed.length > 0 ? listed : [file];
};

export const SCHEMA_ORG = 'https://schema.org';

const filled = (node: Node): Node =>
  Object.fromEntries(Object.entries(node).filter(([, value]) => value !== '' && value !== null));

const iso = (at: number): string => new Date(at).toISOString();

const availability = { '': '', in: 'InStock', out: 'OutOfStock', 'to-order': 'BackOrder' } as const;

const types: Readonly<Record<ShelfKind, string>> = {
  item: 'Product',
  offer: 'Offer',
  place: 'LocalBusiness',
  page: 'WebPage',
  picture: 'ImageObject',
  slots: 'Event',
};

const more = (thing: ShelfThing): Node => {
  switch (thing.kind) {
    case 'item': {
      const stock = availability[thing.stock];
      if (!thing.price && !stock) return { sku: thing.sku };
      const offer = filled({
        '@type': 'Offer',
        price: thing.price,
        priceCurrency: thing.currency,
        availability: stock && `${SCHEMA_ORG}/${stock}`,
      });
      return { sku: thing.sku, offers: offer };
    }
    case 'offer':
      return {
        identifier: thing.code,
        validThrough: thing.until === null ? '' : iso(thing.until),
      };
    case 'place':
      return {
        address: thing.address,
        openingHours: thing.hours,
        hasMap: thing.link,
        url: '',
      };
    case 'page':
      return {};
    case 'picture':
      return { contentUrl: thing.pictureUrl, image: '' };
    case 'slots':
      return {
        duration: thing.minutes ? `PT${thing.minutes}M` : '',
        location: thing.address
          ? { '@type': 'Place', name: thing.address, address: thing.address }
          : '',
        subEvent: thing.starts.map((at) => ({ '@type': 'Event', startDate: iso(at) })),
      };
  }
};

/** Something on the shelf in the words of schema.org; read in again it is the same. */
export const toSchemaOrg = (thing: ShelfThing): Node =>
  filled({
    '@type': types[thing.kind],
    name: thing.name,
    description: thing.text,
    url: thing.link,
    image: thing.pictureUrl,
    ...more(thing),
  });
