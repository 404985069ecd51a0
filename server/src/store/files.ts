import type { FileMention } from '@porch/core/conversation';
import type { Db } from './db';

export interface FileRecord {
  id: string;
  /** Who sent it: a visitor's thread, or a member. */
  fromThread: string | null;
  fromMember: string | null;
  /** In which thread it was said; null: nowhere yet. */
  inThread: string | null;
  name: string;
  type: string;
  sizeBytes: number;
  width: number | null;
  height: number | null;
  /** Hash of the bytes as they were sent; null for what came before this was kept. */
  sentHash: string | null;
}

export interface FileBytes {
  whole: Buffer;
  thumbnail: Buffer | null;
}

const columns = `id, from_thread AS fromThread, from_member AS fromMember,
  in_thread AS inThread, name, type, size_bytes AS sizeBytes, width, height,
  sent_hash AS sentHash`;

/** A file as a message mentions it. */
export const toMention = (file: FileRecord): FileMention => ({
  id: file.id,
  name: file.name,
  type: file.type,
  sizeBytes: file.sizeBytes,
  ...(file.width && file.height ? { picture: { width: file.width, height: file.height } } : {}),
});

export const filesTable = (db: Db) => {
  const add = db.prepare(
    `INSERT INTO files (id, from_thread, from_member, in_thread, name, type, size_bytes, width,
       height, created_at, sent_hash)
     VALUES (@id, @fromThread, @fromMember, @inThread, @name, @type, @sizeBytes, @width,
       @height, @now, @sentHash)`,
  );
  const addBytes = db.prepare('INSERT INTO file_bytes VALUES (?, ?, ?)');
  const byId = db.prepare<[string], FileRecord>(`SELECT ${columns} FROM files WHERE id = ?`);
  const whole = db.prepare<[string], { bytes: Buffer }>(
    'SELECT whole AS bytes FROM file_bytes WHERE file_id = ?',
  );
  const thumbnail = db.prepare<[string], { bytes: Buffer | null }>(
    'SELECT thumbnail AS bytes FROM file_bytes WHERE file_id = ?',
  );
  const attach = db.prepare('UPDATE files SET in_thread = ? WHERE id = ?');
  const dropUnsent = db.prepare(
    `DELETE FROM files WHERE in_thread IS NULL AND created_at < ?
       AND NOT EXISTS (SELECT 1 FROM quick_reply_files WHERE file_id = files.id)
       AND NOT EXISTS (SELECT 1 FROM card_files WHERE file_id = files.id)
       AND NOT EXISTS (SELECT 1 FROM shelf WHERE file_id = files.id)
       AND NOT EXISTS (SELECT 1 FROM shelf_said WHERE file_id = files.id)`,
  );
  return {
    add: (file: FileRecord, bytes: FileBytes, now: number): void => {
      add.run({ ...file, now });
      addBytes.run(file.id, bytes.whole, bytes.thumbnail);
    },
    byId: (id: string): FileRecord | null => byId.get(id) ?? null,
    whole: (id: string): Buffer | null => whole.get(id)?.bytes ?? null,
    thumbnail: (id: string): Buffer | null => thumbnail.get(id)?.bytes ?? null,
    attach: (id: string, threadId: string): void => {
      attach.run(threadId, id);
    },
    dropUnsentBefore: (at: number): void => {
      dropUnsent.run(at);
    },
  };
};
