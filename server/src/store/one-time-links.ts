import type { Role } from '@porch/contract/team';
import type { Db } from './db';

export type LinkRecord = {
  tokenHash: string;
  expiresAt: number;
  usedAt: number | null;
} & (
  | { kind: 'invite'; role: Role; memberId: null }
  | { kind: 'new-password'; role: null; memberId: string }
);

const columns =
  'token_hash AS tokenHash, kind, role, member_id AS memberId, expires_at AS expiresAt, used_at AS usedAt';

/** Links that work once: invitations, and the way to a new password. */
export const oneTimeLinksTable = (db: Db) => {
  const add = db.prepare(
    'INSERT INTO one_time_links VALUES (@tokenHash, @kind, @role, @memberId, @expiresAt, NULL)',
  );
  const find = db.prepare<[string], LinkRecord>(
    `SELECT ${columns} FROM one_time_links WHERE token_hash = ?`,
  );
  const use = db.prepare('UPDATE one_time_links SET used_at = ? WHERE token_hash = ?');
  const openInvites = db.prepare<[number], LinkRecord & { kind: 'invite' }>(
    `SELECT ${columns} FROM one_time_links
     WHERE kind = 'invite' AND used_at IS NULL AND expires_at > ? ORDER BY expires_at LIMIT 50`,
  );
  const drop = db.prepare('DELETE FROM one_time_links WHERE token_hash = ?');
  const dropOf = db.prepare('DELETE FROM one_time_links WHERE member_id = ?');
  const dropOld = db.prepare('DELETE FROM one_time_links WHERE expires_at < ?');
  return {
    add: (link: Omit<LinkRecord, 'usedAt'>): void => {
      add.run(link);
    },
    find: (tokenHash: string): LinkRecord | null => find.get(tokenHash) ?? null,
    use: (tokenHash: string, now: number): void => {
      use.run(now, tokenHash);
    },
    openInvites: (now: number) => openInvites.all(now),
    drop: (tokenHash: string): void => {
      drop.run(tokenHash);
    },
    dropAllOf: (memberId: string): void => {
      dropOf.run(memberId);
    },
    dropOlderThan: (at: number): void => {
      dropOld.run(at);
    },
  };
};
