import { newThing, type ShelfThing } from '../../shelf';

export const shelfHour = 3_600_000;
/** Thursday 12 November 2026, 10:00 in London. */
export const shelfNow = Date.UTC(2026, 10, 12, 10);

export const fern: ShelfThing = {
  ...newThing('item'),
  name: 'Hart’s-tongue fern, 12 cm',
  text: 'For shade.\nKeep it moist.',
  link: 'https://quillfern.example/fern?pot=12&x="1"',
  sku: 'QF-FERN-12',
  price: '14.50',
  currency: 'GBP',
  stock: 'in',
  pictureUrl: 'https://quillfern.example/fern.jpg',
};
export const offer: ShelfThing = {
  ...newThing('offer'),
  name: 'A tenth off bulbs',
  text: 'On every bulb, in the shop and online.',
  code: 'BULB10',
  until: shelfNow + 48 * shelfHour,
  link: 'https://quillfern.example/bulbs',
};
export const place: ShelfThing = {
  ...newThing('place'),
  name: 'The greenhouse',
  address: '4 Canal Row, Ashwick AW1 2QF',
  hours: 'Mo–Fr 9–17',
  link: 'https://maps.example/?q=quillfern',
  text: 'Ring at the blue gate.',
};
export const page: ShelfThing = {
  ...newThing('page'),
  name: 'How to repot',
  link: 'https://quillfern.example/repotting',
  text: 'In six pictures.',
};
export const picture: ShelfThing = {
  ...newThing('picture'),
  name: 'The bench in spring',
  text: 'Taken in April.',
  pictureUrl: 'https://quillfern.example/bench.png',
};
export const slots: ShelfThing = {
  ...newThing('slots'),
  name: 'Repotting with Maren',
  starts: [shelfNow + 24 * shelfHour, shelfNow + 26 * shelfHour],
  minutes: 30,
  address: 'The greenhouse, 4 Canal Row',
  text: 'Bring the pot.',
  link: 'https://quillfern.example/repotting',
};

/** One of each kind, with everything that its kind has. */
export const onShelf = [fern, offer, place, page, picture, slots];
