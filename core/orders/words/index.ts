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

/** A day in words, whatever the zone: "Tuesday 1 December". */
export const dayInWords = (day: string, language: string): string =>
  day === ''
    ? ''
    : // Of two English ways to write a day nobody can misread this one.
      new Intl.DateTimeFormat(language === 'en' ? 'en-GB' : language, {
        weekday: 'long',
        day: 'numeric',
        month: 'long',
        timeZone: 'UTC',
      }).format(Date.parse(`${day}T12:00:00Z`));

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
