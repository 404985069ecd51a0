import type { Entry } from '@porch/core/conversation';
import type { LineKey } from '@porch/core/patience';
import { type FollowUp, foldFollowUp, followUpOf } from '@porch/core/promises';
import type { Db } from './db';

const fields = `id, conversation_id AS conversationId, why, what, due_at AS dueAt, remind_at AS remindAt,
  whose, made_at AS madeAt, done_at AS doneAt, done_by AS doneBy`;

/** More late ones than this are "99+". */
export const LATE_COUNTED_MOST = 100;

/** A cache of what the rolls say is owed. */
export const followUpsTable = (db: Db) => {
  const byId = db.prepare<[string], FollowUp>(`SELECT ${fields} FROM follow_ups WHERE id = ?`);
  const write = db.prepare(
    `INSERT INTO follow_ups VALUES (@id, @conversationId, @why, @what, @dueAt, @remindAt, @whose,
       @madeAt, @doneAt, @doneBy)
     ON CONFLICT (id) DO UPDATE SET what = @what, due_at = @dueAt, remind_at = @remindAt,
       whose = @whose, done_at = @doneAt, done_by = @doneBy`,
  );
  const openIn = db.prepare<[string], FollowUp>(
    `SELECT ${fields} FROM follow_ups
     WHERE done_at IS NULL AND conversation_id IN (SELECT value FROM json_each(?))`,
  );
  const due = db.prepare<{ place: number; id: string; most: number }, FollowUp>(
    `SELECT ${fields} FROM follow_ups
     WHERE done_at IS NULL AND (due_at, id) > (@place, @id) ORDER BY due_at, id LIMIT @most`,
  );
  const done = db.prepare<{ place: number; id: string; most: number }, FollowUp>(
    `SELECT ${fields} FROM follow_ups
     WHERE done_at IS NOT NULL AND done_at <= @place AND (done_at < @place OR id > @id)
     ORDER BY done_at DESC, id LIMIT @most`,
  );
  const late = db.prepare<[number, number], { count: number }>(
    `SELECT count(*) AS count FROM
       (SELECT 1 FROM follow_ups WHERE done_at IS NULL AND due_at <= ? LIMIT ?)`,
  );
  const miss = db.prepare('INSERT INTO missed VALUES (?, ?) ON CONFLICT DO NOTHING');
  const unmiss = db.prepare('DELETE FROM missed WHERE conversation_id = ?');
  const missed = db.prepare<[number, number], { count: number }>(
    'SELECT count(*) AS count FROM (SELECT 1 FROM missed WHERE at >= ? LIMIT ?)',
  );
  const dropMissed = db.prepare('DELETE FROM missed WHERE at < ?');
  const read = (id: string): FollowUp | null => byId.get(id) ?? null;
  return {
    byId: read,
    /** Brings the cache up to an entry that was just written; gives the follow-up that it is about. */
    fold: (entry: Entry): FollowUp | null => {
      const id = followUpOf(entry);
      if (id === null) return null;
      const next = foldFollowUp(read(id), entry);
      if (next) write.run(next);
      return next;
    },
    /** What is owed and open in a conversation with these threads in it. */
    openIn: (threadIds: readonly string[]): FollowUp[] => openIn.all(JSON.stringify(threadIds)),
    /** A page of what is open, the first due first. */
    due: (after: LineKey | null, most: number): FollowUp[] =>
      due.all({ place: after?.place ?? -1, id: after?.id ?? '', most }),
    /** A page of what is done, the last done first. */
    done: (after: LineKey | null, most: number): FollowUp[] =>
      done.all({ place: after?.place ?? Number.MAX_SAFE_INTEGER, id: after?.id ?? '', most }),
    /** How many are late, up to `LATE_COUNTED_MOST`. */
    late: (now: number): number => late.get(now, LATE_COUNTED_MOST)?.count ?? 0,
    miss: (conversationId: string, at: number): void => {
      miss.run(conversationId, at);
    },
    unmiss: (conversationId: string): void => {
      unmiss.run(conversationId);
    },
    /** How many were missed since a moment, up to `LATE_COUNTED_MOST`. */
    missedSince: (at: number): number => missed.get(at, LATE_COUNTED_MOST)?.count ?? 0,
    dropMissedBefore: (at: number): void => {
      dropMissed.run(at);
    },
  };
};
