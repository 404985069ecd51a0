import type { Step } from '@porch/core/conversation';
import type { Db } from './db';

export interface DeliveryRecord {
  /** Of the entry that goes out. */
  seq: number;
  doorId: string;
  /** What its network calls it; null until it has said so. */
  networkId: string | null;
  step: Step;
  why: string | null;
}

interface Early {
  doorId: string;
  networkId: string;
  step: Step;
  why: string | null;
}

/** What became of a message; no text: it was taken back. */
export interface EarlyChange {
  text: string | null;
  saidAt: number;
}

/** What a message of a network became here. */
export interface Seen {
  threadId: string;
  /** Null where it came before that was kept. */
  entryId: string | null;
}

const columns = 'seq, door_id AS doorId, network_id AS networkId, step, why';

export const deliveriesTable = (db: Db) => {
  const add = db.prepare("INSERT INTO deliveries VALUES (@seq, @doorId, NULL, 'waiting', NULL)");
  const update = db.prepare(
    'UPDATE deliveries SET network_id = @networkId, step = @step, why = @why WHERE seq = @seq',
  );
  const bySeq = db.prepare<[number], DeliveryRecord>(
    `SELECT ${columns} FROM deliveries WHERE seq = ?`,
  );
  const bySeqs = db.prepare<[string], DeliveryRecord>(
    `SELECT ${columns} FROM deliveries WHERE seq IN (SELECT value FROM json_each(?))`,
  );
  const byNetwork = db.prepare<[string, string], DeliveryRecord>(
    `SELECT ${columns} FROM deliveries WHERE door_id = ? AND network_id = ?`,
  );
  const newestAt = db.prepare<[string], DeliveryRecord>(
    `SELECT ${columns} FROM deliveries WHERE door_id = ? ORDER BY seq DESC LIMIT 1`,
  );
  const addEarly = db.prepare(
    'INSERT INTO early_receipts VALUES (@doorId, @networkId, @step, @why, @at) ON CONFLICT DO NOTHING',
  );
  const takeEarly = db.prepare<[string, string], Early>(
    `DELETE FROM early_receipts WHERE door_id = ? AND network_id = ?
     RETURNING door_id AS doorId, network_id AS networkId, step, why`,
  );
  const dropEarly = db.prepare('DELETE FROM early_receipts WHERE at < ?');
  const seen = db.prepare<[string, string], Seen>(
    `SELECT thread_id AS threadId, entry_id AS entryId FROM inbounds
     WHERE door_id = ? AND network_id = ?`,
  );
  const see = db.prepare(
    `INSERT INTO inbounds VALUES (?, ?, ?, ?)
     ON CONFLICT DO UPDATE SET thread_id = excluded.thread_id, entry_id = excluded.entry_id`,
  );
  const addEarlyChange = db.prepare(
    `INSERT INTO early_changes VALUES (@doorId, @networkId, @text, @saidAt, @at)
     ON CONFLICT DO UPDATE SET text = @text, said_at = @saidAt, at = @at
     WHERE @saidAt > said_at`,
  );
  const takeEarlyChange = db.prepare<[string, string], EarlyChange>(
    `DELETE FROM early_changes WHERE door_id = ? AND network_id = ?
     RETURNING text, said_at AS saidAt`,
  );
  const dropEarlyChanges = db.prepare('DELETE FROM early_changes WHERE at < ?');
  return {
    /** An entry is about to go out by a door. */
    begin: (seq: number, doorId: string): void => {
      add.run({ seq, doorId });
    },
    update: (delivery: DeliveryRecord): void => {
      update.run(delivery);
    },
    bySeq: (seq: number): DeliveryRecord | null => bySeq.get(seq) ?? null,
    bySeqs: (seqs: readonly number[]): DeliveryRecord[] =>
      seqs.length === 0 ? [] : bySeqs.all(JSON.stringify(seqs)),
    byNetwork: (doorId: string, networkId: string): DeliveryRecord | null =>
      byNetwork.get(doorId, networkId) ?? null,
    /** What went out by a door last. */
    newestAt: (doorId: string): DeliveryRecord | null => newestAt.get(doorId) ?? null,
    /** Keeps what was said of a message that is not known yet. */
    keepEarly: (early: Early, at: number): void => {
      addEarly.run({ ...early, at });
    },
    takeEarly: (doorId: string, networkId: string): Early[] => takeEarly.all(doorId, networkId),
    dropEarlyBefore: (at: number): void => {
      dropEarly.run(at);
      dropEarlyChanges.run(at);
    },
    /** What a network's message became; null when it is new. */
    seen: (doorId: string, networkId: string): Seen | null => seen.get(doorId, networkId) ?? null,
    see: (doorId: string, networkId: string, threadId: string, entryId: string): void => {
      see.run(doorId, networkId, threadId, entryId);
    },
    /** A message that has not come yet is another already. */
    keepEarlyChange: (
      { doorId, networkId, text, saidAt }: EarlyChange & { doorId: string; networkId: string },
      at: number,
    ): void => {
      addEarlyChange.run({ doorId, networkId, text, saidAt, at });
    },
    /** What became of a message before it came. */
    takeEarlyChange: (doorId: string, networkId: string): EarlyChange | null =>
      takeEarlyChange.get(doorId, networkId) ?? null,
  };
};
