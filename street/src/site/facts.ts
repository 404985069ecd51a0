/** A time of day as people in Larkhope write it: 18.5 hours is "6.30pm". */
const clock = (hours: number): string => {
  const minutes = Math.round((hours % 1) * 60);
  const shown = hours > 12 ? Math.floor(hours) - 12 : Math.floor(hours);
  return `${shown}${minutes > 0 ? `.${minutes}` : ''}${hours < 12 ? 'am' : 'pm'}`;
};

const between = ({ from, to }: { from: number; to: number }): string =>
  `${clock(from)} to ${clock(to)}`;

const shop = {
  weekdays: { from: 8, to: 18.5 },
  saturday: { from: 8, to: 17 },
  sunday: { from: 10, to: 16 },
};

const bench = { from: 10, to: 16 };

/**
 * What is so at Quillfern Nursery, whoever says it: its website, its settings, its quick replies, its common questions
 * and what it answered people all take it from here. Prices in pounds, hours from midnight.
 */
export const facts = {
  shop,
  shopInWords: `Monday to Friday from ${between(shop.weekdays)}, Saturday from ${between(shop.saturday)}, Sunday from ${between(shop.sunday)}`,
  shopInShort: `Mon–Fri ${between(shop.weekdays)}, Sat ${between(shop.saturday)}, Sun ${between(shop.sunday)}`,
  /** Month and day. */
  winterBreak: { from: '12-24', to: '01-02' },
  winterBreakInWords: 'from 24 December to 2 January',
  /** From Tuesday to Saturday. */
  bench,
  benchInWords: `Tuesday to Saturday from ${between(bench)}`,
  delivery: { days: 'Tuesdays and Fridays', miles: 10, cost: '4.50', freeFrom: 60 },
  post: { centimetres: 40, day: 'Mondays' },
  /** With the soil, without the pot. */
  repotting: { small: 8, metre: 15, tall: 25 },
  parkingSpaces: 6,
  monstera: { withPot: 65, without: 58 },
  staghornKit: 18,
  /** For a pot and a week. */
  plantHoliday: 1,
  voucherFrom: 10,
} as const;
