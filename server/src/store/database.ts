import { chmodSync, existsSync, rmSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
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
    // What is written again and again goes from the log into the file once for all: at most 16 MB of log.
    db.pragma('wal_autocheckpoint = 4000');
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

/** Room for a copy, for the log of the change, and for what grows by it, in copies of the file. */
const ROOM_FACTOR = 3;

/** The disk has no room, or refuses more of a file. */
const isFull = (error: unknown): boolean =>
  /^SQLITE_(?:FULL|IOERR_WRITE)/.test((error as { code?: string }).code ?? '');

/**
 * Brings an open database up to date, having kept a copy of it as it was, named by `now` (UTC epoch milliseconds). Where
 * there is no room for it nothing is changed, no copy stays, and the error says how much is needed.
 */
export const bringUpToDate = (db: Db, now: number): void => {
  const version = versionOf(db);
  const isOld = version > 0 && version < migrations.length;
  const folder = dirname(db.name);
  const copy = isOld && !db.memory ? keepCopy(db, version, now) : null;
  try {
    migrate(db);
  } catch (error) {
    if (copy === null || !isFull(error)) throw error;
    // It holds nothing that is not here, and the next try would make another one.
    rmSync(join(folder, copy));
    const needed = Math.ceil((ROOM_FACTOR * statSync(db.name).size) / 1_000_000);
    throw new Error(
      `There is too little room to bring the data up to date (${(error as Error).message}). Nothing was changed. Make at least ${needed} MB free in ${folder}, and start again.`,
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
    bringUpToDate(db, now);
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
