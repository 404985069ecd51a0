import type { Order } from '@porch/core/orders';

const order = (
  number: string,
  whose: Partial<Pick<Order, 'email' | 'phone'>>,
  state: string,
  more: Partial<Pick<Order, 'expectedOn' | 'link'>> = {},
): Order => ({ number, email: '', phone: '', state, expectedOn: '', link: '', ...whose, ...more });

const DAY_MS = 24 * 3_600_000;

/** Orders of the demo's people, as Quillfern's shop has them on a day. */
export const demoOrders = (now: number): readonly Order[] => {
  const dayIn = (days: number): string => new Date(now + days * DAY_MS).toISOString().slice(0, 10);
  return [
    order('QF-1101', { phone: '+447700900118' }, 'On the van, held up by snow on the pass', {
      expectedOn: dayIn(1),
      link: 'https://carrier.example/QF-1101',
    }),
    order('QF-1102', { email: 'ada.lindqvist@post.example' }, 'Packed', { expectedOn: dayIn(3) }),
    order('QF-1103', { email: 'bram.okafor@post.example' }, 'Delivered to the shed'),
    order('QF-1104', { email: 'wren@post.example' }, 'Being potted', { expectedOn: dayIn(5) }),
  ];
};
