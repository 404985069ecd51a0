import { copyFileSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { handClock } from '../clock';
import { openDataFolder } from '../data-folder';
import { openDatabase } from './database';
import { damageBeside, damageOf } from './log-check';

const HEADER = 32;

describe('a write-ahead log (SQLite, "WAL File Format")', () => {
  let dir: string;
  beforeEach(() => {
    dir = mkdtempSync(join(tmpdir(), 'log-'));
  });
  afterEach(() => rmSync(dir, { recursive: true, force: true }));

  /** A log of several commits, as a killed process leaves it; with its database. */
  const leftBehind = () => {
    const path = join(dir, 'open.sqlite');
    const db = openDatabase(path);
    db.pragma('wal_checkpoint(TRUNCATE)');
    db.pragma('wal_autocheckpoint = 0');
    for (let index = 0; index < 12; index += 1) {
      db.prepare('INSERT INTO marks VALUES (?, ?)').run(`mark ${index}`, index);
    }
    const log = readFileSync(`${path}-wal`);
    copyFileSync(path, join(dir, 'porch.sqlite'));
    db.close();
    const frame = 24 + log.readUInt32BE(8);
    return { log, frame, frames: (log.length - HEADER) / frame };
  };
  const marksIn = (log: Buffer): number => {
    const path = join(dir, 'porch.sqlite');
    writeFileSync(`${path}-wal`, log);
    const db = new Database(path);
    const count = db.prepare('SELECT count(*) FROM marks').pluck().get() as number;
    db.close();
    return count;
  };
  const flipped = (log: Buffer, at: number): Buffer => {
    const copy = Buffer.from(log);
    copy[at] = (copy[at] ?? 0) ^ 0xff;
    return copy;
  };

  it('is in order as it is written, by the same reckoning as SQLite’s own', () => {
    const { log, frames } = leftBehind();
    expect(frames).toBeGreaterThanOrEqual(12);
    expect(damageOf(log)).toBeNull();
    expect(marksIn(log)).toBe(12);
  });

  it('is damaged where a frame in its middle is, and SQLite loses all behind it without a word', () => {
    const { log, frame, frames } = leftBehind();
    const broken = flipped(log, HEADER + 3 * frame + 24 + 100);
    expect(damageOf(broken)).toEqual({ readFrames: 3, lostFrames: frames - 3 });
    expect(marksIn(broken)).toBeLessThan(12);
  });

  it('is damaged where its header is, of which SQLite says nothing and forgets all', () => {
    const { log, frames } = leftBehind();
    // Its mark, its format, its page size, its round, its salt, its sum: in each case nothing of it is read.
    for (const at of [0, 5, 9, 13, 17, 25]) {
      const broken = flipped(log, at);
      expect(damageOf(broken)).toEqual({ readFrames: 0, lostFrames: frames });
      expect(marksIn(broken)).toBe(0);
    }
  });

  it('whose header alone is damaged is mended, and nothing of it is lost', () => {
    const { log } = leftBehind();
    const path = join(dir, 'porch.sqlite');
    const database = readFileSync(path);
    for (const at of [0, 5, 9, 13, 17, 25]) {
      writeFileSync(path, database);
      writeFileSync(`${path}-wal`, flipped(log, at));
      expect(damageBeside(path)).toBeNull();
      const db = new Database(path);
      expect(db.prepare('SELECT count(*) FROM marks').pluck().get()).toBe(12);
      db.close();
    }
    writeFileSync(path, database);
    writeFileSync(`${path}-wal`, flipped(flipped(log, 5), HEADER + 24 + 100));
    expect(damageBeside(path)).toMatchObject({ readFrames: 0 });
  });

  it('is not damaged where only its end is torn, as a power cut leaves it', () => {
    const { log, frame, frames } = leftBehind();
    expect(damageOf(log.subarray(0, log.length - 10))).toBeNull();
    expect(damageOf(flipped(log, HEADER + (frames - 1) * frame + 200))).toBeNull();
  });

  it('is none where there is nothing, or something else', () => {
    expect(damageOf(Buffer.alloc(0))).toBeNull();
    expect(damageOf(Buffer.alloc(100, 7))).toBeNull();
  });

  it('that is damaged is told to the owner until they have read it', () => {
    const { log, frame } = leftBehind();
    writeFileSync(join(dir, 'porch.sqlite-wal'), flipped(log, HEADER + 3 * frame + 60));
    rmSync(join(dir, 'open.sqlite'), { force: true });
    const clock = handClock(1_000);
    const first = openDataFolder(dir, clock);
    expect(first.damage?.readFrames).toBe(3);
    first.close();
    const second = openDataFolder(dir, clock);
    expect(second.damage).toBeNull();
    expect(second.store.findings.all()).toEqual([
      { kind: 'log-damaged', at: 1_000, detail: expect.stringContaining('could not be read') },
    ]);
    second.store.findings.drop('log-damaged');
    expect(second.store.findings.all()).toEqual([]);
    second.close();
  });
});
