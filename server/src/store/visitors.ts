import type { Db } from './db';
import { createMemo } from './memo';

export interface VisitorRecord {
  id: string;
  doorId: string;
  tokenHash: string;
}

const KEPT_MOST = 5_000;

export const visitorsTable = (db: Db) => {
  const add = db.prepare('INSERT INTO visitors VALUES (@id, @doorId, @tokenHash, @now)');
  const byToken = db.prepare<[string], VisitorRecord>(
    'SELECT id, door_id AS doorId, token_hash AS tokenHash FROM visitors WHERE token_hash = ?',
  );
  const known = createMemo<VisitorRecord>(KEPT_MOST);
  return {
    add: (visitor: VisitorRecord, now: number): void => {
      add.run({ ...visitor, now });
    },
    byToken: (tokenHash: string): VisitorRecord | null => {
      const visitor = known.get(tokenHash) ?? byToken.get(tokenHash) ?? null;
      if (visitor) known.put(tokenHash, visitor);
      return visitor;
    },
    forget: known.forget,
  };
};
