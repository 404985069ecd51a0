import type { Db } from './db';

export interface SightingRecord {
  doorId: string;
  origin: string;
  page: string;
  at: number;
}

/** More websites than this at one door are somebody's game; the oldest make room. */
const KEPT_MOST = 40;

export const sightingsTable = (db: Db) => {
  const write = db.prepare(
    `INSERT INTO sightings VALUES (@doorId, @origin, @page, @at)
     ON CONFLICT DO UPDATE SET at = @at, page = CASE @page WHEN '' THEN page ELSE @page END`,
  );
  const trim = db.prepare(
    `DELETE FROM sightings WHERE door_id = @doorId AND origin NOT IN
       (SELECT origin FROM sightings WHERE door_id = @doorId ORDER BY at DESC LIMIT ${KEPT_MOST})`,
  );
  const newest = db.prepare<[], SightingRecord>(
    'SELECT door_id AS doorId, origin, page, at FROM sightings ORDER BY at DESC LIMIT 100',
  );
  return {
    write: (sighting: SightingRecord): void => {
      write.run(sighting);
      trim.run(sighting);
    },
    newest: (): SightingRecord[] => newest.all(),
  };
};
