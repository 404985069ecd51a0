import type { Db } from './db';

/** Faces and the business's picture, by the hash of their bytes. */
export const picturesTable = (db: Db) => {
  const add = db.prepare('INSERT INTO pictures VALUES (?, ?, ?) ON CONFLICT DO NOTHING');
  const bytes = db.prepare<[string], { bytes: Buffer }>('SELECT bytes FROM pictures WHERE id = ?');
  const dropUnused = db.prepare(
    `DELETE FROM pictures WHERE created_at < ?
       AND id NOT IN (SELECT picture_id FROM business WHERE picture_id IS NOT NULL)
       AND id NOT IN (SELECT picture_id FROM members WHERE picture_id IS NOT NULL)`,
  );
  return {
    add: (id: string, whole: Buffer, now: number): void => {
      add.run(id, whole, now);
    },
    bytes: (id: string): Buffer | null => bytes.get(id)?.bytes ?? null,
    dropUnusedBefore: (at: number): void => {
      dropUnused.run(at);
    },
  };
};
