import type { Finding } from '@porch/contract/house';
import type { Db } from './db';

/** What the house has found wrong with its own data; one of each kind, the newest. */
export const findingsTable = (db: Db) => {
  const write = db.prepare(
    'INSERT INTO findings VALUES (@kind, @at, @detail) ON CONFLICT DO UPDATE SET at = @at, detail = @detail',
  );
  const all = db.prepare<[], Finding>('SELECT kind, at, detail FROM findings ORDER BY at LIMIT 20');
  const drop = db.prepare('DELETE FROM findings WHERE kind = ?');
  return {
    write: (finding: Finding): void => {
      write.run(finding);
    },
    all: (): Finding[] => all.all(),
    drop: (kind: string): void => {
      drop.run(kind);
    },
  };
};
