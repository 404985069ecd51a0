import type { Member, Out, Role, TeamMember } from '@porch/contract/people';
import type { Db } from './db';
import { createKept } from './kept';

export interface MemberRecord extends Member {
  email: string;
  passwordHash: string;
}

const shown = 'id, name, role, public_name AS publicName, picture_id AS pictureId';
const whereabouts = 'is_out AS isOut, out_until AS outUntil';

type StoredMember = Member & {
  email: string;
  leftAt: number | null;
  isOut: 0 | 1;
  outUntil: number | null;
};

export const membersTable = (db: Db) => {
  const add = db.prepare(
    `INSERT INTO members (id, name, email, password_hash, role, public_name, picture_id, created_at)
     VALUES (@id, @name, @email, @passwordHash, @role, @publicName, @pictureId, @now)`,
  );
  const byEmail = db.prepare<[string], MemberRecord>(
    `SELECT ${shown}, email, password_hash AS passwordHash FROM members WHERE email = ?`,
  );
  const byId = db.prepare<[string], MemberRecord & { leftAt: number | null }>(
    `SELECT ${shown}, email, password_hash AS passwordHash, left_at AS leftAt
     FROM members WHERE id = ?`,
  );
  const all = db.prepare<[], StoredMember>(
    `SELECT ${shown}, ${whereabouts}, email, left_at AS leftAt
     FROM members ORDER BY created_at, id`,
  );
  const update = db.prepare(
    'UPDATE members SET name = @name, public_name = @publicName, picture_id = @pictureId WHERE id = @id',
  );
  const setRole = db.prepare('UPDATE members SET role = ? WHERE id = ?');
  const setOut = db.prepare(
    'UPDATE members SET is_out = @isOut, out_until = @until WHERE id = @id',
  );
  const setPassword = db.prepare('UPDATE members SET password_hash = ? WHERE id = ?');
  // The address is free again for whoever is invited next; nobody signs in by what stands there.
  const leave = db.prepare(
    `UPDATE members SET left_at = @now, email = 'left ' || id, password_hash = '' WHERE id = @id`,
  );
  const kept = createKept((): readonly TeamMember[] =>
    all.all().map(({ leftAt, isOut, outUntil, ...member }) => ({
      ...member,
      out: isOut ? { until: outUntil } : null,
      email: leftAt === null ? member.email : '',
      hasLeft: leftAt !== null,
    })),
  );
  return {
    add: (member: MemberRecord, now: number): void => {
      kept.forget();
      add.run({ ...member, now });
    },
    byEmail: (email: string): MemberRecord | null => byEmail.get(email) ?? null,
    /** Somebody who is still of the team. */
    byId: (id: string): MemberRecord | null => {
      const found = byId.get(id);
      return found && found.leftAt === null ? found : null;
    },
    /** Everybody, also who has left. */
    all: (): readonly TeamMember[] => kept.get(),
    forget: kept.forget,
    /** Anybody's name and face, also of who has left. */
    shownOf: (id: string): Pick<Member, 'name' | 'publicName' | 'pictureId'> | null =>
      byId.get(id) ?? null,
    update: (member: Pick<Member, 'id' | 'name' | 'publicName' | 'pictureId'>): void => {
      kept.forget();
      update.run(member);
    },
    setRole: (id: string, role: Role): void => {
      kept.forget();
      setRole.run(role, id);
    },
    /** Null: they are in. */
    setOut: (id: string, out: Out | null): void => {
      kept.forget();
      setOut.run({ id, isOut: out ? 1 : 0, until: out?.until ?? null });
    },
    setPassword: (id: string, passwordHash: string): void => {
      setPassword.run(passwordHash, id);
    },
    leave: (id: string, now: number): void => {
      kept.forget();
      leave.run({ id, now });
    },
  };
};
