import { emailKey, toE164, toEmail } from '../contact';
import { dayFrom } from '../days';
import { isWebLink } from '../links/web';
import { cleanLine } from '../text';
import { ORDER_NUMBER_LONGEST, orderKey } from './key';
import type { OrderSaid } from './words';

export { ORDER_NUMBER_LONGEST, orderKey } from './key';
export { type OrderSaid, orderInWords } from './words';

/** An order, as the business's own shop has it. */
export interface Order extends OrderSaid {
  /** Of whoever ordered; '' where that is not known. At least one of the two is. */
  email: string;
  /** E.164 (ITU-T). */
  phone: string;
}

export const ORDERS_MOST = 200_000;
export const ORDER_STATE_LONGEST = 80;
export const ORDER_LINK_LONGEST = 500;
export const ORDER_CONTACT_LONGEST = 254;

/** By what may name orders in a text: words with three figures or more, and where they begin with one what stands before them too ("QF 1101"). */
export const orderKeysIn = (text: string, most = 20): string[] => {
  const words = text.match(/[\p{L}\p{N}#./_-]+/gu) ?? [];
  const keys = words.flatMap((word, at) => {
    const key = orderKey(word);
    if ((key.match(/\p{N}/gu) ?? []).length < 3) return [];
    const before = orderKey(words[at - 1] ?? '');
    const isBare = /^\p{N}/u.test(key) && before.length > 0 && before.length <= 6;
    return isBare ? [key, `${before}${key}`] : [key];
  });
  return [...new Set(keys)].slice(0, most);
};

/** Whether what somebody said, a mail address or a phone number, is the one of whoever ordered. */
export const isOfOrder = (order: Order, contact: string, country: string): boolean => {
  const email = toEmail(contact);
  if (email !== null) return order.email !== '' && emailKey(order.email) === emailKey(email);
  const phone = toE164(contact, country);
  return phone !== null && order.phone !== '' && order.phone === phone;
};

/** Whether it can be a mail address or a phone number at all. */
export const isContact = (contact: string, country: string): boolean =>
  toEmail(contact) !== null || toE164(contact, country) !== null;

export const toOrderSaid = ({ number, state, expectedOn, link }: Order): OrderSaid => ({
  number,
  state,
  expectedOn,
  link,
});

/** What the columns of a table of orders may be called, the first being our own. */
export const orderColumns: Readonly<Record<keyof Order, readonly string[]>> = {
  number: ['number', 'order number', 'order no', 'order no.', 'order', 'order id'],
  email: ['email', 'e-mail', 'mail', 'email address', 'customer email'],
  phone: ['phone', 'telephone', 'tel', 'mobile', 'phone number', 'customer phone'],
  state: ['state', 'status', 'order status'],
  expectedOn: ['expected', 'expected day', 'expected on', 'delivery day', 'delivery date', 'due'],
  link: ['link', 'url', 'tracking', 'tracking link', 'tracking url'],
};

/** Why a row of a table was not taken. */
export type OrderRefusal =
  | 'number-missing'
  | 'number-too-long'
  | 'contact-missing'
  | 'email-wrong'
  | 'phone-wrong'
  | 'state-missing'
  | 'state-too-long'
  | 'day-wrong'
  | 'link-wrong'
  | 'too-many'
  | 'row-broken';

/** A row of a table, or what a shop answers, as an order; or why it is none. */
export const readOrder = (
  cells: Partial<Record<keyof Order, string>>,
  country: string,
): Order | OrderRefusal => {
  const cell = (name: keyof Order): string => cleanLine(cells[name] ?? '');
  const number = cell('number');
  if (orderKey(number) === '') return 'number-missing';
  if (number.length > ORDER_NUMBER_LONGEST) return 'number-too-long';
  const [typedEmail, typedPhone] = [cell('email'), cell('phone')];
  const email = typedEmail && toEmail(typedEmail);
  if (email === null || typedEmail.length > ORDER_CONTACT_LONGEST) return 'email-wrong';
  const phone = typedPhone && toE164(typedPhone, country);
  if (phone === null) return 'phone-wrong';
  if (!email && !phone) return 'contact-missing';
  const state = cell('state');
  if (state === '') return 'state-missing';
  if (state.length > ORDER_STATE_LONGEST) return 'state-too-long';
  const expectedOn = dayFrom(cell('expectedOn'), country);
  if (expectedOn === null) return 'day-wrong';
  const link = cell('link');
  if (link !== '' && !isWebLink(link, ORDER_LINK_LONGEST)) return 'link-wrong';
  return { number, email, phone, state, expectedOn, link };
};

/** The cells of a row by what they are, whatever its columns are called. */
export const orderCells = (
  row: Readonly<Record<string, string>>,
): Partial<Record<keyof Order, string>> =>
  Object.fromEntries(
    Object.entries(orderColumns).flatMap(([field, names]) => {
      const name = names.find((one) => one in row);
      return name === undefined ? [] : [[field, row[name] ?? '']];
    }),
  );
