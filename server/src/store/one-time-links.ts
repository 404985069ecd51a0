import type { Role } from '@porch/contract/people';
import type { Db } from './db';

export type LinkRecord = {
  tokenHash: string;
  expiresAt: number;
  usedAt: number | null;
  /** Who made it; null: the command on the server did. */
  madeBy: string | null;
} & (
  | { kind: 'invite'; role: Role; memberId: null; name: string }
  | { kind: 'new-password'; role: null; memberId: string; name: '' }
);

const columns =
  'token_hash AS tokenHash, name, kind, role, member_id AS memberId, expires_at AS expiresAt, used_at AS usedAt, made_by AS madeBy';

/** Links that work once: invitations, and the way to a new password. */
export const oneTimeLinksTable = (db: Db) => {
  const add = db.prepare(
    `INSERT INTO one_time_links (token_hash, kind, role, member_id, expires_at, made_by, name)
     VALUES (@tokenHash, @kind, @role, @memberId, @expiresAt, @madeBy, @name)`,
  );
  const find = db.prepare<[string], LinkRecord>(
    `SELECT ${columns} FROM one_time_links WHERE token_hash = ?`,
  );
  const use = db.prepare('UPDATE one_time_links SET used_at = ? WHERE token_hash = ?');
  const open = db.prepare<[number], LinkRecord>(
    `SELECT ${columns} FROM one_time_links
     WHERE used_at IS NULL AND expires_at > ? ORDER BY expires_at LIMIT 100`,
  );
  const drop = db.prepare('DELETE FROM one_time_links WHERE token_hash = ?');
  const dropFor = db.prepare('DELETE FROM one_time_links WHERE member_id = ? AND used_at IS NULL');
  const dropBy = db.prepare('DELETE FROM one_time_links WHERE made_by = ? AND used_at IS NULL');
  const dropOld = db.prepare('DELETE FROM one_time_links WHERE expires_at < ?');
  return {
    add: (link: Omit<LinkRecord, 'usedAt'>): void => {
      add.run(link);
    },
    find: (tokenHash: string): LinkRecord | null => find.get(tokenHash) ?? null,
    use: (tokenHash: string, now: number): void => {
      use.run(now, tokenHash);
    },
    /** Those that can still be used, the first to go stale first. */
    open: (now: number): LinkRecord[] => open.all(now),
    drop: (tokenHash: string): void => {
      drop.run(tokenHash);
    },
    /** Ends what is open for somebody to use. */
    dropFor: (memberId: string): void => {
      dropFor.run(memberId);
    },
    /** Ends what somebody has made and nobody has used. */
    dropMadeBy: (memberId: string): void => {
      dropBy.run(memberId);
    },
    dropOlderThan: (at: number): void => {
      dropOld.run(at);
    },
  };
};
