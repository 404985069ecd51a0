import { setImmediate } from 'node:timers/promises';
import type { ErrorCode } from '@porch/contract/errors';
import type {
  OrderChange,
  OrderPage,
  OrderShownBy,
  Orders,
  OrdersTaken,
} from '@porch/contract/orders';
import { emailKey, phoneKey, toE164, toEmail } from '@porch/core/contact';
import type { ThreadState } from '@porch/core/conversation';
import {
  isOfOrder,
  ORDER_NUMBER_LONGEST,
  ORDER_STATE_LONGEST,
  ORDERS_MOST,
  type Order,
  type OrderRefusal,
  type OrderSaid,
  orderCells,
  orderColumns,
  orderKey,
  orderKeysIn,
  readOrder,
  toOrderSaid,
} from '@porch/core/orders';
import type { Clock } from '../clock';
import type { Change } from '../inbox/batch';
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

/** On one page of the list. */
const PAGE_MOST = 40;

/** With which code an order that somebody types is refused, and at which field. */
const typedRefusals: Readonly<
  Record<OrderRefusal, { code: ErrorCode; field: keyof Order; limit?: number }>
> = {
  'number-missing': { code: 'text-empty', field: 'number' },
  'number-too-long': { code: 'text-too-long', field: 'number', limit: ORDER_NUMBER_LONGEST },
  'contact-missing': { code: 'contact-missing', field: 'email' },
  'email-wrong': { code: 'email-not-understood', field: 'email' },
  'phone-wrong': { code: 'phone-not-understood', field: 'phone' },
  'state-missing': { code: 'text-empty', field: 'state' },
  'state-too-long': { code: 'text-too-long', field: 'state', limit: ORDER_STATE_LONGEST },
  'day-wrong': { code: 'day-not-understood', field: 'expectedOn' },
  'link-wrong': { code: 'link-not-understood', field: 'link' },
  'too-many': { code: 'too-many-of-these', field: 'number', limit: ORDERS_MOST },
  'row-broken': { code: 'bad-request', field: 'number' },
};

/** With which codes a single order is refused. */
export const orderRefusals: readonly ErrorCode[] = [
  ...new Set(Object.values(typedRefusals).map(({ code }) => code)),
  'order-taken',
  'changed-meanwhile',
  'not-found',
];

/** An order without what only its row has. */
const toOrder = ({ number, email, phone, state, expectedOn, link }: Order): Order => ({
  number,
  email,
  phone,
  state,
  expectedOn,
  link,
});

const isAlike = (one: Order, other: Order): boolean =>
  JSON.stringify(toOrder(one)) === JSON.stringify(toOrder(other));

const refuseTyped = (why: OrderRefusal): never => {
  const { code, ...facts } = typedRefusals[why];
  throw new Refused(code, facts);
};

/** An order beside a conversation, and what shows that it is theirs. */
export type OrderBeside = OrderSaid & { shownBy: OrderShownBy };

const rank: { readonly [One in OrderShownBy]: number } = { proven: 0, pair: 1, claim: 2 };

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
  change: Change;
  shop: Shop;
  /** Wrong tries, by visitor and by address: whoever guesses is held up, and nobody whose order it is. */
  tries: { visitor: Buckets; address: Buckets };
}) => {
  const { store, clock, change, shop, tries } = services;

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
        if (before && isAlike(before, order)) return 'same';
        store.orders.put(order, clock.now());
        return before ? 'changed' : 'added';
      },
      room: () => ORDERS_MOST - store.orders.count(),
    },
    { tooMany: 'too-many', broken: 'row-broken' },
  );

  /** By what they have said of themselves, and by numbers that stand in what they wrote. */
  const ofThread = (thread: ThreadState): OrderBeside[] => {
    const person = {
      emailKey: emailKey(thread.email),
      phone: thread.phone ? phoneKey(thread.phone, country()) : '',
    };
    const roll = store.entries.threadBefore(
      thread.threadId,
      Number.MAX_SAFE_INTEGER,
      MESSAGES_LOOKED_AT,
    );
    const said = roll
      .flatMap((entry) => (entry.kind === 'visitor-said' ? [entry.text] : []))
      .reverse();
    // Whoever was told by the door gave both.
    const told = new Set(
      roll.flatMap((entry) => (entry.kind === 'door-sign' && entry.order ? [entry.order] : [])),
    );
    const named = orderKeysIn(said.join('\n')).flatMap((key) => store.orders.byNumber(key) ?? []);
    const theirs = store.orders.ofPerson(person, BESIDE_MOST);
    const proven = store.ways.of(thread.threadId).filter(({ source }) => source === 'proven');
    const shownBy = (order: Order): OrderShownBy => {
      if (proven.some(({ address }) => isOfOrder(order, address, country()))) return 'proven';
      const hasNamed = named.some(({ number }) => number === order.number);
      const isTheirs = [thread.email, thread.phone].some(
        (contact) => contact !== '' && isOfOrder(order, contact, country()),
      );
      return told.has(order.number) || (hasNamed && isTheirs) ? 'pair' : 'claim';
    };
    return [...named, ...theirs].map((order) => ({
      ...toOrderSaid(order),
      shownBy: shownBy(order),
    }));
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
    /** Those whose number begins so, or that are of that mail address or phone number; without words the newest. */
    page: (sought: string, after: string): OrderPage => {
      if (sought !== '') {
        const email = toEmail(sought);
        const phone = toE164(sought, country());
        const found = [
          ...store.orders.beginning(sought, PAGE_MOST),
          ...store.orders.ofPerson(
            { emailKey: email ? emailKey(email) : '', phone: phone ?? '' },
            PAGE_MOST,
          ),
        ];
        const byNumber = new Map(found.map((order) => [order.number, toOrder(order)]));
        return { orders: [...byNumber.values()].slice(0, PAGE_MOST), next: null };
      }
      const [, changedAt, key] = /^(\d{1,15})\.(.+)$/.exec(after) ?? [];
      const before = key ? { changedAt: Number(changedAt), key } : null;
      const rows = store.orders.newest(before, PAGE_MOST);
      const last = rows.at(-1);
      const next = last && rows.length === PAGE_MOST ? `${last.changedAt}.${last.key}` : null;
      return { orders: rows.map(toOrder), next };
    },
    byNumber: (number: string): Order => {
      const order = store.orders.byNumber(number);
      if (!order) throw new Refused('not-found');
      return order;
    },
    /** Saves one that somebody typed: a new one, or one that they changed. */
    put: ({ before, order: typed }: OrderChange): Order => {
      const order = readOrder(typed, country());
      if (typeof order === 'string') return refuseTyped(order);
      const known = before && store.orders.byNumber(before.number);
      if (before && !known) throw new Refused('not-found');
      if (before && known && !isAlike(known, before)) throw new Refused('changed-meanwhile');
      const isRenamed = before && orderKey(before.number) !== orderKey(order.number);
      if ((!before || isRenamed) && store.orders.byNumber(order.number)) {
        throw new Refused('order-taken', { field: 'number', what: order.number });
      }
      if (!before && store.orders.count() >= ORDERS_MOST) return refuseTyped('too-many');
      change(() => {
        if (isRenamed) store.orders.drop(before.number);
        store.orders.put(order, clock.now());
      });
      return order;
    },
    dropOne: (number: string): void => {
      if (!store.orders.byNumber(number)) throw new Refused('not-found');
      change(() => store.orders.drop(number));
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
    beside: ({ threads }: ConversationRecord): OrderBeside[] => {
      const byNumber = new Map<string, OrderBeside>();
      for (const one of threads.flatMap(ofThread)) {
        const known = byNumber.get(one.number);
        // Of two who stand together the one counts who has shown more.
        if (!known || rank[one.shownBy] < rank[known.shownBy]) byNumber.set(one.number, one);
      }
      return [...byNumber.values()].slice(0, BESIDE_MOST);
    },
  };
};

export type OrdersOf = ReturnType<typeof createOrders>;
