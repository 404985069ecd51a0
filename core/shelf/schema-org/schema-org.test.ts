import jsonld from 'jsonld';
import { fern, offer, onShelf, place, shelfNow, slots } from '../../test-kit/shelf';
import { readShelfRow } from '..';
import { fromSchemaOrg, nodesIn, SCHEMA_ORG, toSchemaOrg } from '.';

const london = { country: 'GB', zone: 'Europe/London', currency: 'GBP' };

const read = (value: unknown) => {
  const cells = fromSchemaOrg(value);
  return cells && readShelfRow(cells, london);
};

/** schema.org's context, as far as it matters here: all names are its own. */
const context = { '@context': { '@vocab': `${SCHEMA_ORG}/` } };
const documentLoader = async (url: string) => {
  if (!url.startsWith(SCHEMA_ORG)) throw new Error(`nothing is fetched from ${url}`);
  return { documentUrl: url, document: context };
};

describe('the shelf in the words of schema.org', () => {
  it('read in again is the same, of every kind', () => {
    expect(onShelf.map((thing) => read(toSchemaOrg(thing)))).toEqual(onShelf);
  });

  it('is JSON-LD 1.1 to another parser (jsonld), with nothing in it left out', async () => {
    const graph = onShelf.map(toSchemaOrg);
    const expanded = await jsonld.expand({ '@context': SCHEMA_ORG, '@graph': graph } as never, {
      documentLoader,
    });
    const types = expanded.map((node) => node['@type']?.[0]);
    expect(types).toEqual(
      ['Product', 'Offer', 'LocalBusiness', 'WebPage', 'ImageObject', 'Event'].map(
        (type) => `${SCHEMA_ORG}/${type}`,
      ),
    );
    // In its long form, as any tool may hand it on, it is still the same to us.
    expect(expanded.map(read)).toEqual(onShelf);
    // And in the statements that it makes (RDF), each value stands once.
    const statements = String(
      await jsonld.toRDF({ '@context': SCHEMA_ORG, '@graph': [toSchemaOrg(fern)] } as never, {
        documentLoader,
        format: 'application/n-quads',
      }),
    );
    expect(statements).toContain(`<${SCHEMA_ORG}/price> "14.50"`);
    expect(statements).toContain(`<${SCHEMA_ORG}/priceCurrency> "GBP"`);
    expect(statements).toContain(`<${SCHEMA_ORG}/availability> "https://schema.org/InStock"`);
  });

  it('reads what shops write', () => {
    const product = {
      '@context': 'https://schema.org/',
      '@type': ['Product', 'Thing'],
      name: 'Fern',
      image: ['https://quillfern.example/1.jpg', 'https://quillfern.example/2.jpg'],
      offers: {
        '@type': 'AggregateOffer',
        lowPrice: 12,
        highPrice: 20,
        priceCurrency: 'EUR',
        availability: 'OutOfStock',
        url: 'https://quillfern.example/fern',
      },
    };
    expect(read(product)).toMatchObject({
      kind: 'item',
      price: '12',
      currency: 'EUR',
      stock: 'out',
      link: 'https://quillfern.example/fern',
      pictureUrl: 'https://quillfern.example/1.jpg',
    });
    const shop = {
      '@type': 'GardenStore',
      name: 'Quillfern',
      address: {
        '@type': 'PostalAddress',
        streetAddress: '4 Canal Row',
        postalCode: 'AW1 2QF',
        addressLocality: 'Ashwick',
      },
      openingHours: ['Mo-Fr 09:00-17:00', 'Sa 10:00-14:00'],
    };
    expect(read(shop)).toMatchObject({
      kind: 'place',
      address: '4 Canal Row, AW1 2QF, Ashwick',
      hours: 'Mo-Fr 09:00-17:00, Sa 10:00-14:00',
    });
    const image = { '@type': 'schema:ImageObject', 'schema:name': 'Bench' };
    expect(
      read({ ...image, 'schema:contentUrl': { '@id': 'https://quillfern.example/b.png' } }),
    ).toMatchObject({ kind: 'picture', pictureUrl: 'https://quillfern.example/b.png' });
    const course = { '@type': 'CourseEvent', name: 'Grafting', startDate: '2026-12-01T10:00Z' };
    expect(read({ ...course, duration: 'PT1H30M', location: 'The bench' })).toMatchObject({
      kind: 'slots',
      starts: [Date.UTC(2026, 11, 1, 10)],
      minutes: 90,
      address: 'The bench',
    });
    const priced = { priceSpecification: { price: 5, priceCurrency: 'GBP' } };
    expect(read({ '@type': 'Service', name: 'Potting', offers: priced })).toMatchObject({
      price: '5',
      currency: 'GBP',
    });
  });

  it('has no place for what is none of the shelf', () => {
    expect(read({ '@type': 'Recipe', name: 'Soup' })).toBeNull();
    expect([null, 7, 'fern', [], {}].map(read)).toEqual([null, null, null, null, null]);
    expect(read({ '@type': 'Product', name: { deeper: { '@type': 'x' } } })).toBe('name-missing');
    // However deep somebody nests it.
    let deep: unknown = 'Fern';
    for (let level = 0; level < 100_000; level += 1) deep = { name: deep };
    expect(read({ '@type': 'Product', name: deep })).toBe('name-missing');
  });

  it('stands in a file alone, in a list, in a graph, or as the parts of a list of its own', () => {
    const one = toSchemaOrg(fern);
    const listed = { '@type': 'ItemList', itemListElement: [{ '@type': 'ListItem', item: one }] };
    for (const file of [one, [one], { '@graph': [one] }, listed]) {
      expect(nodesIn(file).map(read)).toEqual([fern]);
    }
    expect([null, 3, 'x'].flatMap(nodesIn)).toEqual([]);
  });

  it('leaves out what nothing is known of', () => {
    const bare = { ...fern, price: '', currency: '', stock: '' as const, link: '', text: '' };
    expect(Object.keys(toSchemaOrg({ ...bare, pictureUrl: '' }))).toEqual(['@type', 'name', 'sku']);
    expect(toSchemaOrg({ ...offer, until: null })).not.toHaveProperty('validThrough');
    expect(toSchemaOrg({ ...slots, minutes: 0 })).not.toHaveProperty('duration');
    expect(toSchemaOrg(place)).toMatchObject({ hasMap: place.link });
    expect(shelfNow).toBeGreaterThan(0);
  });
});
