import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { plainDress, wholeDress } from '@porch/core/dress';
import Database from 'better-sqlite3';
import { version as release } from '../../../package.json';
import { releases, unpack } from '../../test-kit/releases';
import { copiesBeside } from './copies';
import { bringUpToDate, openDatabase } from './database';
import { migrate, migrations, versionOf } from './migrate';

const empty = () => {
  const db = new Database(':memory:');
  db.pragma('foreign_keys = ON');
  return db;
};

const version = (db: Database.Database) => db.pragma('user_version', { simple: true });

describe('bringing data up to date', () => {
  it.each(migrations.map((_sql, index) => index))('goes from version %i to the next', (from) => {
    const db = empty();
    migrate(db, from);
    expect(version(db)).toBe(from);
    migrate(db, from + 1);
    expect(version(db)).toBe(from + 1);
    expect(db.pragma('foreign_key_check')).toEqual([]);
    expect(db.pragma('integrity_check', { simple: true })).toBe('ok');
  });

  it('gives doors and conversations of before what they need now', () => {
    const db = empty();
    migrate(db, 1);
    db.exec(`
      INSERT INTO doors VALUES ('d', 'p', 'n', '[]', 7);
      INSERT INTO visitors VALUES ('v', 'd', 't', 0);
      INSERT INTO conversations VALUES ('c', 'd', 'v', 'waiting', 0, NULL, 0, '{"name":"Wren"}');
      INSERT INTO entries (conversation_id, id, kind, at, on_roll, body) VALUES ('c', 'e', 'team-said', 9, 1, '{}');
    `);
    migrate(db, 2);
    const state = db.prepare('SELECT state FROM conversations').pluck().get() as string;
    expect(JSON.parse(state)).toEqual({ name: 'Wren', own: [], hasConsented: false });
    const dress = db.prepare('SELECT dress FROM dresses').pluck().get() as string;
    expect(wholeDress(JSON.parse(dress))).toEqual(plainDress());
    expect(db.prepare('SELECT name, at FROM ticks').all()).toEqual([{ name: 'answered', at: 9 }]);
  });

  it('changes nothing when it is up to date', () => {
    const db = empty();
    migrate(db);
    const schema = () => db.prepare('SELECT sql FROM sqlite_schema ORDER BY name').all();
    const before = schema();
    migrate(db);
    expect(schema()).toEqual(before);
    expect(before.length).toBeGreaterThan(20);
  });

  it('refuses data of a newer program instead of guessing', () => {
    const db = empty();
    db.pragma(`user_version = ${migrations.length + 1}`);
    expect(() => migrate(db)).toThrow(/knows up to/);
  });

  it('keeps every table strict, and entries append-only', () => {
    const db = empty();
    migrate(db);
    const tables = db
      .prepare(
        "SELECT name, strict FROM pragma_table_list WHERE type = 'table' AND schema = 'main' AND name NOT LIKE 'sqlite_%' AND name NOT LIKE 'words_%'",
      )
      .all() as { name: string; strict: number }[];
    expect(tables.length).toBeGreaterThan(10);
    expect(tables.filter(({ strict }) => strict === 0)).toEqual([]);
    db.exec(`
      INSERT INTO doors (id, public_id, kind, name, settings, created_at)
        VALUES ('d', 'p', 'website', 'n', '{}', 0);
      INSERT INTO conversations VALUES ('c', 'waiting', 0, 0, 0, '[]');
      INSERT INTO threads VALUES ('c', 'd', 'a', 'c', 0);
      INSERT INTO entries (conversation_id, thread_id, id, kind, at, on_roll, shape, body)
        VALUES ('c', 'c', 'e', 'here', 0, 0, 1, '{}');
    `);
    expect(() => db.exec("UPDATE entries SET body = 'changed'")).toThrow(/append-only/);
  });
});

/** How many rows each table has. */
const rowsOf = (db: Database.Database): Record<string, number> =>
  Object.fromEntries(
    tablesOf(db).map(({ name }) => [
      name,
      db.prepare(`SELECT count(*) FROM "${name}"`).pluck().get() as number,
    ]),
  );

const tablesOf = (db: Database.Database) =>
  db
    .prepare(
      // What an index of words keeps beside itself is that index's own.
      `SELECT s.name, s.sql FROM sqlite_schema s JOIN pragma_table_list t ON t.name = s.name AND t.schema = 'main'
       WHERE t.type = 'table' AND s.name NOT LIKE 'sqlite_%' ORDER BY s.rowid`,
    )
    .all() as { name: string; sql: string }[];

/** Makes every table anew: another one beside it, the rows into it, the old one away, the name back. */
const remakeAll = (db: Database.Database): string =>
  tablesOf(db)
    .map(
      ({ name, sql }) => `
        ${sql.replace(/CREATE TABLE "?\w+"?/, `CREATE TABLE ${name}_anew`)};
        INSERT INTO ${name}_anew SELECT * FROM ${name};
        DROP TABLE ${name};
        ALTER TABLE ${name}_anew RENAME TO ${name};`,
    )
    .join('\n');

describe('a file of an earlier release', () => {
  let dir: string;
  let path: string;
  beforeEach(() => {
    dir = mkdtempSync(join(tmpdir(), 'aged-'));
    path = join(dir, 'porch.sqlite');
  });
  afterEach(() => rmSync(dir, { recursive: true, force: true }));

  const open = (release: string) => {
    unpack(release, path);
    const db = new Database(path);
    db.pragma('foreign_keys = ON');
    return db;
  };

  it('is kept of each release, this one as well, and none is newer than what this program writes', () => {
    const versions = releases().map((release) => versionOf(open(release)));
    expect(versions[0]).toBe(1);
    expect(versions).toEqual([...versions].sort((a, b) => a - b));
    expect(releases()).toContain(release);
    expect(versions.at(-1)).toBeLessThanOrEqual(migrations.length);
  });

  it.each(releases())(
    'of %s loses no row when tables that others refer to are made anew',
    (release) => {
      const db = open(release);
      const version = versionOf(db);
      const before = rowsOf(db);
      expect(before.members).toBe(1);
      expect(before.files).toBeGreaterThanOrEqual(2);
      expect(before.file_bytes).toBe(before.files);
      expect(before.conversations).toBeGreaterThanOrEqual(2);
      const steps = migrations.toSpliced(version, 0, remakeAll(db));
      migrate(db, version + 1, steps);
      expect(rowsOf(db)).toEqual(before);
      expect(db.pragma('foreign_keys', { simple: true })).toBe(1);
      expect(db.pragma('foreign_key_check')).toEqual([]);
      migrate(db, steps.length, steps);
      const { file_bytes, entries } = before;
      expect(rowsOf(db)).toMatchObject({ file_bytes, entries });
    },
  );

  it.each([
    ['fails in the middle', 'DELETE FROM files; INSERT INTO nowhere VALUES (1)', /no such table/],
    ['would leave rows that refer to nothing', 'DELETE FROM files', /file_bytes would refer/],
  ])('stays as it was, byte for byte, when a step %s', (_name, sql, error) => {
    const db = open('0.1.0');
    const before = db.serialize();
    const good = 'CREATE TABLE added (x INTEGER) STRICT';
    expect(() => migrate(db, 3, [migrations[0] ?? '', good, sql])).toThrow(error);
    expect(db.serialize().equals(before)).toBe(true);
    expect(db.pragma('foreign_keys', { simple: true })).toBe(1);
  });

  it('stays as it was when the process is killed in the middle, and is brought up to date then', () => {
    const before = rowsOf(open('0.2.0'));
    const bundle = join(dir, 'migrate.cjs');
    const build = ['--bundle', '--platform=node', '--format=cjs', '--loader:.sql=text'];
    execFileSync('node_modules/.bin/esbuild', [
      join(__dirname, 'migrate.ts'),
      ...build,
      '--packages=external',
      '--log-level=error',
      `--outfile=${bundle}`,
    ]);
    const half = 'DELETE FROM file_bytes; DELETE FROM files; SELECT die();';
    const killed = `
      const { migrate, migrations } = require(${JSON.stringify(bundle)});
      const db = new (require('better-sqlite3'))(${JSON.stringify(path)});
      db.pragma('journal_mode = WAL');
      db.pragma('cache_spill = 1');
      db.function('die', () => process.kill(process.pid, 'SIGKILL'));
      migrate(db, 4, [...migrations.slice(0, 3), ${JSON.stringify(half)}]);`;
    const { signal } = spawnSync('node', ['-e', killed], { stdio: 'inherit' });
    expect(signal).toBe('SIGKILL');
    const db = openDatabase(path);
    expect(rowsOf(db)).toMatchObject({ files: 2, file_bytes: 2, entries: before.entries });
    expect(versionOf(db)).toBe(migrations.length);
    db.close();
  });

  it('is copied beside itself first; the newest two copies stay, for nobody else to read', () => {
    const noon = Date.UTC(2026, 10, 26, 12);
    for (const day of [0, 1, 2]) {
      open('0.2.0').close();
      openDatabase(path, noon + day * 24 * 3_600_000).close();
    }
    const copies = copiesBeside(path);
    expect(copies).toEqual([
      'before-update-20261127-120000-from-2.sqlite',
      'before-update-20261128-120000-from-2.sqlite',
    ]);
    expect(readdirSync(dir).filter((name) => name.includes('before'))).toEqual(copies);
    const copy = join(dir, copies[1] ?? '');
    expect((statSync(copy).mode & 0o777).toString(8)).toBe('600');
    const kept = new Database(copy);
    const was = new Database(path);
    unpack('0.2.0', path);
    expect(rowsOf(kept)).toEqual(rowsOf(was));
    expect(versionOf(kept)).toBe(2);
    expect(kept.pragma('integrity_check', { simple: true })).toBe('ok');
  });

  it('is not touched when there is no room for the copy, and says what to do', () => {
    open('0.2.0').close();
    mkdirSync(join(dir, 'before-update-19700101-000000-from-2.sqlite'));
    expect(() => openDatabase(path, 0)).toThrow(/Nothing was changed\. Make room in/);
    const after = new Database(path);
    expect(versionOf(after)).toBe(2);
    expect(rowsOf(after)).toEqual(rowsOf(open('0.2.0')));
    expect(readdirSync(dir).filter((name) => name.endsWith('.making'))).toEqual([]);
  });

  it('is not touched when there is room for the copy alone, keeps none, and says how much is needed', () => {
    const db = open('0.2.0');
    db.pragma(`max_page_count = ${db.pragma('page_count', { simple: true })}`);
    for (const at of [0, 1_000]) {
      expect(() => bringUpToDate(db, at)).toThrow(
        /Nothing was changed\. Make at least \d+ MB free/,
      );
      expect(copiesBeside(path)).toEqual([]);
      expect(versionOf(db)).toBe(2);
    }
    db.pragma('max_page_count = 1000000');
    bringUpToDate(db, 2_000);
    expect(versionOf(db)).toBe(migrations.length);
    expect(copiesBeside(path)).toHaveLength(1);
    db.close();
  });

  it('needs no copy when it is up to date, or new', () => {
    openDatabase(path).close();
    openDatabase(path).close();
    expect(copiesBeside(path)).toEqual([]);
  });
});
