import type { Db } from './db';

/** More than this are of no use to one person; the oldest make room. */
const KEPT_MOST = 20;

/** Devices on which somebody has signed in before; of their secret only a hash. */
export const knownDevicesTable = (db: Db) => {
  const write = db.prepare(
    `INSERT INTO known_devices VALUES (@tokenHash, @memberId, @now)
     ON CONFLICT DO UPDATE SET seen_at = @now`,
  );
  const trim = db.prepare(
    `DELETE FROM known_devices WHERE member_id = @memberId AND token_hash NOT IN
       (SELECT token_hash FROM known_devices WHERE member_id = @memberId
        ORDER BY seen_at DESC LIMIT ${KEPT_MOST})`,
  );
  const find = db.prepare<[string, string], { seenAt: number }>(
    'SELECT seen_at AS seenAt FROM known_devices WHERE token_hash = ? AND member_id = ?',
  );
  const dropAll = db.prepare('DELETE FROM known_devices WHERE member_id = ?');
  return {
    note: (tokenHash: string, memberId: string, now: number): void => {
      write.run({ tokenHash, memberId, now });
      trim.run({ memberId });
    },
    isOf: (tokenHash: string, memberId: string): boolean =>
      find.get(tokenHash, memberId) !== undefined,
    dropAllOf: (memberId: string): void => {
      dropAll.run(memberId);
    },
  };
};
