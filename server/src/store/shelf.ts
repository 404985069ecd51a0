import { queryWords, wordsOf } from '@porch/core/search';
import { type ShelfKind, type ShelfThing, shelfKey } from '@porch/core/shelf';
import type { Db } from './db';

export interface ShelfRecord extends ShelfThing {
  id: string;
  /** A picture of our own; null: none. */
  fileId: string | null;
  revision: number;
  changedAt: number;
}

/** Where a page of the shelf ended. */
export interface ShelfPlace {
  name: string;
  id: string;
}

type Row = Omit<ShelfRecord, 'starts'> & { starts: string };

const columns = [
  'id, kind, name, text, link, sku, price, currency, stock, code, until, address, hours, starts, minutes',
  'picture_url AS pictureUrl, file_id AS fileId, revision, changed_at AS changedAt',
].join(', ');
const columnsOfS = columns.replace(/(^|, )/g, '$1s.');

const toRecord = ({ starts, ...row }: Row): ShelfRecord => ({
  ...row,
  starts: JSON.parse(starts) as number[],
});

/** The last moment at which it can be put into an answer; null: there is none. */
const overAt = ({ kind, until, starts }: ShelfThing): number | null =>
  kind === 'slots' ? Math.max(...starts) : until;

/** How its words stand in the index. */
const indexed = ({ name, sku, text, code, address }: ShelfThing): string =>
  wordsOf([name, sku, text, code, address].join(' ')).join(' ');

const toMatch = (query: string): string =>
  queryWords(query)
    .map((word) => `"${word.replaceAll('"', '""')}"*`)
    .join(' ');

/** The shelf: what the business has to show, by its name, by its kind, by its words, and by when it was used. */
export const shelfTable = (db: Db) => {
  const byId = db.prepare<[string], Row>(`SELECT ${columns} FROM shelf WHERE id = ?`);
  const byKey = db.prepare<[string], Row>(`SELECT ${columns} FROM shelf WHERE key = ?`);
  const hasKey = db.prepare<[string], { found: number }>(
    'SELECT 1 AS found FROM shelf WHERE key = ?',
  );
  const write = db.prepare<object, { place: number }>(
    `INSERT INTO shelf (id, key, kind, name, text, link, sku, price, currency, stock, code, until, address,
       hours, starts, minutes, picture_url, file_id, over_at, revision, changed_at)
     VALUES (@id, @key, @kind, @name, @text, @link, @sku, @price, @currency, @stock, @code, @until, @address,
       @hours, @starts, @minutes, @pictureUrl, @fileId, @overAt, @revision, @changedAt)
     ON CONFLICT (id) DO UPDATE SET key = excluded.key, kind = excluded.kind, name = excluded.name,
       text = excluded.text, link = excluded.link, sku = excluded.sku, price = excluded.price,
       currency = excluded.currency, stock = excluded.stock, code = excluded.code, until = excluded.until,
       address = excluded.address, hours = excluded.hours, starts = excluded.starts,
       minutes = excluded.minutes, picture_url = excluded.picture_url, file_id = excluded.file_id,
       over_at = excluded.over_at, revision = excluded.revision, changed_at = excluded.changed_at
     RETURNING place`,
  );
  const addWords = db.prepare('INSERT INTO shelf_words (rowid, text) VALUES (?, ?)');
  const changeWords = db.prepare('UPDATE shelf_words SET text = ? WHERE rowid = ?');
  const loseWords = db.prepare('DELETE FROM shelf_words WHERE rowid = ?');
  const drop = db.prepare<[string], { place: number }>(
    'DELETE FROM shelf WHERE id = ? RETURNING place',
  );
  const dropSome = db.prepare<[number], { place: number }>(
    'DELETE FROM shelf WHERE place IN (SELECT place FROM shelf LIMIT ?) RETURNING place',
  );
  const count = db.prepare<[], { count: number }>('SELECT count FROM shelf_counts');
  const page = db.prepare<[string, string, string, number], Row>(
    `SELECT ${columns} FROM shelf WHERE name COLLATE NOCASE >= ? AND (name COLLATE NOCASE, id) > (?, ?)
     ORDER BY name COLLATE NOCASE, id LIMIT ?`,
  );
  const pageOfKind = db.prepare<[string, string, string, string, number], Row>(
    `SELECT ${columns} FROM shelf
     WHERE kind = ? AND name COLLATE NOCASE >= ? AND (name COLLATE NOCASE, id) > (?, ?)
     ORDER BY name COLLATE NOCASE, id LIMIT ?`,
  );
  const search = db.prepare<[string, string, string, number, number], Row>(
    `SELECT ${columnsOfS} FROM shelf_words w JOIN shelf s ON s.place = w.rowid
     WHERE shelf_words MATCH ? AND (? = '' OR s.kind = ?) AND (s.over_at IS NULL OR s.over_at >= ?)
     ORDER BY w.rowid DESC LIMIT ?`,
  );
  const used = db.prepare<[number, number], Row>(
    `SELECT ${columns} FROM shelf WHERE over_at IS NULL OR over_at >= ?
     ORDER BY used_at DESC, changed_at DESC LIMIT ?`,
  );
  const use = db.prepare('UPDATE shelf SET used_at = ? WHERE id = ?');
  const setFile = db.prepare('UPDATE shelf SET file_id = ? WHERE id = ?');
  const addSaid = db.prepare('INSERT INTO shelf_said VALUES (?, ?) ON CONFLICT DO NOTHING');
  const saidTo = db.prepare<[string, string], { found: number }>(
    'SELECT 1 AS found FROM shelf_said WHERE file_id = ? AND thread_id = ?',
  );
  const wasSaid = db.prepare<[string], { found: number }>(
    'SELECT 1 AS found FROM shelf_said WHERE file_id = ? LIMIT 1',
  );
  return {
    byId: (id: string): ShelfRecord | null => {
      const row = byId.get(id);
      return row ? toRecord(row) : null;
    },
    byKey: (key: string): ShelfRecord | null => {
      const row = byKey.get(key);
      return row ? toRecord(row) : null;
    },
    has: (key: string): boolean => hasKey.get(key) !== undefined,
    write: (record: ShelfRecord): void => {
      const starts = JSON.stringify(record.starts);
      const key = shelfKey(record);
      const row = write.get({ ...record, starts, key, overAt: overAt(record) });
      if (!row) return;
      const { changes } = changeWords.run(indexed(record), row.place);
      if (changes === 0) addWords.run(row.place, indexed(record));
    },
    drop: (id: string): void => {
      const row = drop.get(id);
      if (row) loseWords.run(row.place);
    },
    /** Takes so many away; whether any were. */
    dropSome: (most: number): boolean => {
      const rows = dropSome.all(most);
      for (const { place } of rows) loseWords.run(place);
      return rows.length > 0;
    },
    count: (): number => count.get()?.count ?? 0,
    /** In the order of their names, from behind a place on; null: from the first. */
    page: (kind: ShelfKind | null, after: ShelfPlace | null, most: number): ShelfRecord[] => {
      const { name, id } = after ?? { name: '', id: '' };
      const rows = kind
        ? pageOfKind.all(kind, name, name, id, most)
        : page.all(name, name, id, most);
      return rows.map(toRecord);
    },
    /** What has all these words, the newest first; a word may be half typed. Nothing that is over at `now`. */
    search: (query: string, kind: ShelfKind | null, now: number, most: number): ShelfRecord[] => {
      const match = toMatch(query);
      if (!match) return [];
      return search.all(match, kind ?? '', kind ?? '', now, most).map(toRecord);
    },
    /** What was put into an answer last first, then what was changed last; nothing that is over. */
    used: (now: number, most: number): ShelfRecord[] => used.all(now, most).map(toRecord),
    use: (id: string, now: number): void => {
      use.run(now, id);
    },
    setFile: (id: string, fileId: string): void => {
      setFile.run(fileId, id);
    },
    /** A picture of it went to whoever writes in that thread. */
    said: (fileId: string, threadId: string): void => {
      addSaid.run(fileId, threadId);
    },
    isSaidTo: (fileId: string, threadId: string): boolean =>
      saidTo.get(fileId, threadId) !== undefined,
    wasSaid: (fileId: string): boolean => wasSaid.get(fileId) !== undefined,
  };
};
