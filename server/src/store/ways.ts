import type { Db } from './db';

/** How a person can be reached; see `core/ways`. */
export interface WayRecord {
  threadId: string;
  kind: string;
  /** In the one form in which two of them can be compared. */
  key: string;
  address: string;
  source: 'said' | 'proven';
  at: number;
}

const columns = 'thread_id AS threadId, kind, key, address, source, at';

export const waysTable = (db: Db) => {
  const write = db.prepare(
    `INSERT INTO ways VALUES (@threadId, @kind, @key, @address, @source, @at)
     ON CONFLICT DO UPDATE SET address = excluded.address, at = excluded.at,
       source = CASE WHEN source = 'proven' THEN source ELSE excluded.source END`,
  );
  const takeBack = db.prepare(
    "DELETE FROM ways WHERE thread_id = ? AND kind = ? AND source = 'said' AND key <> ?",
  );
  const of = db.prepare<[string], WayRecord>(
    `SELECT ${columns} FROM ways WHERE thread_id = ? ORDER BY kind, key`,
  );
  const provenBy = db.prepare<[string, string], WayRecord>(
    `SELECT ${columns} FROM ways WHERE kind = ? AND key = ? AND source = 'proven' LIMIT 20`,
  );
  const by = db.prepare<[string, string, number], WayRecord>(
    `SELECT ${columns} FROM ways WHERE kind = ? AND key = ? LIMIT ?`,
  );
  return {
    /** Keeps a way; what was proven stays proven, whoever says it once more. */
    write: (way: WayRecord): void => {
      write.run(way);
    },
    /** What somebody said of a kind before is not said any more; `key` stays ('' for none). */
    keepOnly: (threadId: string, kind: string, key: string): void => {
      takeBack.run(threadId, kind, key);
    },
    of: (threadId: string): WayRecord[] => of.all(threadId),
    /** Threads that are reached so as far as is known, at most so many. */
    by: (kind: string, key: string, most: number): WayRecord[] => by.all(kind, key, most),
    /** Threads from which it was proven that they are reached so. */
    provenBy: (kind: string, key: string): WayRecord[] => provenBy.all(kind, key),
  };
};
