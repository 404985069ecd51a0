import { timeOnDay } from '@porch/core/hours';
import { newThing, type ShelfThing } from '@porch/core/shelf';
import { facts } from '@porch/street/site/facts';

/** Something on the demo's shelf: by what threads call it, which drawn plant is its picture, and what it is. */
export interface DemoThing {
  id: string;
  plant: number | null;
  thing: ShelfThing;
}

const HALF_HOUR_MS = 1_800_000;
const site = 'https://quillfern.example';

const item = (
  id: string,
  plant: number | null,
  more: Pick<ShelfThing, 'name' | 'price' | 'stock' | 'sku'> & Partial<ShelfThing>,
): DemoThing => ({
  id: `shelf-quillfern-${id}`,
  plant,
  thing: { ...newThing('item'), currency: 'GBP', link: `${site}/plants/${id}`, ...more },
});

const other = (
  id: string,
  plant: number | null,
  kind: ShelfThing['kind'],
  more: Partial<ShelfThing>,
): DemoThing => ({
  id: `shelf-quillfern-${id}`,
  plant,
  thing: { ...newThing(kind), ...more },
});

/** What Quillfern has to show on a day. */
export const demoThings = (now: number): readonly DemoThing[] => {
  const at = (days: number, hour: number): number => timeOnDay(now, 'Europe/London', days, hour);
  return [
    item('monstera', 1, {
      name: 'Variegated monstera, 60 cm',
      price: `${facts.monstera.withPot}.00`,
      stock: 'in',
      sku: 'QF-MON-60',
      text: 'From our own cuttings, with its pot.',
    }),
    item('calathea', 2, {
      name: 'Calathea, 30 cm',
      price: '24.50',
      stock: 'in',
      sku: 'QF-CAL-30',
      text: 'For a place with little sun. Safe with cats.',
    }),
    item('fiddle-leaf', 3, {
      name: 'Fiddle-leaf fig, 120 cm',
      price: '89.00',
      stock: 'to-order',
      sku: 'QF-FIG-120',
    }),
    item('staghorn-kit', 4, {
      name: 'Kit for a staghorn fern on wood',
      price: `${facts.staghornKit}.00`,
      stock: 'in',
      sku: 'QF-KIT-2',
      text: 'A board, sphagnum moss and fishing line.',
    }),
    item('white-pot', null, {
      name: 'Pot without a hole, 21 cm, white',
      price: '14.00',
      stock: 'out',
      sku: 'QF-POT-21',
    }),
    other('repotting-offer', null, 'offer', {
      name: 'A tenth off repotting',
      text: 'For every pot that you bring to the bench.',
      code: 'FRESHSOIL',
      until: at(10, 0) - 1,
      link: `${site}/repotting-bench`,
    }),
    other('autumn-bulbs', null, 'offer', {
      name: 'Two bags of bulbs for one',
      code: 'BULBS',
      until: at(-3, 0) - 1,
    }),
    other('glasshouse', null, 'place', {
      name: 'The glasshouse in Larkhope',
      address: 'Mill Lane 3, Larkhope',
      hours: facts.shopInShort,
      link: 'https://maps.example/quillfern',
      text: `Turn in at the blue gate. ${facts.parkingSpaces} spaces in our own yard.`,
    }),
    other('winter-water', null, 'page', {
      name: 'How to water in winter',
      link: `${site}/care/winter`,
      text: 'By kind of plant, with pictures.',
    }),
    other('bench', 7, 'picture', {
      name: 'A fern after repotting',
      text: 'So much room a root ball wants.',
    }),
    other('repotting-hour', null, 'slots', {
      name: 'Repotting hour with Maren',
      starts: [at(2, 9), at(2, 10) + HALF_HOUR_MS, at(4, 14)],
      minutes: 45,
      address: 'The bench, Mill Lane 3',
      text: 'Bring the pot that you want it in.',
      link: `${site}/repotting-bench`,
    }),
  ];
};
