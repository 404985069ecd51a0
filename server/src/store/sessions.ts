import type { Member } from '@porch/contract/team';
import type { Db } from './db';

export const sessionsTable = (db: Db) => {
  const add = db.prepare('INSERT INTO sessions VALUES (?, ?, ?, ?)');
  const find = db.prepare<[string], Member & { lastSeenAt: number }>(
    `SELECT m.id, m.name, m.role, s.last_seen_at AS lastSeenAt
     FROM sessions s JOIN members m ON m.id = s.member_id WHERE s.token_hash = ?`,
  );
  const touch = db.prepare('UPDATE sessions SET last_seen_at = ? WHERE token_hash = ?');
  const end = db.prepare('DELETE FROM sessions WHERE token_hash = ?');
  const endAll = db.prepare('DELETE FROM sessions WHERE member_id = ?');
  const endOld = db.prepare('DELETE FROM sessions WHERE last_seen_at < ?');
  return {
    add: (tokenHash: string, memberId: string, now: number): void => {
      add.run(tokenHash, memberId, now, now);
    },
    find: (tokenHash: string) => find.get(tokenHash) ?? null,
    touch: (tokenHash: string, now: number): void => {
      touch.run(now, tokenHash);
    },
    end: (tokenHash: string): void => {
      end.run(tokenHash);
    },
    endAllOf: (memberId: string): void => {
      endAll.run(memberId);
    },
    endOlderThan: (at: number): void => {
      endOld.run(at);
    },
  };
};
