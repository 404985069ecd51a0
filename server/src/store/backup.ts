import { copyFileSync, existsSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import Database from 'better-sqlite3';
import { toDisk } from './copies';
import { holdFolder, makeOwnFile, makeOwnFolder } from './hold';
import { migrations } from './migrate';

export interface BackedUp {
  conversations: number;
  entries: number;
  bytes: number;
}

const count = (db: Database.Database, table: string): number =>
  db.prepare(`SELECT count(*) FROM ${table}`).pluck().get() as number;

/** Whether a file is the whole data of a house that this program can read. Throws in plain words when not. */
const checked = (path: string): BackedUp => {
  const db = new Database(path, { readonly: true, fileMustExist: true });
  try {
    const version = db.pragma('user_version', { simple: true }) as number;
    if (version === 0) throw new Error(`${path} is not the data of a Hello Porch.`);
    if (version > migrations.length) {
      throw new Error(`${path} comes from a newer Hello Porch (version ${version}).`);
    }
    const integrity = db.pragma('integrity_check', { simple: true });
    if (integrity !== 'ok') throw new Error(`${path} is damaged: ${integrity}`);
    const dangling = db.pragma('foreign_key_check') as unknown[];
    if (dangling.length > 0)
      throw new Error(`${path} is damaged: rows refer to what is not there.`);
    return {
      conversations: count(db, 'conversations'),
      entries: count(db, 'entries'),
      bytes: statSync(path).size,
    };
  } finally {
    db.close();
  }
};

/**
 * Copies a database, also while the server writes it, and checks the copy as a whole. The copy appears
 * under its name only when it is right. Throws in plain words when it could not be made.
 */
export const backUp = async (from: string, to: string): Promise<BackedUp> => {
  if (!existsSync(from)) throw new Error(`there is no ${from}`);
  if (existsSync(to)) throw new Error(`${to} is there already`);
  makeOwnFolder(dirname(to));
  const making = `${to}.making`;
  rmSync(making, { force: true });
  makeOwnFile(making);
  const db = new Database(from, { readonly: true, timeout: 30_000 });
  try {
    await db.backup(making);
  } finally {
    db.close();
  }
  try {
    // A copy of a file with a log says that it has one; this one stands for itself.
    const copy = new Database(making);
    copy.pragma('journal_mode = DELETE');
    copy.close();
    const found = checked(making);
    toDisk(making);
    renameSync(making, to);
    return found;
  } catch (error) {
    rmSync(making, { force: true });
    throw error;
  }
};

/** Folds what stands in the log into the file, so that moving it aside is one step. */
const foldLog = (path: string): void => {
  try {
    const db = new Database(path);
    db.pragma('wal_checkpoint(TRUNCATE)');
    db.close();
  } catch {
    // Damaged: perhaps the reason for all this. It is moved aside as it is, its log with it.
  }
};

/**
 * Puts a backup in the place of a folder's data. What was there is kept beside it (`aside`, null when there was
 * nothing). Nobody else may have the folder meanwhile. Throws in plain words, and then nothing has changed.
 */
export const restore = (
  dataDir: string,
  from: string,
  stamp: string,
): BackedUp & { aside: string | null } => {
  const letGo = holdFolder(dataDir);
  try {
    const found = checked(from);
    const place = join(dataDir, 'porch.sqlite');
    const coming = join(dataDir, 'porch.sqlite.restoring');
    rmSync(coming, { force: true });
    makeOwnFile(coming);
    copyFileSync(from, coming);
    checked(coming);
    toDisk(coming);
    const aside = existsSync(place) ? `before-restore-${stamp}.sqlite` : null;
    if (aside) {
      foldLog(place);
      for (const ending of ['-wal', '-shm', '']) {
        if (existsSync(place + ending)) renameSync(place + ending, join(dataDir, aside + ending));
      }
    }
    renameSync(coming, place);
    return { ...found, aside };
  } finally {
    letGo();
  }
};
