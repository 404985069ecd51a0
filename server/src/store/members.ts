import type { Member } from '@porch/contract/team';
import type { Db } from './db';

export interface MemberRecord extends Member {
  email: string;
  passwordHash: string;
}

const columns = 'id, name, email, role, password_hash AS passwordHash';

export const membersTable = (db: Db) => {
  const add = db.prepare(
    'INSERT INTO members VALUES (@id, @name, @email, @passwordHash, @role, @now)',
  );
  const byEmail = db.prepare<[string], MemberRecord>(
    `SELECT ${columns} FROM members WHERE email = ?`,
  );
  const all = db.prepare<[], Member>('SELECT id, name, role FROM members ORDER BY created_at, id');
  const name = db.prepare<[string], { name: string }>('SELECT name FROM members WHERE id = ?');
  return {
    nameOf: (id: string): string => name.get(id)?.name ?? '',
    add: (member: MemberRecord, now: number): void => {
      add.run({ ...member, now });
    },
    byEmail: (email: string): MemberRecord | null => byEmail.get(email) ?? null,
    all: (): Member[] => all.all(),
  };
};
