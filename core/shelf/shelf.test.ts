import fc from 'fast-check';
import { fern, offer, onShelf, page, picture, place, shelfNow, slots } from '../test-kit/shelf';
import {
  currencyOf,
  isOver,
  newThing,
  priceFrom,
  priceInWords,
  problemInThing,
  type ShelfThing,
  shelfFields,
  shelfKey,
  shelfKinds,
  tidyThing,
} from '.';

describe('a price', () => {
  it.each([
    ['24.50', '24.50', 'EUR'],
    ['24,5', '24.50', 'EUR'],
    ['£24.50', '24.50', 'GBP'],
    ['1.299,00 €', '1299.00', 'EUR'],
    ['1,299.00 USD', '1299.00', 'USD'],
    ['CHF 1’299', '1299', 'CHF'],
    ['1 299,00 zł', '1299.00', 'PLN'],
    ['12', '12', 'EUR'],
    ['1,299', '1299', 'EUR'],
    ['007', '7', 'EUR'],
    ['0', '0', 'EUR'],
    ['$5', '5', 'USD'],
    [' ', '', ''],
  ])('typed as %j is %s %s', (typed, price, currency) => {
    expect(priceFrom(typed, 'EUR')).toEqual({ price, currency });
  });

  it.each([
    'free',
    '-3',
    '1,29,9',
    '12 QQQ',
    '£12 EUR',
    '12..5',
    '1e3',
    '9999999999',
    '=1+1',
    '1.2345',
  ])('is none in %j', (typed) => {
    expect(priceFrom(typed, 'EUR')).toBeNull();
  });

  it('is nothing without money that is in use', () => {
    expect(priceFrom('12', 'ABC')).toBeNull();
    expect(['GB', 'CH', 'DE', ''].map(currencyOf)).toEqual(['GBP', 'CHF', 'EUR', 'EUR']);
  });

  it('is read as each language writes it, as the runtime’s own tables (CLDR) have it', () => {
    expect(priceInWords('24.50', 'GBP', 'en')).toBe('£24.50');
    expect(priceInWords('24', 'GBP', 'en')).toBe('£24');
    expect(priceInWords('1299.00', 'EUR', 'de')).toBe('1.299\u00a0€');
    expect(priceInWords('', '', 'de')).toBe('');
  });

  it('that was read stays what it is, whatever was typed', () => {
    const anything = fc.oneof(fc.string(), fc.stringMatching(/^[£€$]?[\d.,' ]{1,12}[A-Z]{0,3}$/));
    fc.assert(
      fc.property(anything, (typed) => {
        const read = priceFrom(typed, 'GBP');
        if (read) expect(priceFrom(read.price, read.currency || 'GBP')).toEqual(read);
      }),
    );
  });
});

describe('something on the shelf', () => {
  it('has what its kind has and nothing else', () => {
    const whole: ShelfThing = {
      ...fern,
      ...{ code: 'C', until: 1, address: 'A', hours: 'H', starts: [2], minutes: 3 },
    };
    for (const kind of shelfKinds) {
      const tidy = tidyThing({ ...whole, kind });
      const filled = Object.entries(tidy).flatMap(([field, value]) =>
        value === '' || value === null || value === 0 || String(value) === '' ? [] : [field],
      );
      const own = ['kind', 'name', 'pictureUrl', ...shelfFields[kind]];
      expect(filled.sort()).toEqual([...own].sort());
    }
  });

  it('is cleaned: one line where that is one, its times once and in their order', () => {
    const tidy = tidyThing({ ...slots, name: ' Re\npotting\u0000 ', starts: [9, 3, 9] });
    expect(tidy).toMatchObject({ name: 'Re potting', starts: [3, 9] });
    expect(tidyThing({ ...fern, price: '', currency: 'GBP' }).currency).toBe('');
    expect(onShelf.map(tidyThing)).toEqual(onShelf);
  });

  it.each([
    ['a name', { ...fern, name: '' }, 'name', 'missing'],
    ['a shorter name', { ...fern, name: 'x'.repeat(121) }, 'name', 'too-long'],
    ['fewer words', { ...fern, text: 'x'.repeat(601) }, 'text', 'too-long'],
    ['a web link', { ...fern, link: 'javascript:alert(1)' }, 'link', 'wrong'],
    ['a page', { ...page, link: '' }, 'link', 'missing'],
    ['an address', { ...place, address: '' }, 'address', 'missing'],
    ['a picture', { ...picture, pictureUrl: '' }, 'pictureUrl', 'missing'],
    [
      'a picture on the web',
      { ...picture, pictureUrl: 'file:///etc/passwd' },
      'pictureUrl',
      'wrong',
    ],
    ['figures as a price', { ...fern, price: '1,5' }, 'price', 'wrong'],
    ['money in use', { ...fern, currency: 'ABC' }, 'currency', 'wrong'],
    ['times', { ...slots, starts: [] }, 'starts', 'missing'],
    [
      'fewer times',
      { ...slots, starts: Array.from({ length: 21 }, (_n, at) => at) },
      'starts',
      'too-long',
    ],
    ['a length within a day', { ...slots, minutes: 1_441 }, 'minutes', 'wrong'],
    ['whole minutes', { ...slots, minutes: 0.5 }, 'minutes', 'wrong'],
  ])('needs %s', (_what, thing, field, why) => {
    expect(problemInThing(thing, false)).toMatchObject({ field, why });
  });

  it('is well as it should be; a picture of our own is one too', () => {
    expect(onShelf.map((thing) => problemInThing(thing, false))).toEqual(onShelf.map(() => null));
    expect(problemInThing({ ...picture, pictureUrl: '' }, true)).toBeNull();
    expect(shelfKinds.map((kind) => newThing(kind).name)).toEqual(shelfKinds.map(() => ''));
  });

  it('is gone when its last moment has passed', () => {
    const until = shelfNow;
    expect(isOver({ ...offer, until }, until)).toBe(false);
    expect(isOver({ ...offer, until }, until + 1)).toBe(true);
    expect(isOver({ ...offer, until: null }, Number.MAX_SAFE_INTEGER)).toBe(false);
    expect(isOver(fern, Number.MAX_SAFE_INTEGER)).toBe(false);
    const [first = 0, last = 0] = slots.starts;
    expect(isOver(slots, first)).toBe(false);
    expect(isOver(slots, last)).toBe(true);
  });

  it('is the same as another by its kind and article number, or its name', () => {
    expect(shelfKey(fern)).toBe(shelfKey({ ...fern, name: 'Another', sku: 'qf-fern-12' }));
    expect(shelfKey(fern)).not.toBe(shelfKey({ ...fern, sku: 'QF-FERN-13' }));
    expect(shelfKey(place)).toBe(shelfKey({ ...place, name: 'THE  greenhouse' }));
    expect(shelfKey(place)).not.toBe(shelfKey({ ...page, name: place.name }));
    // An article number is none of a name.
    expect(shelfKey({ ...fern, sku: 'fern' })).not.toBe(
      shelfKey({ ...fern, sku: '', name: 'fern' }),
    );
  });
});
