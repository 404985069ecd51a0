import type { Db } from './db';

export interface QuickReplyRecord {
  id: string;
  /** Null: the team's. */
  memberId: string | null;
  code: string;
  title: string;
  text: string;
  group: string;
  language: string;
  revision: number;
  changedAt: number;
  usedCount: number;
  usedAt: number | null;
}

const columns = `id, member_id AS memberId, code, title, text, group_name AS "group", language, revision,
  changed_at AS changedAt, used_count AS usedCount, used_at AS usedAt`;

/** Answers that are stored to be given again; there are at most REPLIES_MOST of them. */
export const quickRepliesTable = (db: Db) => {
  const all = db.prepare<[], QuickReplyRecord>(`SELECT ${columns} FROM quick_replies ORDER BY id`);
  const byId = db.prepare<[string], QuickReplyRecord>(
    `SELECT ${columns} FROM quick_replies WHERE id = ?`,
  );
  const count = db.prepare<[], { count: number }>('SELECT count(*) AS count FROM quick_replies');
  const byCode = db.prepare<[string, string], QuickReplyRecord>(
    `SELECT ${columns} FROM quick_replies
     WHERE coalesce(member_id, '') = ? AND code = ? AND code <> ''`,
  );
  const write = db.prepare(
    `INSERT INTO quick_replies
       (id, member_id, code, title, text, group_name, language, revision, changed_at)
     VALUES (@id, @memberId, @code, @title, @text, @group, @language, @revision, @changedAt)
     ON CONFLICT DO UPDATE SET member_id = excluded.member_id, code = excluded.code,
       title = excluded.title, text = excluded.text, group_name = excluded.group_name,
       language = excluded.language, revision = excluded.revision, changed_at = excluded.changed_at`,
  );
  const drop = db.prepare('DELETE FROM quick_replies WHERE id = ?');
  const use = db.prepare(
    'UPDATE quick_replies SET used_count = used_count + 1, used_at = ? WHERE id = ?',
  );
  const files = db.prepare<[], { replyId: string; fileId: string }>(
    'SELECT reply_id AS replyId, file_id AS fileId FROM quick_reply_files ORDER BY reply_id, place',
  );
  const dropFiles = db.prepare('DELETE FROM quick_reply_files WHERE reply_id = ?');
  const addFile = db.prepare('INSERT INTO quick_reply_files VALUES (?, ?, ?)');
  const shelf = db.prepare<[], { replyId: string; id: string; name: string }>(
    `SELECT q.reply_id AS replyId, s.id, s.name FROM quick_reply_shelf q
     JOIN shelf s ON s.id = q.shelf_id ORDER BY q.reply_id, q.place`,
  );
  const dropShelf = db.prepare('DELETE FROM quick_reply_shelf WHERE reply_id = ?');
  const addShelf = db.prepare('INSERT INTO quick_reply_shelf VALUES (?, ?, ?)');
  return {
    all: (): QuickReplyRecord[] => all.all(),
    byId: (id: string): QuickReplyRecord | null => byId.get(id) ?? null,
    count: (): number => count.get()?.count ?? 0,
    /** Which of the team's (no member), or of somebody's own, has a code; that of none is nobody's. */
    byCode: (memberId: string | null, code: string): QuickReplyRecord | null =>
      byCode.get(memberId ?? '', code) ?? null,
    /** How often it was used stays as it is. */
    write: (reply: Omit<QuickReplyRecord, 'usedCount' | 'usedAt'>): void => {
      write.run(reply);
    },
    drop: (id: string): void => {
      drop.run(id);
    },
    use: (id: string, at: number): void => {
      use.run(at, id);
    },
    /** The pictures of each that has some, in order. */
    files: (): Map<string, string[]> => {
      const byReply = new Map<string, string[]>();
      for (const { replyId, fileId } of files.all()) {
        byReply.set(replyId, [...(byReply.get(replyId) ?? []), fileId]);
      }
      return byReply;
    },
    /** What of the shelf goes with each that has some, in order. */
    shelf: (): Map<string, { id: string; name: string }[]> => {
      const byReply = new Map<string, { id: string; name: string }[]>();
      for (const { replyId, id, name } of shelf.all()) {
        byReply.set(replyId, [...(byReply.get(replyId) ?? []), { id, name }]);
      }
      return byReply;
    },
    setShelf: (replyId: string, shelfIds: readonly string[]): void => {
      dropShelf.run(replyId);
      for (const [place, id] of shelfIds.entries()) addShelf.run(replyId, place, id);
    },
    setFiles: (replyId: string, fileIds: readonly string[]): void => {
      dropFiles.run(replyId);
      for (const [place, fileId] of fileIds.entries()) addFile.run(replyId, place, fileId);
    },
  };
};
