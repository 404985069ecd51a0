import {
  BODY_SHAPE,
  type Entry,
  type Happening,
  isOfTheWhole,
  isOnTheRoll,
  toToday,
} from '@porch/core/conversation';
import type { Db } from './db';
import type { Stay } from './threads';

interface Stored {
  seq: number;
  id: string;
  conversationId: string;
  threadId: string | null;
  at: number;
  shape: number;
  body: string;
}

/** Which entries a reader may have: those of these threads, and of the whole while they stood somewhere. */
export interface Scope {
  threadIds: readonly string[];
  stays: readonly Stay[];
}

const fields = 'e.seq, e.id, e.thread_id AS threadId, e.at, e.shape, e.body';
/** Where an entry stands now: where its thread does, or the first thread of the conversation it concerned. */
const standing = `SELECT ${fields}, t.conversation_id AS conversationId
  FROM entries e JOIN threads t ON t.id = coalesce(e.thread_id, e.conversation_id)`;
const written = `SELECT ${fields}, e.conversation_id AS conversationId FROM entries e`;

const fromStored = ({ body, shape, ...filed }: Stored): Entry => ({
  ...toToday(JSON.parse(body), shape),
  ...filed,
});

const LAST_SEQ = Number.MAX_SAFE_INTEGER;

export const entriesTable = (db: Db) => {
  const append = db.prepare(
    `INSERT INTO entries (conversation_id, thread_id, id, kind, at, on_roll, shape, body)
     VALUES (?, ?, ?, ?, ?, ?, ${BODY_SHAPE}, ?)`,
  );
  const inThread = db.prepare<[string, string], Stored>(
    `${standing} WHERE e.thread_id = ? AND e.id = ?`,
  );
  const ofWhole = db.prepare<[string, string], Stored>(
    `${standing} WHERE e.thread_id IS NULL AND e.conversation_id = ? AND e.id = ?`,
  );
  const bySeq = db.prepare<[number], Stored>(`${standing} WHERE e.seq = ?`);
  const bySeqs = db.prepare<[string], Stored>(
    `${standing} WHERE e.seq IN (SELECT value FROM json_each(?))`,
  );
  const since = db.prepare<[number, number], Stored>(
    `${standing} WHERE e.seq > ? ORDER BY e.seq LIMIT ?`,
  );
  const newest = db.prepare<[], { seq: number; id: string }>(
    'SELECT seq, id FROM entries ORDER BY seq DESC LIMIT 1',
  );
  type Range = { of: string; from: number; to: number; most: number };
  const range = (order: 'ASC' | 'DESC', where: string) =>
    db.prepare<Range, Stored>(
      `${written} WHERE ${where} AND e.seq >= @from AND e.seq < @to
       ORDER BY e.seq ${order} LIMIT @most`,
    );
  const rollOfThread = 'e.thread_id = @of AND e.on_roll = 1';
  const rollOfWhole = 'e.thread_id IS NULL AND e.conversation_id = @of AND e.on_roll = 1';
  const threadBack = range('DESC', rollOfThread);
  const threadOn = range('ASC', rollOfThread);
  const wholeBack = range('DESC', rollOfWhole);
  const answersOn = range('ASC', `${rollOfThread} AND e.kind = 'team-said'`);
  const allOfWhole = range('ASC', 'e.thread_id IS NULL AND e.conversation_id = @of');
  const allOfThread = db.prepare<[string, number], Stored>(
    `${written} WHERE e.thread_id = ? AND e.seq >= ? ORDER BY e.seq`,
  );

  /** Each once, in order of seq. */
  const merged = (lists: readonly Stored[][]): Entry[] => {
    const bySeq = new Map(lists.flat().map((stored) => [stored.seq, stored]));
    return [...bySeq.values()].sort((a, b) => a.seq - b.seq).map(fromStored);
  };

  const overlap = (a: Stay, b: Stay): { from: number; to: number } => ({
    from: Math.max(a.fromSeq, b.fromSeq),
    to: Math.min(a.toSeq ?? LAST_SEQ, b.toSeq ?? LAST_SEQ),
  });

  const one = (stored: Stored | undefined): Entry | null => (stored ? fromStored(stored) : null);

  return {
    /** Appends and gives the entry its seq. Throws if its thread (or conversation) has the id already. */
    append: (
      conversationId: string,
      threadId: string | null,
      id: string,
      at: number,
      happening: Happening,
    ): Entry => {
      const of = isOfTheWhole(happening.kind) ? null : threadId;
      const { kind } = happening;
      const onRoll = isOnTheRoll(kind) ? 1 : 0;
      const body = JSON.stringify(happening);
      const { lastInsertRowid } = append.run(conversationId, of, id, kind, at, onRoll, body);
      const seq = Number(lastInsertRowid);
      // Spread last: whatever is added to what was spread first makes a slow object of it, and each message has one.
      return { seq, id, conversationId, threadId: of, at, ...happening };
    },
    inThread: (threadId: string, id: string): Entry | null => one(inThread.get(threadId, id)),
    /** An entry of an id within what concerns a conversation. */
    within: ({ threadIds, stays }: Scope, id: string): Entry | null => {
      for (const threadId of threadIds) {
        const found = inThread.get(threadId, id);
        if (found) return fromStored(found);
      }
      for (const { conversationId, fromSeq, toSeq } of stays) {
        const found = ofWhole.get(conversationId, id);
        if (found && found.seq >= fromSeq && found.seq < (toSeq ?? LAST_SEQ)) {
          return fromStored(found);
        }
      }
      return null;
    },
    bySeq: (seq: number): Entry | null => one(bySeq.get(seq)),
    bySeqs: (seqs: readonly number[]): Entry[] => bySeqs.all(JSON.stringify(seqs)).map(fromStored),
    since: (seq: number, most: number): Entry[] => since.all(seq, most).map(fromStored),
    /** The roll's newest entries before a seq, oldest first. */
    rollBefore: ({ threadIds, stays }: Scope, seq: number, most: number): Entry[] => {
      const said = threadIds.map((of) => threadBack.all({ of, from: 0, to: seq, most }));
      const done = stays.map(({ conversationId: of, fromSeq: from, toSeq }) =>
        wholeBack.all({ of, from, to: Math.min(toSeq ?? LAST_SEQ, seq), most }),
      );
      return merged([...said, ...done]).slice(-most);
    },
    /** What was said in a thread, newest before a seq, oldest first. */
    threadBefore: (threadId: string, seq: number, most: number): Entry[] =>
      merged([threadBack.all({ of: threadId, from: 0, to: seq, most })]),
    threadSince: (threadId: string, seq: number, most: number): Entry[] =>
      merged([threadOn.all({ of: threadId, from: seq + 1, to: LAST_SEQ, most })]),
    /** Everything by which a thread is folded, after a seq: see `foldThread`. */
    concerning: (
      threadId: string,
      stays: readonly Stay[],
      others: readonly Stay[],
      seq = 0,
    ): Entry[] => {
      const most = LAST_SEQ;
      const whole = stays.map(({ conversationId: of, fromSeq, toSeq }) =>
        allOfWhole.all({ of, from: Math.max(fromSeq, seq + 1), to: toSeq ?? LAST_SEQ, most }),
      );
      const answers = others.flatMap((other) =>
        stays
          .filter(({ conversationId }) => conversationId === other.conversationId)
          .map((stay) => {
            const { from, to } = overlap(stay, other);
            return answersOn.all({ of: other.threadId, from: Math.max(from, seq + 1), to, most });
          }),
      );
      return merged([allOfThread.all(threadId, seq + 1), ...whole, ...answers]);
    },
    /** Everything of a conversation of one thread that was never moved. */
    allOf: (threadId: string): Entry[] =>
      merged([
        allOfThread.all(threadId, 0),
        allOfWhole.all({ of: threadId, from: 0, to: LAST_SEQ, most: LAST_SEQ }),
      ]),
    newest: (): { seq: number; id: string } | null => newest.get() ?? null,
    newestSeq: (): number => newest.get()?.seq ?? 0,
    /** The least that the next entry's seq can be. */
    nextSeq: (): number => (newest.get()?.seq ?? 0) + 1,
  };
};
