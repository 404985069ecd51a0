import type { Db } from './db';
import { createMemo } from './memo';

/** Who writes, as a door has made sure of it: `address` is how that door calls them. */
export interface Writer {
  doorId: string;
  address: string;
}

/** One writer at one door. That never changes; in which conversation it stands does. */
export interface ThreadRecord extends Writer {
  id: string;
  /** Null until they have said something. */
  conversationId: string | null;
}

/** A stretch of seqs in which a thread stood in a conversation: from one, to before another (null: until now). */
export interface Stay {
  threadId: string;
  conversationId: string;
  fromSeq: number;
  toSeq: number | null;
}

const KEPT_MOST = 5_000;

/** The one name of a writer, also before they have a thread. */
export const writerKey = ({ doorId, address }: Writer): string => `${doorId} ${address}`;

const columns = 'id, door_id AS doorId, address, conversation_id AS conversationId';
const stayColumns =
  'thread_id AS threadId, conversation_id AS conversationId, from_seq AS fromSeq, to_seq AS toSeq';

export const threadsTable = (db: Db) => {
  const known = createMemo<ThreadRecord>(KEPT_MOST);
  const add = db.prepare(
    'INSERT INTO threads VALUES (@id, @doorId, @address, @conversationId, @now)',
  );
  const byWriter = db.prepare<[string, string], ThreadRecord>(
    `SELECT ${columns} FROM threads WHERE door_id = ? AND address = ?`,
  );
  const byId = db.prepare<[string], ThreadRecord>(`SELECT ${columns} FROM threads WHERE id = ?`);
  const atOtherDoor = db.prepare<[string, string], { id: string }>(
    'SELECT id FROM threads WHERE address = ? AND door_id <> ? LIMIT 1',
  );
  const stand = db.prepare('UPDATE threads SET conversation_id = ? WHERE id = ?');
  const staysOf = db.prepare<[string], Stay>(
    `SELECT ${stayColumns} FROM stays WHERE thread_id = ? ORDER BY from_seq`,
  );
  const staysIn = db.prepare<[string], Stay>(
    `SELECT ${stayColumns} FROM stays WHERE conversation_id = ?`,
  );
  const addStay = db.prepare('INSERT INTO stays VALUES (?, ?, ?, NULL)');
  const endStay = db.prepare('UPDATE stays SET to_seq = ? WHERE thread_id = ? AND to_seq IS NULL');

  const remember = (thread: ThreadRecord | undefined): ThreadRecord | null => {
    if (!thread) return null;
    known.put(writerKey(thread), thread);
    known.put(thread.id, thread);
    return thread;
  };

  const staysOfThread = (threadId: string): Stay[] => {
    const stays = staysOf.all(threadId);
    // Whoever was never moved stands where they started: in the conversation that has their name.
    return stays.length > 0
      ? stays
      : [{ threadId, conversationId: threadId, fromSeq: 0, toSeq: null }];
  };

  return {
    add: (thread: ThreadRecord, now: number): void => {
      add.run({ ...thread, now });
      remember(thread);
    },
    byWriter: (writer: Writer): ThreadRecord | null =>
      known.get(writerKey(writer)) ?? remember(byWriter.get(writer.doorId, writer.address)),
    byId: (id: string): ThreadRecord | null => known.get(id) ?? remember(byId.get(id)),
    /** Whether some other door calls somebody so. */
    isAtOtherDoor: ({ doorId, address }: Writer): boolean =>
      atOtherDoor.get(address, doorId) !== undefined,
    /** Puts a thread that has said nothing so far into its first conversation. */
    start: (thread: ThreadRecord, conversationId: string): ThreadRecord => {
      stand.run(conversationId, thread.id);
      const next = { ...thread, conversationId };
      remember(next);
      return next;
    },
    /** Moves a thread to a conversation, from `seq` on. */
    move: (thread: ThreadRecord, conversationId: string, seq: number): void => {
      if (staysOf.all(thread.id).length === 0) addStay.run(thread.id, thread.id, 0);
      endStay.run(seq, thread.id);
      addStay.run(thread.id, conversationId, seq);
      stand.run(conversationId, thread.id);
      remember({ ...thread, conversationId });
    },
    staysOf: staysOfThread,
    /** Who has stood in a conversation, and when; only those that were ever moved, but for its first. */
    staysIn: (conversationId: string): Stay[] => {
      const stays = staysIn.all(conversationId);
      const isFirstThere = stays.some(({ threadId }) => threadId === conversationId);
      return isFirstThere ? stays : [...staysOfThread(conversationId), ...stays];
    },
    forget: known.forget,
  };
};
