import type { Db } from './db';

export interface VisitorRecord {
  id: string;
  doorId: string;
  tokenHash: string;
}

export const visitorsTable = (db: Db) => {
  const add = db.prepare('INSERT INTO visitors VALUES (@id, @doorId, @tokenHash, @now)');
  const byToken = db.prepare<[string], VisitorRecord>(
    'SELECT id, door_id AS doorId, token_hash AS tokenHash FROM visitors WHERE token_hash = ?',
  );
  return {
    add: (visitor: VisitorRecord, now: number): void => {
      add.run({ ...visitor, now });
    },
    byToken: (tokenHash: string): VisitorRecord | null => byToken.get(tokenHash) ?? null,
  };
};
