import { gapsIn, textsIn } from '../door-texts';
import { fillGaps } from '../door-texts/fill';
import {
  isContact,
  isOfOrder,
  type Order,
  orderCells,
  orderInWords,
  orderKey,
  orderKeysIn,
  readOrder,
  toOrderSaid,
} from '.';

const order: Order = {
  number: 'QF-1101',
  email: 'Ada@post.example',
  phone: '+447700900123',
  state: 'Packed',
  expectedOn: '2026-12-01',
  link: 'https://carrier.example/1101',
};

describe('an order', () => {
  it('is found however its number is written', () => {
    expect(['QF-1101', ' #qf 1101', 'ＱＦ１１０１', 'qf.11/01'].map(orderKey)).toEqual(
      Array(4).fill('QF1101'),
    );
    expect(orderKey(' -# ')).toBe('');
    expect(orderKey('9'.repeat(500))).toHaveLength(40);
  });

  it('is named in a message by what may be its number', () => {
    expect(orderKeysIn('Where is my order QF 1101, please? I am in 24 High Street.')).toEqual([
      '1101',
      'QF1101',
    ]);
    expect(orderKeysIn('#QF-1101 and QF1102')).toEqual(['QF1101', 'QF1102']);
    expect(orderKeysIn('Do you have ferns?')).toEqual([]);
    expect(orderKeysIn('1234 '.repeat(500))).toHaveLength(2);
    expect(
      orderKeysIn(Array.from({ length: 300 }, (_none, at) => `A${1_000 + at}`).join(' ')),
    ).toHaveLength(20);
  });

  it('is of whoever has its mail address or its phone number, and of nobody else', () => {
    const isTheirs = (contact: string) => isOfOrder(order, contact, 'GB');
    expect(['ada@POST.example', '07700 900123', '+44 7700 900 123'].every(isTheirs)).toBe(true);
    expect(['eve@post.example', '07700 900124', '', 'ada', '@'].some(isTheirs)).toBe(false);
    // Of an order without one of the two nothing is guessed by leaving it out.
    expect(isOfOrder({ ...order, email: '' }, '', 'GB')).toBe(false);
    expect(isOfOrder({ ...order, phone: '' }, '', 'GB')).toBe(false);
    expect([
      isContact('07700 900123', 'GB'),
      isContact('a@b.example', ''),
      isContact('me', ''),
    ]).toEqual([true, true, false]);
  });

  it('is read from a row, whatever its columns are called', () => {
    const row = {
      'order no.': ' QF-1101 ',
      'e-mail': 'Ada@POST.example',
      tel: '07700 900123',
      status: 'Packed',
      'delivery date': '1.12.2026',
      tracking: 'https://carrier.example/1101',
    };
    expect(readOrder(orderCells(row), 'GB')).toEqual(order);
  });

  it.each([
    ['a number', { number: ' # ' }, 'number-missing'],
    ['a shorter number', { number: 'x'.repeat(41) }, 'number-too-long'],
    ['a way to reach them', { email: '', phone: '' }, 'contact-missing'],
    ['a mail address', { email: 'ada at post' }, 'email-wrong'],
    ['a phone number', { phone: '12' }, 'phone-wrong'],
    ['a state', { state: '' }, 'state-missing'],
    ['fewer words', { state: 'x'.repeat(81) }, 'state-too-long'],
    ['a day', { expectedOn: 'soon' }, 'day-wrong'],
    ['a link', { link: 'javascript:alert(1)' }, 'link-wrong'],
  ])('needs %s', (_what, change, why) => {
    expect(readOrder({ ...order, ...change }, 'GB')).toBe(why);
  });

  it('is said in plain words in a language, with nothing of whoever ordered', () => {
    const say = (language: string) => {
      const texts = textsIn(language);
      return orderInWords(toOrderSaid(order), language, (key, values) =>
        fillGaps(texts[key], values),
      );
    };
    expect(say('en')).toBe(
      'Order QF-1101: Packed\nExpected on Tuesday 1 December\nhttps://carrier.example/1101',
    );
    expect(say('de')).toContain('Dienstag');
    for (const language of ['de', 'en', 'es', 'fr', 'it', 'nl', 'pl', 'pt']) {
      expect(say(language)).not.toMatch(/ada|0077|\{/i);
      expect(gapsIn(textsIn(language).orderSaid).sort()).toEqual(['number', 'state']);
    }
    const bare = orderInWords({ ...order, expectedOn: '', link: '' }, 'en', (key, values) =>
      fillGaps(textsIn('en')[key], values),
    );
    expect(bare).toBe('Order QF-1101: Packed');
  });
});
