import type { Db } from './db';

export interface SightingRecord {
  doorId: string;
  origin: string;
  page: string;
  at: number;
}

const columns = 'door_id AS doorId, origin, page, at';

export const sightingsTable = (db: Db) => {
  const write = db.prepare(
    `INSERT INTO sightings VALUES (@doorId, @origin, @page, @at)
     ON CONFLICT DO UPDATE SET at = @at, page = CASE @page WHEN '' THEN page ELSE @page END`,
  );
  const drop = db.prepare('DELETE FROM sightings WHERE door_id = ? AND origin = ?');
  const ofDoor = db.prepare<[string], SightingRecord>(
    `SELECT ${columns} FROM sightings WHERE door_id = ? ORDER BY at DESC, origin`,
  );
  const newest = db.prepare<[], SightingRecord>(
    `SELECT ${columns} FROM sightings ORDER BY at DESC, origin LIMIT 2500`,
  );
  return {
    write: (sighting: SightingRecord): void => {
      write.run(sighting);
    },
    drop: (doorId: string, origin: string): void => {
      drop.run(doorId, origin);
    },
    /** Where one door was seen, the newest first. */
    ofDoor: (doorId: string): SightingRecord[] => ofDoor.all(doorId),
    newest: (): SightingRecord[] => newest.all(),
  };
};
