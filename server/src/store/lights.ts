import type { Db } from './db';

/** Since when the light of a door is not lit; a door that is lit stands nowhere. */
export const lightsTable = (db: Db) => {
  const since = db.prepare<[string], { since: number }>(
    'SELECT since FROM lights_out WHERE door_id = ?',
  );
  const put = db.prepare('INSERT INTO lights_out VALUES (?, ?) ON CONFLICT DO NOTHING');
  const drop = db.prepare('DELETE FROM lights_out WHERE door_id = ?');
  return {
    outSince: (doorId: string): number | null => since.get(doorId)?.since ?? null,
    goesOut: (doorId: string, at: number): void => {
      put.run(doorId, at);
    },
    isLit: (doorId: string): void => {
      drop.run(doorId);
    },
  };
};
