import type { Db } from './db';

/** By which secret address a calendar program reads somebody's follow-ups: one a person. */
export const feedsTable = (db: Db) => {
  const read = db.prepare<[string], { memberId: string }>(
    'SELECT member_id AS memberId FROM feeds WHERE secret_hash = ?',
  );
  const of = db.prepare<[string], { madeAt: number }>(
    'SELECT made_at AS madeAt FROM feeds WHERE member_id = ?',
  );
  const drop = db.prepare('DELETE FROM feeds WHERE member_id = ?');
  const add = db.prepare('INSERT INTO feeds VALUES (?, ?, ?)');
  return {
    memberOf: (secretHash: string): string | null => read.get(secretHash)?.memberId ?? null,
    /** When somebody's was made; null: they have none. */
    madeAt: (memberId: string): number | null => of.get(memberId)?.madeAt ?? null,
    /** The one before it opens nothing from then on. */
    renew: (memberId: string, secretHash: string, at: number): void => {
      drop.run(memberId);
      add.run(secretHash, memberId, at);
    },
    drop: (memberId: string): void => {
      drop.run(memberId);
    },
  };
};
