import { emailKey } from '@porch/core/contact';
import { type Order, orderKey } from '@porch/core/orders';
import type { Db } from './db';

/** An order as it is kept. */
export interface OrderRecord extends Order {
  key: string;
  changedAt: number;
}

export interface ShopRecord {
  url: string;
  /** Sealed. */
  secret: Buffer;
}

const columns = 'number, email, phone, state, expected_on AS expectedOn, link';
const allColumns = `${columns}, key, changed_at AS changedAt`;
/** After every key: none begins with it. */
const LAST = '\u{10FFFF}';

/** Orders as the business's shop has them, and where the shop is asked. */
export const ordersTable = (db: Db) => {
  const byKey = db.prepare<[string], Order>(`SELECT ${columns} FROM orders WHERE key = ?`);
  const write = db.prepare(
    `INSERT INTO orders
     VALUES (@key, @number, @email, @emailKey, @phone, @state, @expectedOn, @link, @now)
     ON CONFLICT DO UPDATE SET number = @number, email = @email, email_key = @emailKey, phone = @phone,
       state = @state, expected_on = @expectedOn, link = @link, changed_at = @now`,
  );
  const any = db.prepare<[], { found: number }>('SELECT 1 AS found FROM orders LIMIT 1');
  const count = db.prepare<[], { count: number }>('SELECT count FROM order_counts');
  const ofEmail = db.prepare<[string, number], Order>(
    `SELECT ${columns} FROM orders WHERE email_key = ? AND email_key <> ''
     ORDER BY changed_at DESC LIMIT ?`,
  );
  const ofPhone = db.prepare<[string, number], Order>(
    `SELECT ${columns} FROM orders WHERE phone = ? AND phone <> '' ORDER BY changed_at DESC LIMIT ?`,
  );
  const newest = db.prepare<[number, string, number], OrderRecord>(
    `SELECT ${allColumns} FROM orders WHERE (changed_at, key) < (?, ?)
     ORDER BY changed_at DESC, key DESC LIMIT ?`,
  );
  const beginning = db.prepare<[string, string, number], OrderRecord>(
    `SELECT ${allColumns} FROM orders WHERE key >= ? AND key < ? ORDER BY key LIMIT ?`,
  );
  const drop = db.prepare('DELETE FROM orders WHERE key = ?');
  const dropSome = db.prepare('DELETE FROM orders WHERE key IN (SELECT key FROM orders LIMIT ?)');
  const shop = db.prepare<[], ShopRecord>('SELECT url, secret FROM shop');
  const setShop = db.prepare(
    `INSERT INTO shop VALUES (1, @url, @secret)
     ON CONFLICT DO UPDATE SET url = @url, secret = @secret`,
  );
  const dropShop = db.prepare('DELETE FROM shop');
  return {
    /** By a number, however it is written. */
    byNumber: (number: string): Order | null => byKey.get(orderKey(number)) ?? null,
    put: (order: Order, now: number): void => {
      write.run({ ...order, key: orderKey(order.number), emailKey: emailKey(order.email), now });
    },
    isAny: (): boolean => any.get() !== undefined,
    count: (): number => count.get()?.count ?? 0,
    /** Those that were changed last first. */
    ofPerson: (person: { emailKey: string; phone: string }, most: number): Order[] => [
      ...(person.emailKey ? ofEmail.all(person.emailKey, most) : []),
      ...(person.phone ? ofPhone.all(person.phone, most) : []),
    ],
    /** Those that were changed last, before one of them. */
    newest: (before: Pick<OrderRecord, 'changedAt' | 'key'> | null, most: number): OrderRecord[] =>
      newest.all(before?.changedAt ?? Number.MAX_SAFE_INTEGER, before?.key ?? LAST, most),
    /** Those whose number begins so, however it is written. */
    beginning: (number: string, most: number): OrderRecord[] => {
      const key = orderKey(number);
      return key === '' ? [] : beginning.all(key, `${key}${LAST}`, most);
    },
    drop: (number: string): boolean => drop.run(orderKey(number)).changes > 0,
    /** Takes so many of them away; whether any were. */
    dropSome: (most: number): boolean => dropSome.run(most).changes > 0,
    shop: (): ShopRecord | null => shop.get() ?? null,
    setShop: (record: ShopRecord): void => {
      setShop.run(record);
    },
    dropShop: (): void => {
      dropShop.run();
    },
  };
};
