import type { Db } from './db';

export interface VisitorAddressRecord {
  id: string;
  threadId: string;
  /** To whom mail went, in small letters. */
  address: string;
  expiresAt: number;
}

/** So many of a thread's mails are named in the next one. */
const NAMED_MOST = 10;

/** Mail with visitors: by which addresses they answer, what went, and where nothing more is to go. */
export const visitorMailTable = (db: Db) => {
  const fields = 'id, thread_id AS threadId, address, expires_at AS expiresAt';
  const add = db.prepare(
    'INSERT INTO visitor_addresses VALUES (@id, @threadId, @address, @expiresAt)',
  );
  const byId = db.prepare<[string], VisitorAddressRecord>(
    `SELECT ${fields} FROM visitor_addresses WHERE id = ?`,
  );
  const of = db.prepare<[string, string], VisitorAddressRecord>(
    `SELECT ${fields} FROM visitor_addresses WHERE thread_id = ? AND address = ?`,
  );
  const drop = db.prepare('DELETE FROM visitor_addresses WHERE id = ?');
  const dropBefore = db.prepare('DELETE FROM visitor_addresses WHERE expires_at < ?');
  const note = db.prepare('INSERT INTO visitor_mails VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING');
  const first = db.prepare<[string], { messageId: string }>(
    'SELECT message_id AS messageId FROM visitor_mails WHERE thread_id = ? ORDER BY at, message_id LIMIT 1',
  );
  const newest = db.prepare<[string, number], { messageId: string; upTo: number | null }>(
    `SELECT message_id AS messageId, up_to AS upTo FROM visitor_mails
     WHERE thread_id = ? ORDER BY at DESC, message_id DESC LIMIT ?`,
  );
  const upTo = db.prepare<[string], { upTo: number | null }>(
    'SELECT max(up_to) AS upTo FROM visitor_mails WHERE thread_id = ?',
  );
  const threadOf = db.prepare<[string], { threadId: string }>(
    'SELECT thread_id AS threadId FROM visitor_mails WHERE message_id = ? LIMIT 1',
  );
  const begin = db.prepare(
    'INSERT INTO visitor_mails_begun VALUES (?, ?) ON CONFLICT DO UPDATE SET up_to = excluded.up_to',
  );
  const begun = db.prepare<[string], { upTo: number }>(
    'SELECT up_to AS upTo FROM visitor_mails_begun WHERE thread_id = ?',
  );
  const end = db.prepare('DELETE FROM visitor_mails_begun WHERE thread_id = ?');
  const stop = db.prepare('INSERT INTO mail_stopped VALUES (?, ?) ON CONFLICT DO NOTHING');
  const stopped = db.prepare<[string], { at: number }>(
    'SELECT at FROM mail_stopped WHERE address = ?',
  );
  const key = (address: string): string => address.trim().toLowerCase();
  return {
    add: (record: VisitorAddressRecord): void => {
      add.run(record);
    },
    byId: (id: string): VisitorAddressRecord | null => byId.get(id) ?? null,
    of: (threadId: string, address: string): VisitorAddressRecord | null =>
      of.get(threadId, key(address)) ?? null,
    drop: (id: string): void => {
      drop.run(id);
    },
    dropBefore: (at: number): void => {
      dropBefore.run(at);
    },
    /** Keeps that a mail went or came; `upTo`: which answers ours brought, null for one of theirs. */
    note: (threadId: string, at: number, messageId: string, upToSeq: number | null): void => {
      note.run(threadId, at, messageId, upToSeq);
    },
    /** The seq of the newest answer that went by mail; 0 before any. */
    mailedUpTo: (threadId: string): number => upTo.get(threadId)?.upTo ?? 0,
    /** The first mail of a thread, and its newest ones, oldest first. */
    idsOf: (threadId: string): string[] => {
      const last = newest.all(threadId, NAMED_MOST).map(({ messageId }) => messageId);
      const begun = first.get(threadId)?.messageId;
      return [...new Set([...(begun ? [begun] : []), ...last.reverse()])];
    },
    /** In which thread a mail went or came; null: none of ours is called so. */
    threadOf: (messageId: string): string | null => threadOf.get(messageId)?.threadId ?? null,
    /** A mail that brings the answers up to a seq is about to be handed over. */
    begin: (threadId: string, upToSeq: number): void => {
      begin.run(threadId, upToSeq);
    },
    /** Up to where a mail was begun of which nobody knows whether it went; null: there is none. */
    begunUpTo: (threadId: string): number | null => begun.get(threadId)?.upTo ?? null,
    end: (threadId: string): void => {
      end.run(threadId);
    },
    stop: (address: string, at: number): void => {
      stop.run(key(address), at);
    },
    isStopped: (address: string): boolean => stopped.get(key(address)) !== undefined,
  };
};
