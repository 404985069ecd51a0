import { plainDress, wholeDress } from '@porch/core/dress';
import Database from 'better-sqlite3';
import { migrate, migrations } from './migrate';

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
      INSERT INTO doors (id, public_id, name, sites, created_at) VALUES ('d', 'p', 'n', '[]', 0);
      INSERT INTO visitors VALUES ('v', 'd', 't', 0);
      INSERT INTO conversations VALUES ('c', 'd', 'v', 'waiting', 0, NULL, 0, '{}');
      INSERT INTO entries (conversation_id, id, kind, at, on_roll, body) VALUES ('c', 'e', 'here', 0, 0, '{}');
    `);
    expect(() => db.exec("UPDATE entries SET body = 'changed'")).toThrow(/append-only/);
  });
});
