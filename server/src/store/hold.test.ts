import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, chownSync, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unpack } from '../../test-kit/releases';
import { handClock } from '../clock';
import { openDataFolder } from '../data-folder';
import { copiesBeside } from './copies';
import { NotWritable, openBeside, openDatabase } from './database';
import { FolderHeld, holdFolder, makeOwnFile, makeOwnFolder } from './hold';

describe('data that a command opens beside a server', () => {
  it('is opened as it is, and brought up to date by the server alone', () => {
    const dir = mkdtempSync(join(tmpdir(), 'beside-'));
    const path = join(dir, 'porch.sqlite');
    unpack('0.3.0', path);
    expect(() => openBeside(path)).toThrow(/of an earlier program\. Start this one once/);
    expect(copiesBeside(path)).toEqual([]);
    openDatabase(path).close();
    const db = openBeside(path);
    db.pragma('user_version = 999');
    db.close();
    expect(() => openBeside(path)).toThrow(/of a newer program \(version 999\)/);
    rmSync(dir, { recursive: true, force: true });
  });
});

describe('a data folder', () => {
  let dir: string;
  beforeEach(() => {
    dir = mkdtempSync(join(tmpdir(), 'hold-'));
  });
  afterEach(() => rmSync(dir, { recursive: true, force: true }));

  it('is one process’s: the second is refused in plain words, and has touched nothing', () => {
    const letGo = holdFolder(dir);
    expect(() => holdFolder(dir)).toThrow(FolderHeld);
    expect(() => openDataFolder(dir, handClock(0))).toThrow(/Another Hello Porch already runs/);
    letGo();
    openDataFolder(dir, handClock(0)).close();
  });

  it('is free again at once after its process was killed', async () => {
    const hold = `
      const Database = require('better-sqlite3');
      const db = new Database(${JSON.stringify(join(dir, 'porch.lock'))});
      db.exec('BEGIN EXCLUSIVE');
      process.stdout.write('held');
      setInterval(() => {}, 1000);`;
    const child = spawn('node', ['-e', hold], { stdio: ['ignore', 'pipe', 'inherit'] });
    await once(child.stdout, 'data');
    expect(() => holdFolder(dir)).toThrow(FolderHeld);
    child.kill('SIGKILL');
    await once(child, 'exit');
    holdFolder(dir)();
  });

  it('lets go of what it held when it cannot be opened', () => {
    writeFileSync(
      join(dir, 'porch.sqlite'),
      'this is no database, and long enough to be told from one',
    );
    expect(() => openDataFolder(dir, handClock(0))).toThrow(/cannot be written/);
    holdFolder(dir)();
  });

  it('is readable by nobody else, whatever it was before', () => {
    const path = join(dir, 'porch.sqlite');
    openDatabase(path).close();
    chmodSync(path, 0o644);
    const db = openDatabase(path);
    db.exec("INSERT INTO marks VALUES ('x', 1)");
    for (const ending of ['', '-wal', '-shm']) {
      expect([ending, (statSync(path + ending).mode & 0o777).toString(8)]).toEqual([ending, '600']);
    }
    db.close();
  });

  it.each([
    ['a file', (path: string) => makeOwnFile(path)],
    ['a folder', (path: string) => makeOwnFolder(path)],
  ])('has whoever has the folder as its owner, where root makes %s in it', (_what, make) => {
    // Whoever is not root makes nothing that anybody else has.
    const own = process.getuid?.() === 0 ? 12_345 : statSync(dir).uid;
    chownSync(dir, own, statSync(dir).gid);
    const path = join(dir, 'restored');
    make(path);
    expect(statSync(path).uid).toBe(own);
  });

  it('survives a power cut: a commit is on the disk before it is answered (SQLite, PRAGMA synchronous)', () => {
    const db = openDatabase(join(dir, 'porch.sqlite'));
    const FULL = 2;
    expect(db.pragma('synchronous', { simple: true })).toBe(FULL);
    expect(db.pragma('journal_mode', { simple: true })).toBe('wal');
    expect(db.pragma('foreign_keys', { simple: true })).toBe(1);
    db.close();
  });

  it('that cannot be written is not opened, and says so in plain words', () => {
    const path = join(dir, 'porch.sqlite');
    openDatabase(path).close();
    // Root may write everything but what is on a disk that may only be read: a folder in the file's place is as bad.
    rmSync(path);
    execFileSync('mkdir', [path]);
    expect(() => openDatabase(path)).toThrow(NotWritable);
    expect(() => openDatabase(path)).toThrow(/Is the disk full, or may it only be read/);
  });
});
