import type { Db } from './db';

export interface HeldMailRecord {
  /** The id of the entry that asks about it. */
  id: string;
  threadId: string;
  /** From where it came, in small letters. */
  address: string;
  at: number;
  /** 1 or 0, as somebody has said; null: nobody has. */
  isTheirs: number | null;
}

/** Of so many, the newest, it is counted how large they are. */
const COUNTED_MOST = 100;

/** What came by mail beside what is on the rolls: the rest of a mail, and mails of which it is asked whose they are. */
export const heldMailsTable = (db: Db) => {
  const fields = 'id, thread_id AS threadId, address, at, is_theirs AS isTheirs';
  const add = db.prepare(
    'INSERT INTO held_mails VALUES (@id, @threadId, @address, @at, NULL, @bytes) ON CONFLICT DO NOTHING',
  );
  const byId = db.prepare<[string], HeldMailRecord>(
    `SELECT ${fields} FROM held_mails WHERE id = ?`,
  );
  const openFrom = db.prepare<[string, string], HeldMailRecord>(
    `SELECT ${fields} FROM held_mails WHERE thread_id = ? AND address = ? AND is_theirs IS NULL`,
  );
  const bytesOf = db.prepare<[string], { bytes: Buffer }>(
    'SELECT bytes FROM held_mails WHERE id = ?',
  );
  const settle = db.prepare('UPDATE held_mails SET is_theirs = ? WHERE id = ?');
  const countOf = db.prepare<[string], { count: number }>(
    'SELECT count(*) AS count FROM held_mails WHERE thread_id = ? AND is_theirs IS NULL',
  );
  const bytesHeld = db.prepare<[], { bytes: number | null }>(
    `SELECT sum(length(bytes)) AS bytes FROM
       (SELECT bytes FROM held_mails WHERE at >= 0 ORDER BY at DESC LIMIT ${COUNTED_MOST})`,
  );
  const drop = db.prepare('DELETE FROM held_mails WHERE id = ?');
  const dropBefore = db.prepare('DELETE FROM held_mails WHERE at < ?');
  const decide = db.prepare(
    `INSERT INTO their_addresses VALUES (?, ?, ?)
     ON CONFLICT DO UPDATE SET is_theirs = excluded.is_theirs`,
  );
  const decided = db.prepare<[string, string], { isTheirs: number }>(
    'SELECT is_theirs AS isTheirs FROM their_addresses WHERE thread_id = ? AND address = ?',
  );
  const keepRest = db.prepare('INSERT INTO rests VALUES (?, ?, ?) ON CONFLICT DO NOTHING');
  const rest = db.prepare<[string, string], { text: string }>(
    'SELECT text FROM rests WHERE thread_id = ? AND entry_id = ?',
  );
  const key = (address: string): string => address.trim().toLowerCase();
  return {
    /** `bytes`: all of it, as it came. */
    add: (record: Omit<HeldMailRecord, 'isTheirs'>, bytes: Buffer): void => {
      add.run({ ...record, address: key(record.address), bytes });
    },
    byId: (id: string): HeldMailRecord | null => byId.get(id) ?? null,
    bytesOf: (id: string): Buffer | null => bytesOf.get(id)?.bytes ?? null,
    /** Of how many of a thread nobody has said yet whose they are, and how many bytes the newest of all have that are kept. */
    countOf: (threadId: string): number => countOf.get(threadId)?.count ?? 0,
    bytesHeld: (): number => bytesHeld.get()?.bytes ?? 0,
    /** Those of an address of which it was not said yet whose they are. */
    openFrom: (threadId: string, address: string): HeldMailRecord[] =>
      openFrom.all(threadId, key(address)),
    settle: (id: string, isTheirs: boolean): void => {
      settle.run(isTheirs ? 1 : 0, id);
    },
    drop: (id: string): void => {
      drop.run(id);
    },
    dropBefore: (at: number): void => {
      dropBefore.run(at);
    },
    decide: (threadId: string, address: string, isTheirs: boolean): void => {
      decide.run(threadId, key(address), isTheirs ? 1 : 0);
    },
    /** Whether an address is theirs who write in a thread, as the team has said; null: nobody has said. */
    isTheirs: (threadId: string, address: string): boolean | null => {
      const found = decided.get(threadId, key(address));
      return found ? found.isTheirs === 1 : null;
    },
    keepRest: (threadId: string, entryId: string, text: string): void => {
      keepRest.run(threadId, entryId, text);
    },
    /** '' where nothing was kept. */
    rest: (threadId: string, entryId: string): string => rest.get(threadId, entryId)?.text ?? '',
  };
};
