import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type Database from 'better-sqlite3';
import { createStore, openDatabase } from '.';

/**
 * Tables that stay small whatever the business's past is like: the team, its doors, and what is kept of the
 * present. Reading such a one whole is fine.
 */
const small = new Set([
  'here',
  'reached_at',
  'business',
  'members',
  'doors',
  'dresses',
  'sightings',
  'one_time_links',
  'lamp',
  'line_counts',
  'search_totals',
  'findings',
  'ticks',
  'probe',
  'marks',
  'job_counts',
  'ring_on',
  'bell_devices',
  'mail_settings',
  'opening_hours',
  'holidays',
  'promises',
  'quick_replies',
  'greeting_counts',
  'order_counts',
  'shop',
  'shelf_counts',
  'quick_reply_shelf',
  'quick_reply_files',
  'own_words',
  // At most so many of the newest are kept.
  'answers_given',
]);

/** What nobody waits for: it tidies up now and then, in the background. */
const inTheBackground = [
  /^DELETE FROM pictures WHERE created_at/,
  // All of them, a thousand at a time, with everybody else between.
  /^DELETE FROM orders WHERE key IN \(SELECT key FROM orders LIMIT \?\)/,
  // A whole roll, to fold it anew.
  /FROM entries e WHERE e\.thread_id = \? AND e\.seq >= \? ORDER BY e\.seq$/,
  // Bounded by the same statement: what is older than a month.
  /^DELETE FROM late_asked WHERE since < \?$/,
];

const isInTheBackground = (sql: string): boolean =>
  inTheBackground.some((one) => one.test(sql.trim()));

/** Every statement that the store prepares, in the words that SQLite gets. */
const statements = (): { db: Database.Database; sqls: string[]; close: () => void } => {
  const dir = mkdtempSync(join(tmpdir(), 'plans-'));
  const db = openDatabase(join(dir, 'porch.sqlite'));
  const sqls: string[] = [];
  const prepare = db.prepare.bind(db);
  db.prepare = ((sql: string) => {
    sqls.push(sql);
    return prepare(sql);
  }) as typeof db.prepare;
  createStore(db);
  const close = () => {
    db.close();
    rmSync(dir, { recursive: true, force: true });
  };
  return { db, sqls, close };
};

/** The steps in which SQLite would do it; nothing is done. */
const planOf = (db: Database.Database, sql: string): string[] => {
  const unnamed = sql.replace(/@\w+/g, '?');
  const nothings = Array((unnamed.match(/\?/g) ?? []).length).fill(null);
  const steps = db.prepare(`EXPLAIN QUERY PLAN ${unnamed}`).all(...nothings) as {
    detail: string;
  }[];
  return steps.map(({ detail }) => detail);
};

/** The names by which a statement calls its tables: "FROM conversations c" → c is conversations. */
const tableOf = (sql: string, name: string): string =>
  new RegExp(`\\b(?:FROM|JOIN)\\s+(\\w+)\\s+${name}\\b`, 'i').exec(sql)?.[1] ?? name;

describe('the plans of all statements (SQLite, EXPLAIN QUERY PLAN)', () => {
  it('find what they seek by an index wherever the past makes a table grow', () => {
    const { db, sqls, close } = statements();
    expect(sqls.length).toBeGreaterThan(90);
    const scanning = sqls.flatMap((sql) => {
      if (isInTheBackground(sql)) return [];
      return planOf(db, sql).flatMap((detail) => {
        const scanned = /^SCAN (\w+)\b(?! (VIRTUAL TABLE|USING))/.exec(detail)?.[1];
        // One row from the end of a table is one row.
        const isFine = !scanned || small.has(tableOf(sql, scanned)) || /LIMIT 1$/.test(sql);
        return isFine ? [] : [`${detail}: ${sql.replace(/\s+/g, ' ').trim()}`];
      });
    });
    close();
    expect(scanning).toEqual([]);
  });

  it('sort nothing that grows: the order is an index’s', () => {
    const { db, sqls, close } = statements();
    const sorting = sqls.flatMap((sql) => {
      const isSorting = planOf(db, sql).some((detail) =>
        detail.includes('TEMP B-TREE FOR ORDER BY'),
      );
      if (isInTheBackground(sql)) return [];
      const [, table = ''] = /\bFROM\s+(\w+)/i.exec(sql) ?? [];
      return isSorting && !small.has(table) ? [sql.replace(/\s+/g, ' ').trim()] : [];
    });
    close();
    // Two thousand words at most are put into order there; see `completions`.
    expect(sorting).toEqual([expect.stringMatching(/^SELECT word, texts FROM \( SELECT/)]);
  });

  it('are those of every table’s file', () => {
    const { sqls, close } = statements();
    close();
    const tables = readdirSync(__dirname).filter(
      (file) =>
        file.endsWith('.ts') && readFileSync(join(__dirname, file), 'utf8').includes('db.prepare'),
    );
    expect(tables.length).toBeGreaterThan(15);
    expect(sqls.length).toBeGreaterThan(tables.length * 3);
  });
});
