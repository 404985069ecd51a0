import type { Db } from './db';

/** Of so many that are called the same, or write on the same device, the newest are looked at no further. */
const FOUND_MOST = 20;

const inOrder = (one: string, other: string): [string, string] =>
  one < other ? [one, other] : [other, one];

/** By what it is found that two people may be one, and of whom somebody has said that they are not. */
export const likenessTable = (db: Db) => {
  const kept = (table: 'names' | 'devices') => {
    const write = db.prepare(
      `INSERT INTO ${table} VALUES (?, ?) ON CONFLICT DO UPDATE SET key = excluded.key`,
    );
    const drop = db.prepare(`DELETE FROM ${table} WHERE thread_id = ?`);
    const alike = db.prepare<[string, string, number], { threadId: string }>(
      `SELECT b.thread_id AS threadId FROM ${table} a JOIN ${table} b ON b.key = a.key
       WHERE a.thread_id = ? AND b.thread_id <> ? LIMIT ?`,
    );
    return {
      /** '' takes it back. */
      write: (threadId: string, key: string): void => {
        if (key) write.run(threadId, key);
        else drop.run(threadId);
      },
      /** Threads that have the same one. */
      alike: (threadId: string): string[] =>
        alike.all(threadId, threadId, FOUND_MOST).map((one) => one.threadId),
    };
  };
  const say = db.prepare('INSERT INTO not_same VALUES (?, ?, ?) ON CONFLICT DO NOTHING');
  const unsay = db.prepare('DELETE FROM not_same WHERE one = ? AND other = ?');
  const said = db.prepare<[string, string], { one: string }>(
    'SELECT one FROM not_same WHERE one = ? AND other = ?',
  );
  return {
    names: kept('names'),
    devices: kept('devices'),
    notSame: {
      say: (one: string, other: string, at: number): void => {
        say.run(...inOrder(one, other), at);
      },
      unsay: (one: string, other: string): void => {
        unsay.run(...inOrder(one, other));
      },
      isSaid: (one: string, other: string): boolean =>
        said.get(...inOrder(one, other)) !== undefined,
    },
  };
};
