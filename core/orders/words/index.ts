import { dayInWords } from '../../days/words';

/** What somebody may know of an order whose number and contact they have: nothing of whoever ordered. */
export interface OrderSaid {
  /** As the shop writes it: "QF-1101". */
  number: string;
  /** In the shop's own words: "packed". */
  state: string;
  /** The day on which it is expected, as YYYY-MM-DD; ''. */
  expectedOn: string;
  /** Where it can be followed; ''. */
  link: string;
}

/** An order in plain words, by the texts of a door: its state, when it is expected, where to follow it. */
export const orderInWords = (
  { number, state, expectedOn, link }: OrderSaid,
  language: string,
  say: (key: 'orderSaid' | 'orderExpected', values: Readonly<Record<string, string>>) => string,
): string =>
  [
    say('orderSaid', { number, state }),
    expectedOn ? say('orderExpected', { day: dayInWords(expectedOn, language) }) : '',
    link,
  ]
    .filter(Boolean)
    .join('\n');
