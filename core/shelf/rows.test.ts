import {
  fern,
  offer,
  onShelf,
  picture,
  shelfNow,
  slots,
  place as thePlace,
} from '../test-kit/shelf';
import { readShelfRow, type ShelfCells, shelfCells, toShelfCells } from '.';

const london = { country: 'GB', zone: 'Europe/London', currency: 'GBP' };
const read = (cells: ShelfCells, hasPicture?: (key: string) => boolean) =>
  readShelfRow(cells, london, hasPicture);

describe('a row of the shelf', () => {
  it('written out and read in again is the same, of every kind', () => {
    expect(onShelf.map((thing) => read(toShelfCells(thing)))).toEqual(onShelf);
  });

  it('is an item where it says no kind, whatever its columns are called', () => {
    const row = {
      title: 'Fern',
      'product name': 'not this one',
      amount: '£ 14,50',
      availability: 'https://schema.org/InStock',
      url: 'https://quillfern.example/fern',
      'image link': 'https://quillfern.example/fern.jpg',
      'item number': 'A-1',
      colour: 'green',
    };
    expect(read(shelfCells(row))).toMatchObject({
      kind: 'item',
      name: 'Fern',
      price: '14.50',
      currency: 'GBP',
      stock: 'in',
      sku: 'A-1',
      pictureUrl: 'https://quillfern.example/fern.jpg',
    });
  });

  it.each([
    ['', ''],
    ['yes', 'in'],
    ['3', 'in'],
    ['0', 'out'],
    ['0.0', 'out'],
    ['Sold out', 'out'],
    ['http://schema.org/OutOfStock', 'out'],
    ['PreOrder', 'to-order'],
    ['to-order', 'to-order'],
    ['made_to_order', 'to-order'],
    ['https://schema.org/BackOrder', 'to-order'],
  ])('takes %j for %j in stock', (typed, stock) => {
    expect(read({ name: 'x', stock: typed })).toMatchObject({ stock });
  });

  it.each([
    ['2026-12-01', Date.UTC(2026, 11, 1, 23, 59, 59, 999)],
    ['01/12/2026', Date.UTC(2026, 11, 1, 23, 59, 59, 999)],
    // By the business's clocks, which are an hour ahead in summer.
    ['2026-07-01', Date.UTC(2026, 6, 1, 22, 59, 59, 999)],
    ['2026-07-01 10:30', Date.UTC(2026, 6, 1, 9, 30)],
    ['2026-07-01T10:30:00', Date.UTC(2026, 6, 1, 9, 30)],
    ['2026-07-01T10:30:00+02:00', Date.UTC(2026, 6, 1, 8, 30)],
    ['2026-07-01T10:30Z', Date.UTC(2026, 6, 1, 10, 30)],
    ['', null],
  ])('has an offer end at %j', (until, at) => {
    expect(read({ kind: 'offer', name: 'x', until })).toMatchObject({ until: at });
  });

  it('reads times one by one', () => {
    const starts = '2026-12-01 10:00; 2026-12-01T11:00Z |2026-12-02 9:00';
    expect(read({ kind: 'slots', name: 'x', starts, minutes: '45' })).toMatchObject({
      starts: [Date.UTC(2026, 11, 1, 10), Date.UTC(2026, 11, 1, 11), Date.UTC(2026, 11, 2, 9)],
      minutes: 45,
    });
  });

  it.each<[string, ShelfCells]>([
    ['kind-wrong', { kind: 'dragon', name: 'x' }],
    ['name-missing', { name: ' ' }],
    ['price-wrong', { name: 'x', price: 'ask us' }],
    ['price-wrong', { name: 'x', price: '12', currency: 'XX' }],
    ['stock-wrong', { name: 'x', stock: 'perhaps' }],
    ['until-wrong', { kind: 'offer', name: 'x', until: 'soon' }],
    ['until-wrong', { kind: 'offer', name: 'x', until: '2026-02-30' }],
    ['starts-wrong', { kind: 'slots', name: 'x', starts: '2026-12-01' }],
    ['starts-missing', { kind: 'slots', name: 'x' }],
    [
      'starts-too-many',
      {
        kind: 'slots',
        name: 'x',
        starts: Array.from({ length: 21 }, (_n, at) => new Date(at * 1e9).toISOString()).join(';'),
      },
    ],
    ['minutes-wrong', { kind: 'slots', name: 'x', starts: '2026-12-01 10:00', minutes: 'long' }],
    ['link-wrong', { name: 'x', link: 'www quillfern' }],
    ['link-missing', { kind: 'page', name: 'x' }],
    ['address-missing', { kind: 'place', name: 'x' }],
    ['picture-wrong', { name: 'x', picture: 'fern.jpg' }],
    ['picture-missing', { kind: 'picture', name: 'x' }],
    ['words-too-long', { name: 'x', text: 'x'.repeat(601) }],
  ])('says %s and takes nothing', (why, cells) => {
    expect(read(cells)).toBe(why);
  });

  it('of a picture may be without an address where we keep one of our own', () => {
    const cells = { ...toShelfCells(picture), picture: '' };
    const kept = read(cells, (key) => key === 'picture the bench in spring');
    expect(kept).toMatchObject({ kind: 'picture', pictureUrl: '' });
  });

  it('keeps formulas as the text that they are', () => {
    expect(read({ name: '=HYPERLINK("http://evil.example","x")' })).toMatchObject({
      name: '=HYPERLINK("http://evil.example","x")',
    });
  });

  it('tells an offer without an end from one that has one', () => {
    expect(toShelfCells({ ...offer, until: null }).until).toBe('');
    expect(toShelfCells(offer).until).toBe('2026-11-14T10:00:00.000Z');
    expect(toShelfCells(slots).starts).toBe('2026-11-13T10:00:00.000Z; 2026-11-13T12:00:00.000Z');
    expect(toShelfCells(fern).minutes).toBe('');
    expect(toShelfCells(thePlace).price).toBe('');
    expect(shelfNow).toBeLessThan(offer.until ?? 0);
  });
});
