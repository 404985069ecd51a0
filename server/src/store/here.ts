import type { Db } from './db';
import { createKept } from './kept';

/** When somebody of the team was last seen to be here. */
export const hereTable = (db: Db) => {
  const read = db.prepare<[], { id: string; at: number }>('SELECT member_id AS id, at FROM here');
  const write = db.prepare(
    'INSERT INTO here VALUES (?, ?) ON CONFLICT DO UPDATE SET at = excluded.at',
  );
  const kept = createKept(() => new Map(read.all().map(({ id, at }) => [id, at])));
  return {
    forget: kept.forget,
    /** Null: never. */
    of: (memberId: string): number | null => kept.get().get(memberId) ?? null,
    note: (memberId: string, at: number): void => {
      kept.forget();
      write.run(memberId, at);
    },
  };
};
