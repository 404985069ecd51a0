import { chownSync, closeSync, existsSync, mkdirSync, openSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import Database from 'better-sqlite3';

/** Only whoever runs the server reads what it keeps. */
export const OWN_FILE_MODE = 0o600;
export const OWN_FOLDER_MODE = 0o700;

/** What root makes for a service (a backup, a restored file) belongs to whoever has the folder that it is in. */
const giveToOwner = (path: string, folder: string): void => {
  if (process.getuid?.() !== 0) return;
  const { uid, gid } = statSync(folder);
  if (uid !== 0) chownSync(path, uid, gid);
};

/** Makes a file that nobody else may read, unless it is there. */
export const makeOwnFile = (path: string): void => {
  const isNew = !existsSync(path);
  closeSync(openSync(path, 'a', OWN_FILE_MODE));
  if (isNew) giveToOwner(path, dirname(path));
};

export const makeOwnFolder = (path: string): void => {
  const made = mkdirSync(path, { recursive: true, mode: OWN_FOLDER_MODE });
  if (made !== undefined) giveToOwner(path, dirname(made));
};

/** Somebody else has the data folder. */
export class FolderHeld extends Error {}

/**
 * Holds a data folder for one process: what a server remembers of its rows would spoil another one's. It is a
 * lock of the operating system's (on a small database of its own), so it ends with the process, however that
 * ends. Gives what lets go of it. Throws `FolderHeld` when somebody else holds it.
 */
export const holdFolder = (dataDir: string): (() => void) => {
  makeOwnFolder(dataDir);
  const path = join(dataDir, 'porch.lock');
  makeOwnFile(path);
  const lock = new Database(path, { timeout: 0 });
  try {
    lock.pragma('journal_mode = MEMORY');
    lock.exec('BEGIN EXCLUSIVE');
  } catch (error) {
    lock.close();
    if ((error as { code?: string }).code !== 'SQLITE_BUSY') throw error;
    throw new FolderHeld(
      `Another Hello Porch already runs on the data in ${dataDir}. Stop that one first, or set DATA_DIR to another folder.`,
    );
  }
  return () => {
    lock.close();
  };
};
