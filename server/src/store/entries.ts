import type { Entry, Happening } from '@porch/core/conversation';
import { isOnTheRoll } from '@porch/core/conversation';
import type { Db } from './db';

interface Stored {
  seq: number;
  id: string;
  conversationId: string;
  at: number;
  body: string;
}

const columns = 'seq, id, conversation_id AS conversationId, at, body';

const fromStored = ({ body, ...filed }: Stored): Entry => ({
  ...(JSON.parse(body) as Happening),
  ...filed,
});

export const entriesTable = (db: Db) => {
  const append = db.prepare(
    `INSERT INTO entries (conversation_id, id, kind, at, on_roll, body)
     VALUES (@conversationId, @id, @kind, @at, @onRoll, @body)`,
  );
  const byId = db.prepare<[string, string], Stored>(
    `SELECT ${columns} FROM entries WHERE conversation_id = ? AND id = ?`,
  );
  const bySeq = db.prepare<[number], Stored>(`SELECT ${columns} FROM entries WHERE seq = ?`);
  const since = db.prepare<[number, number], Stored>(
    `SELECT ${columns} FROM entries WHERE seq > ? ORDER BY seq LIMIT ?`,
  );
  const rollBefore = db.prepare<[string, number, number], Stored>(
    `SELECT ${columns} FROM entries
     WHERE conversation_id = ? AND on_roll = 1 AND seq < ? ORDER BY seq DESC LIMIT ?`,
  );
  const rollSince = db.prepare<[string, number, number], Stored>(
    `SELECT ${columns} FROM entries
     WHERE conversation_id = ? AND on_roll = 1 AND seq > ? ORDER BY seq LIMIT ?`,
  );
  const allOf = db.prepare<[string], Stored>(
    `SELECT ${columns} FROM entries WHERE conversation_id = ? ORDER BY seq`,
  );
  const bySeqs = db.prepare<[string], Stored>(
    `SELECT ${columns} FROM entries WHERE seq IN (SELECT value FROM json_each(?))`,
  );
  const newest = db.prepare<[], { seq: number; id: string }>(
    'SELECT seq, id FROM entries ORDER BY seq DESC LIMIT 1',
  );
  return {
    /** Appends and gives the entry its seq. Throws if the conversation has the id already. */
    append: (conversationId: string, id: string, at: number, happening: Happening): Entry => {
      const { lastInsertRowid } = append.run({
        conversationId,
        id,
        kind: happening.kind,
        at,
        onRoll: isOnTheRoll(happening.kind) ? 1 : 0,
        body: JSON.stringify(happening),
      });
      return { ...happening, seq: Number(lastInsertRowid), id, conversationId, at };
    },
    byId: (conversationId: string, id: string): Entry | null => {
      const stored = byId.get(conversationId, id);
      return stored ? fromStored(stored) : null;
    },
    bySeq: (seq: number): Entry | null => {
      const stored = bySeq.get(seq);
      return stored ? fromStored(stored) : null;
    },
    bySeqs: (seqs: readonly number[]): Entry[] => bySeqs.all(JSON.stringify(seqs)).map(fromStored),
    since: (seq: number, most: number): Entry[] => since.all(seq, most).map(fromStored),
    /** The roll's newest entries before a seq, oldest first. */
    rollBefore: (conversationId: string, seq: number, most: number): Entry[] =>
      rollBefore.all(conversationId, seq, most).map(fromStored).reverse(),
    rollSince: (conversationId: string, seq: number, most: number): Entry[] =>
      rollSince.all(conversationId, seq, most).map(fromStored),
    allOf: (conversationId: string): Entry[] => allOf.all(conversationId).map(fromStored),
    newest: (): { seq: number; id: string } | null => newest.get() ?? null,
    newestSeq: (): number => newest.get()?.seq ?? 0,
  };
};
