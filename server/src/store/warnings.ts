import type { SignInWarning } from '@porch/contract/people';
import type { Db } from './db';

/** Wrong tries at somebody's account, for them to see. */
export const warningsTable = (db: Db) => {
  const add = db.prepare(
    `INSERT INTO sign_in_warnings VALUES (?, 1, ?)
     ON CONFLICT DO UPDATE SET failures = failures + 1, last_at = excluded.last_at`,
  );
  const find = db.prepare<[string], SignInWarning>(
    'SELECT failures, last_at AS lastAt FROM sign_in_warnings WHERE member_id = ?',
  );
  const drop = db.prepare('DELETE FROM sign_in_warnings WHERE member_id = ?');
  return {
    add: (memberId: string, now: number): void => {
      add.run(memberId, now);
    },
    of: (memberId: string): SignInWarning | null => find.get(memberId) ?? null,
    drop: (memberId: string): void => {
      drop.run(memberId);
    },
  };
};
