import type { Db } from './db';
import first from './migrations/0001-first.sql';
import doorsAndTeam from './migrations/0002-doors-and-team.sql';
import whatHeldNot from './migrations/0003-what-held-not.sql';

/** In order; a migration that has shipped is never edited, only followed. */
export const migrations: readonly string[] = [first, doorsAndTeam, whatHeldNot];

/**
 * Brings a database from the version it has to `target` (default: the newest), each step whole or
 * not at all. A database from a newer program is refused rather than guessed at.
 */
export const migrate = (db: Db, target: number = migrations.length): void => {
  const has = db.pragma('user_version', { simple: true }) as number;
  if (has > migrations.length) {
    throw new Error(
      `The data is of version ${has}; this program knows up to ${migrations.length}.`,
    );
  }
  migrations.slice(has, target).forEach((sql, index) => {
    db.transaction(() => {
      db.exec(sql);
      db.pragma(`user_version = ${has + index + 1}`);
    })();
  });
};
