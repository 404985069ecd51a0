import type { Db } from './db';

/** Codes by which somebody goes on with their conversation at another door. */
export const claimsTable = (db: Db) => {
  const add = db.prepare('INSERT INTO claims VALUES (?, ?, ?) ON CONFLICT DO NOTHING');
  const of = db.prepare<[string, number], { code: string }>(
    'SELECT code FROM claims WHERE thread_id = ? AND until > ? ORDER BY until DESC LIMIT 1',
  );
  const take = db.prepare<[string], { threadId: string; until: number }>(
    'DELETE FROM claims WHERE code = ? RETURNING thread_id AS threadId, until',
  );
  const drop = db.prepare('DELETE FROM claims WHERE until <= ?');
  return {
    /** False: there is one like it already. */
    add: (code: string, threadId: string, until: number): boolean =>
      add.run(code, threadId, until).changes > 0,
    /** One that is still good after a moment; null: there is none. */
    of: (threadId: string, after: number): string | null => of.get(threadId, after)?.code ?? null,
    /** Uses a code up: whose it was, and until when it was good; null: it is nobody's. */
    take: (code: string): { threadId: string; until: number } | null => take.get(code) ?? null,
    dropBefore: (now: number): void => {
      drop.run(now);
    },
  };
};
