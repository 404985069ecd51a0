import type { OrderRefusal } from '@porch/core/orders';
import { many } from '../../../kit/many';

/** Orders, as the app speaks of them. */
export const en = {
  title: 'Orders',
  more: 'Whoever has the number of an order, and the email or phone of whoever ordered, sees in the panel where it is, at any hour. A wrong pair is told nothing; tries are counted.',
  count: (count: number) =>
    count === 0
      ? 'No order has been read in yet.'
      : `${many(count, 'order', 'orders')} can be looked up.`,
  table: 'From a table',
  tableMore:
    'A CSV with a head: number, email or phone, state, expected (a day), link. As often as you like: an order that is there already is changed, others stay.',
  take: 'Read in a CSV',
  whys: {
    'number-missing': 'it has no number',
    'number-too-long': 'its number is longer than 40 characters',
    'contact-missing': 'it has neither an email nor a phone, so nobody could ask for it',
    'email-wrong': 'its email is none',
    'phone-wrong': 'its phone number is none',
    'state-missing': 'it has no state',
    'state-too-long': 'its state is longer than 80 characters',
    'day-wrong': 'its day is not understood; write 2026-12-01',
    'link-wrong': 'its link is none; write https:// in front',
    'too-many': 'there are as many orders as can be kept',
    'row-broken':
      'from here on it cannot be read, perhaps because a quote is not closed; what stands before it was taken',
  } satisfies Record<OrderRefusal, string>,
  drop: 'Take all orders away',
  dropAsk: (count: number) => `Take ${many(count, 'order', 'orders')} away for good?`,
  dropDo: 'Take them away',
  dropNot: 'Keep them',
  shop: 'From your shop',
  shopMore:
    'Where no table has an order, your shop is asked for it by one request that is signed (Standard Webhooks): POST with { "type": "order.asked", "number": … }. It answers in JSON with number, email or phone, state, expected and link, or with 404.',
  url: 'Address of your shop that is asked',
  urlMore: 'https, on the open internet. Empty: no shop is asked.',
  save: 'Save',
  saved: 'Saved',
  key: 'Key, for the shop to prove that it is us',
  showKey: 'Show the key',
  copyKey: 'Copy the key',
  try: 'Number of an order to try',
  tryDo: 'Ask the shop',
  tryNone: 'The shop answers: there is no order of that number.',
  failing: (why: string) => `When it was asked last: ${why}`,
  shopWhys: {
    'network-inside':
      'its address leads into this house’s own network. Write the one that it has on the internet.',
    'network-too-slow': 'it took longer than six seconds to answer.',
    'network-unreachable': 'it could not be reached.',
    'network-too-many': 'it wants to be asked less often.',
    'network-broken': 'it failed (500 or above).',
    'network-refused': 'it refused the question.',
    'key-refused': 'it did not take the key. Put the one below into the shop.',
    'answer-not-understood':
      'what it answered could not be understood. It needs number, state, and email or phone.',
  } as Record<string, string>,
  beside: 'Orders',
  shownBy: {
    proven: 'It’s theirs: proven by their email or phone',
    pair: 'They gave its number and the email or phone on it',
    claim: 'We don’t know it’s theirs. Ask for its number and the email or phone on it.',
  },
  putInAnyway: 'Put it in anyway',
  putInAnywayOf: (number: string) => `Put order ${number} into the answer anyway`,
  expected: (day: string) => `expected ${day}`,
  follow: 'Follow it',
  putIn: (number: string) => `Put order ${number} into the answer`,
  putInShort: 'Into the answer',
};
