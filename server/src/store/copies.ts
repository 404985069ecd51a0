import { closeSync, fsyncSync, openSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import type { Db } from './db';
import { makeOwnFile } from './hold';

/** What was there before the newest two updates can be gone back to; older copies go. */
export const COPIES_KEPT = 2;

const isCopy = (name: string): boolean => /^before-update-\d{8}-\d{6}-from-\d+\.sqlite$/.test(name);

/** The copies beside a database that were made before it was brought up to date, oldest first. */
export const copiesBeside = (path: string): string[] =>
  readdirSync(dirname(path)).filter(isCopy).sort();

/** Sees to it that a file, or a folder's list of names, is on disk and not only on its way there. */
export const toDisk = (path: string, mode: 'r+' | 'r' = 'r+'): void => {
  const file = openSync(path, mode);
  fsyncSync(file);
  closeSync(file);
};

/** "20261126-215043" for a moment, in UTC: copies sort by it. */
const stampOf = (at: number): string =>
  new Date(at).toISOString().slice(0, 19).replaceAll(/[-:]/g, '').replace('T', '-');

/**
 * Copies an open database whole, beside its own file, before it is brought up to date from `version`; the
 * copy appears under its name only when it is on disk. Keeps the newest two. Throws when there is no room:
 * then nothing was changed.
 */
export const keepCopy = (db: Db, version: number, at: number): string => {
  const folder = dirname(db.name);
  const copy = join(folder, `before-update-${stampOf(at)}-from-${version}.sqlite`);
  const making = `${copy}.making`;
  try {
    rmSync(making, { force: true });
    makeOwnFile(making);
    db.prepare('VACUUM INTO ?').run(making);
    toDisk(making);
    renameSync(making, copy);
    toDisk(folder, 'r');
  } catch (error) {
    rmSync(making, { force: true });
    throw new Error(
      `Before the data can be brought up to date a copy of it is made beside it, and that failed (${(error as Error).message}). Nothing was changed. Make room in ${folder}, and start again.`,
    );
  }
  for (const old of copiesBeside(db.name).slice(0, -COPIES_KEPT)) rmSync(join(folder, old));
  return basename(copy);
};
