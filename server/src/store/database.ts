import { chmodSync, existsSync } from 'node:fs';
import { dirname } from 'node:path';
import Database from 'better-sqlite3';
import { keepCopy } from './copies';
import type { Db } from './db';
import { makeOwnFile, makeOwnFolder, OWN_FILE_MODE } from './hold';
import { migrate, migrations, versionOf } from './migrate';

/** The file cannot be written, so it is not opened: in plain words for whoever starts the server. */
export class NotWritable extends Error {}

/** The data is not of this program's version. */
export class NotUpToDate extends Error {}

/** The database's own file; its log and its index get the same rights from SQLite. */
const prepareFile = (path: string): void => {
  makeOwnFolder(dirname(path));
  makeOwnFile(path);
  for (const ending of ['', '-wal', '-shm']) {
    if (existsSync(path + ending)) chmodSync(path + ending, OWN_FILE_MODE);
  }
};

const openWritable = (path: string): Db => {
  try {
    if (path !== ':memory:') prepareFile(path);
    const db = new Database(path);
    db.pragma('journal_mode = WAL');
    db.pragma('synchronous = FULL');
    db.pragma('foreign_keys = ON');
    db.pragma('busy_timeout = 5000');
    // Pages in memory: 64 MB keeps a million entries' indexes warm.
    db.pragma('cache_size = -65536');
    // Says at once what a read-only or full disk would say with the first message.
    db.exec('BEGIN IMMEDIATE');
    db.pragma(`user_version = ${db.pragma('user_version', { simple: true })}`);
    db.exec('COMMIT');
    return db;
  } catch (error) {
    throw new NotWritable(
      `The data in ${path} cannot be written (${(error as Error).message}). Is the disk full, or may it only be read?`,
    );
  }
};

/**
 * Opens the business's one file and brings it up to date, having kept a copy of it as it was. What a
 * transaction has committed is on disk (`synchronous = FULL`), so an acknowledgement after it survives a power
 * cut. `now` is for the copy's name.
 */
export const openDatabase = (path: string, now: number = Date.now()): Db => {
  const db = openWritable(path);
  try {
    const version = versionOf(db);
    const isOld = version > 0 && version < migrations.length;
    if (isOld && path !== ':memory:') keepCopy(db, version, now);
    migrate(db);
  } catch (error) {
    db.close();
    throw error;
  }
  return db;
};

/**
 * Opens the data for a command that may run beside a server. It brings nothing up to date: that is done by the
 * server that starts next, which holds the folder meanwhile.
 */
export const openBeside = (path: string): Db => {
  const db = openWritable(path);
  const version = versionOf(db);
  if (version === migrations.length) return db;
  db.close();
  throw new NotUpToDate(
    version > migrations.length
      ? `The data in ${path} is of a newer program (version ${version}); this one knows up to ${migrations.length}.`
      : `The data in ${path} is of an earlier program. Start this one once (npm start), so that it is brought up to date.`,
  );
};
