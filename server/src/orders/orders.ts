import { setImmediate } from 'node:timers/promises';
import type { Orders, OrdersTaken } from '@porch/contract/orders';
import { emailKey, phoneKey } from '@porch/core/contact';
import type { ThreadState } from '@porch/core/conversation';
import {
  isOfOrder,
  ORDERS_MOST,
  type Order,
  type OrderSaid,
  orderCells,
  orderColumns,
  orderKey,
  orderKeysIn,
  readOrder,
  toOrderSaid,
} from '@porch/core/orders';
import type { Clock } from '../clock';
import { Refused } from '../refused';
import type { createBuckets } from '../security/bucket';
import type { ConversationRecord, Store } from '../store';
import { rowsOf } from '../tables/reading';
import type { Shop } from './shop';

type Buckets = ReturnType<typeof createBuckets>;

/** So many rows share one wait for the disk, and whoever else waits has a turn after them. */
const ROWS_AT_ONCE = 100;
const DROPPED_AT_ONCE = 1_000;
const REFUSED_TOLD_MOST = 100;
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
  /** Wrong tries, and right ones: by visitor, by address, and by the number that is tried. */
  tries: { visitor: Buckets; address: Buckets; number: Buckets };
}) => {
  const { store, clock, shop, tries } = services;
  let progress: Orders['progress'] = null;
  let last: OrdersTaken | null = null;

  const country = (): string => store.business.read()?.country ?? '';

  const refuseTries = ({ number, visitor, address }: OrderAsked): void => {
    const waits = [
      tries.visitor.take(visitor),
      tries.address.take(address),
      tries.number.take(orderKey(number)),
    ];
    const waitMs = Math.max(...waits);
    if (waitMs > 0) throw new Refused('too-many', { waitMs });
  };

  const isTheirs = (order: Order | null, contact: string): order is Order =>
    order !== null && isOfOrder(order, contact, country());

  const put = (rows: readonly Order[], counts: OrdersTaken): void =>
    store.atOnce(() => {
      for (const order of rows) {
        const before = store.orders.byNumber(order.number);
        if (before && JSON.stringify(before) === JSON.stringify(order)) {
          counts.sameCount += 1;
          continue;
        }
        store.orders.put(order, clock.now());
        counts[before ? 'changedCount' : 'addedCount'] += 1;
      }
    });

  const taken = async (bytes: Buffer): Promise<OrdersTaken> => {
    const counts: OrdersTaken = {
      addedCount: 0,
      changedCount: 0,
      sameCount: 0,
      refusedCount: 0,
      refused: [],
    };
    const home = country();
    let room = ORDERS_MOST - store.orders.count();
    let waiting: Order[] = [];
    let read = 0;
    for await (const { row, cells, share } of rowsOf(bytes, orderColumns.number)) {
      const order = readOrder(orderCells(cells), home);
      const isNew = typeof order !== 'string' && store.orders.byNumber(order.number) === null;
      const why = typeof order === 'string' ? order : isNew && room <= 0 ? 'too-many' : null;
      read += 1;
      if (why !== null) {
        counts.refusedCount += 1;
        const number = String(orderCells(cells).number ?? '').slice(0, 80);
        if (counts.refused.length < REFUSED_TOLD_MOST) counts.refused.push({ row, number, why });
      } else if (typeof order !== 'string') {
        if (isNew) room -= 1;
        waiting.push(order);
      }
      if (waiting.length >= ROWS_AT_ONCE) {
        put(waiting, counts);
        waiting = [];
        progress = { rows: read, share };
        await setImmediate();
      }
    }
    put(waiting, counts);
    return counts;
  };

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
      progress,
      last,
      shop: shop.shown(),
    }),
    /** Reads a table in; one after the other. What was taken before something breaks is kept, and told. */
    take: async (bytes: Buffer): Promise<OrdersTaken> => {
      if (progress !== null) throw new Refused('changed-meanwhile');
      progress = { rows: 0, share: 0 };
      try {
        last = await taken(bytes);
        return last;
      } finally {
        progress = null;
      }
    },
    drop: async (): Promise<void> => {
      while (store.orders.dropSome(DROPPED_AT_ONCE)) await setImmediate();
      last = null;
    },
    /**
     * The order of that number, where it is of that mail address or phone number; refuses otherwise, and says of neither
     * whether it is known.
     */
    find: async (asked: OrderAsked): Promise<OrderSaid> => {
      refuseTries(asked);
      const known = store.orders.byNumber(asked.number);
      if (isTheirs(known, asked.contact)) return toOrderSaid(known);
      const found = await shop.find(asked.number);
      if ('problem' in found) throw new Refused('order-not-now');
      if (!isTheirs(found.order, asked.contact)) throw new Refused('order-not-found');
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
