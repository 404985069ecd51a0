import { ShopAnswerSchema } from '@porch/contract/orders';
import { type Order, orderKey, readOrder } from '@porch/core/orders';
import type { Clock } from '../clock';
import type { Asking } from '../doors/asking';
import { keysFrom, keysToText, newKey, signed } from '../doors/bridge/signing';
import { JobFailed } from '../jobs/worker';
import { Refused } from '../refused';
import type { Outside } from '../security/outside';
import type { Seal } from '../security/seal';
import { newId } from '../security/tokens';
import type { Store } from '../store';

/** Whoever waits for it is a visitor. */
const SHOP_LONGEST_MS = 6_000;
const SEALED_OF = 'shop';

/** What was found at the shop: an order, none of that number, or that it does not answer. */
export type ShopFound = { order: Order | null } | { problem: string };

/**
 * The business's own shop, asked of one order by one request that is signed as Standard Webhooks are: `POST` with
 * `{ "type": "order.asked", "number" }`; it answers with the order, or 404.
 */
export const createShop = (services: {
  store: Store;
  clock: Clock;
  seal: Seal;
  asking: Asking;
  outside: Pick<Outside, 'may'>;
}) => {
  const { store, clock, seal, asking, outside } = services;
  let problem: string | null = null;

  const keyOf = (secret: Buffer): string => {
    const opened = seal.open(secret, SEALED_OF);
    if (opened === null) throw new JobFailed('secret-sealed', true);
    return keysFrom(opened).key;
  };

  const ask = async (url: string, key: string, number: string): Promise<Order | null> => {
    const body = JSON.stringify({ type: 'order.asked', number });
    const headers = {
      ...signed({ key, before: null }, newId(), body, clock.now()),
      'content-type': 'application/json',
      'content-length': Buffer.byteLength(body),
    };
    const signal = AbortSignal.timeout(SHOP_LONGEST_MS);
    const asked = { method: 'POST', address: url, headers, body, signal };
    const answer = await asking.json(asked, ShopAnswerSchema).catch((error: unknown) => {
      if (error instanceof JobFailed && error.why === 'network-gone') return null;
      throw error;
    });
    if (!answer) return null;
    const country = store.business.read()?.country ?? '';
    const { expected, ...rest } = answer;
    const order = readOrder({ ...rest, expectedOn: expected }, country);
    if (typeof order === 'string') throw new JobFailed('answer-not-understood');
    // Another one than was asked for is none.
    return orderKey(order.number) === orderKey(number) ? order : null;
  };

  return {
    isSet: (): boolean => store.orders.shop() !== null,
    shown: () => {
      const shop = store.orders.shop();
      return shop && { url: shop.url, problem };
    },
    /** The key that the shop is to know, for its owner to put in there. */
    key: (): string | null => {
      const shop = store.orders.shop();
      return shop && keyOf(shop.secret);
    },
    /** Sets where it is asked, and by which key; an empty address: nowhere. */
    set: (url: string, key: string | undefined): void => {
      problem = null;
      if (url.trim() === '') {
        store.orders.dropShop();
        return;
      }
      if (!outside.may(url.trim())) throw new Refused('link-not-understood', { field: 'url' });
      const before = store.orders.shop();
      const next = key?.trim() || (before && seal.open(before.secret, SEALED_OF) ? null : newKey());
      const secret =
        next === null && before
          ? before.secret
          : seal.seal(keysToText({ key: next ?? newKey(), before: null }), SEALED_OF);
      store.orders.setShop({ url: url.trim(), secret });
    },
    find: async (number: string): Promise<ShopFound> => {
      const shop = store.orders.shop();
      if (!shop) return { order: null };
      try {
        const order = await ask(shop.url, keyOf(shop.secret), number);
        problem = null;
        return { order };
      } catch (error) {
        if (!(error instanceof JobFailed)) throw error;
        problem = error.why;
        return { problem };
      }
    },
  };
};

export type Shop = ReturnType<typeof createShop>;
