import type { DeviceKind, Member } from '@porch/contract/people';
import type { Db } from './db';

export const sessionsTable = (db: Db) => {
  const add = db.prepare(
    `INSERT INTO sessions (token_hash, member_id, device, created_at, last_seen_at)
     VALUES (@tokenHash, @memberId, @device, @now, @now)`,
  );
  const find = db.prepare<[string], Member & { lastSeenAt: number }>(
    `SELECT m.id, m.name, m.role, m.public_name AS publicName, m.picture_id AS pictureId,
       s.last_seen_at AS lastSeenAt
     FROM sessions s JOIN members m ON m.id = s.member_id
     WHERE s.token_hash = ? AND m.left_at IS NULL`,
  );
  const onPhone = db.prepare<[string], { device: string }>(
    "SELECT device FROM sessions WHERE member_id = ? AND device = 'phone' LIMIT 1",
  );
  const touch = db.prepare('UPDATE sessions SET last_seen_at = ? WHERE token_hash = ?');
  const end = db.prepare('DELETE FROM sessions WHERE token_hash = ?');
  const endAll = db.prepare('DELETE FROM sessions WHERE member_id = ?');
  const endOthers = db.prepare('DELETE FROM sessions WHERE member_id = ? AND token_hash <> ?');
  const endOld = db.prepare('DELETE FROM sessions WHERE last_seen_at < ?');
  return {
    add: (tokenHash: string, memberId: string, device: DeviceKind, now: number): void => {
      add.run({ tokenHash, memberId, device, now });
    },
    find: (tokenHash: string) => find.get(tokenHash) ?? null,
    isOnPhone: (memberId: string): boolean => onPhone.get(memberId) !== undefined,
    touch: (tokenHash: string, now: number): void => {
      touch.run(now, tokenHash);
    },
    end: (tokenHash: string): void => {
      end.run(tokenHash);
    },
    endAllOf: (memberId: string): void => {
      endAll.run(memberId);
    },
    endOthersOf: (memberId: string, keptHash: string): void => {
      endOthers.run(memberId, keptHash);
    },
    endOlderThan: (at: number): void => {
      endOld.run(at);
    },
  };
};
