import { mkdirSync } from 'node:fs';
import { dirname } from 'node:path';
import Database from 'better-sqlite3';
import type { Db } from './db';
import { migrate } from './migrate';

/**
 * Opens the business's one file and brings it up to date. What a transaction has committed is on
 * disk (`synchronous = FULL`), so an acknowledgement after it survives a power cut.
 */
export const openDatabase = (path: string): Db => {
  if (path !== ':memory:') mkdirSync(dirname(path), { recursive: true });
  const db = new Database(path);
  db.pragma('journal_mode = WAL');
  db.pragma('synchronous = FULL');
  db.pragma('foreign_keys = ON');
  db.pragma('busy_timeout = 5000');
  // Pages in memory: 64 MB keeps a million entries' indexes warm.
  db.pragma('cache_size = -65536');
  migrate(db);
  return db;
};
