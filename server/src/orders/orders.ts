import { setImmediate } from 'node:timers/promises';
import type { Orders, OrdersTaken } from '@porch/contract/orders';
import { emailKey, phoneKey } from '@porch/core/contact';
import type { ThreadState } from '@porch/core/conversation';
import {
  isOfOrder,
  ORDERS_MOST,
  type Order,
  type OrderRefusal,
  type OrderSaid,
  orderCells,
  orderColumns,
  orderKeysIn,
  readOrder,
  toOrderSaid,
} from '@porch/core/orders';
import type { Clock } from '../clock';
import { Refused } from '../refused';
import type { createBuckets } from '../security/bucket';
import type { ConversationRecord, Store } from '../store';
import { rowsOf } from '../tables/reading';
import { createTaking } from '../tables/taking';
import type { Shop } from './shop';

type Buckets = ReturnType<typeof createBuckets>;

const DROPPED_AT_ONCE = 1_000;
/** Beside a conversation. */
const BESIDE_MOST = 5;
/** In so many of the newest messages an order is looked for by its number. */
const MESSAGES_LOOKED_AT = 40;

/** Who asks for an order, by what their tries are counted. */
export interface OrderAsked {
  number: string;
  contact: string;
  visitor: string;
  address: string;
}

/** Where somebody's order is: tables of the shop, read in as often as one likes, and the shop itself where it is asked. */
export const createOrders = (services: {
  store: Store;
  clock: Clock;
  shop: Shop;
  /** Wrong tries, by visitor and by address: whoever guesses is held up, and nobody whose order it is. */
  tries: { visitor: Buckets; address: Buckets };
}) => {
  const { store, clock, shop, tries } = services;

  const country = (): string => store.business.read()?.country ?? '';

  /** Counts a try of whoever makes it, and of nobody else; gives what takes it back where it was a right one. */
  const countTry = ({ visitor, address }: OrderAsked): (() => void) => {
    tries.visitor.take(visitor);
    tries.address.take(address);
    return () => {
      tries.visitor.give(visitor);
      tries.address.give(address);
    };
  };

  /** Refuses who has guessed too often. A refused try takes nothing from anybody. */
  const refuseGuesser = ({ visitor, address }: OrderAsked): void => {
    const waitMs = Math.max(tries.visitor.peek(visitor), tries.address.peek(address));
    if (waitMs > 0) throw new Refused('too-many', { waitMs });
  };

  const isTheirs = (order: Order | null, contact: string): order is Order =>
    order !== null && isOfOrder(order, contact, country());

  const table = createTaking<Readonly<Record<string, string>>, Order, OrderRefusal>(
    store,
    {
      read: (row) => readOrder(orderCells(row), country()),
      whatIs: (row) => orderCells(row).number ?? '',
      isKnown: ({ number }) => store.orders.byNumber(number) !== null,
      put: (order) => {
        const before = store.orders.byNumber(order.number);
        if (before && JSON.stringify(before) === JSON.stringify(order)) return 'same';
        store.orders.put(order, clock.now());
        return before ? 'changed' : 'added';
      },
      room: () => ORDERS_MOST - store.orders.count(),
    },
    { tooMany: 'too-many', broken: 'row-broken' },
  );

  /** By what they have said of themselves, and by numbers that stand in what they wrote. */
  const ofThread = (thread: ThreadState): Order[] => {
    const person = {
      emailKey: emailKey(thread.email),
      phone: thread.phone ? phoneKey(thread.phone, country()) : '',
    };
    const said = store.entries
      .threadBefore(thread.threadId, Number.MAX_SAFE_INTEGER, MESSAGES_LOOKED_AT)
      .flatMap((entry) => (entry.kind === 'visitor-said' ? [entry.text] : []))
      .reverse();
    const named = orderKeysIn(said.join('\n')).flatMap((key) => store.orders.byNumber(key) ?? []);
    return [...named, ...store.orders.ofPerson(person, BESIDE_MOST)];
  };

  return {
    shown: (): Orders => ({
      count: store.orders.count(),
      progress: table.progress(),
      last: table.last(),
      shop: shop.shown(),
    }),
    /** Reads a table in; one after the other. What was taken before something breaks is kept, and told. */
    take: (bytes: Buffer): Promise<OrdersTaken> => table.take(rowsOf(bytes, orderColumns.number)),
    drop: async (): Promise<void> => {
      while (store.orders.dropSome(DROPPED_AT_ONCE)) await setImmediate();
      table.forget();
    },
    /**
     * The order of that number, where it is of that mail address or phone number; refuses otherwise, and says of neither
     * whether it is known.
     */
    find: async (asked: OrderAsked): Promise<OrderSaid> => {
      refuseGuesser(asked);
      const known = store.orders.byNumber(asked.number);
      if (isTheirs(known, asked.contact)) return toOrderSaid(known);
      // Counted before the shop is asked: many at once are many.
      const takeBack = countTry(asked);
      const found = await shop.find(asked.number);
      if ('problem' in found) {
        takeBack();
        throw new Refused('order-not-now');
      }
      if (!isTheirs(found.order, asked.contact)) throw new Refused('order-not-found');
      takeBack();
      return toOrderSaid(found.order);
    },
    /** Orders of whoever stands in a conversation, those first that they have named. */
    beside: ({ threads }: ConversationRecord): OrderSaid[] => {
      const all = threads.flatMap(ofThread).map(toOrderSaid);
      return [...new Map(all.map((one) => [one.number, one])).values()].slice(0, BESIDE_MOST);
    },
  };
};

export type OrdersOf = ReturnType<typeof createOrders>;
