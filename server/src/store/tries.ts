import type { Db } from './db';

export interface Tries {
  failures: number;
  lastAt: number;
  notBefore: number;
}

/** Failed sign-ins, by account and by address; kept on disk so that a restart forgives nothing. */
export const triesTable = (db: Db) => {
  const find = db.prepare<[string], Tries>(
    `SELECT failures, last_at AS lastAt, not_before AS notBefore
     FROM sign_in_tries WHERE subject = ?`,
  );
  const write = db.prepare(
    `INSERT INTO sign_in_tries VALUES (@subject, @failures, @lastAt, @notBefore)
     ON CONFLICT DO UPDATE SET failures = @failures, last_at = @lastAt, not_before = @notBefore`,
  );
  const forget = db.prepare('DELETE FROM sign_in_tries WHERE subject = ?');
  const forgetOld = db.prepare('DELETE FROM sign_in_tries WHERE last_at < ?');
  return {
    find: (subject: string): Tries | null => find.get(subject) ?? null,
    write: (subject: string, tries: Tries): void => {
      write.run({ subject, ...tries });
    },
    forget: (subject: string): void => {
      forget.run(subject);
    },
    forgetOlderThan: (at: number): void => {
      forgetOld.run(at);
    },
  };
};
