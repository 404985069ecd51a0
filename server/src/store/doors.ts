import type { Site } from '@porch/core/website';
import type { Db } from './db';

export interface DoorRecord {
  id: string;
  publicId: string;
  name: string;
  sites: Site[];
}

interface Stored extends Omit<DoorRecord, 'sites'> {
  sites: string;
}

const columns = 'id, public_id AS publicId, name, sites';

const fromStored = (door: Stored): DoorRecord => ({ ...door, sites: JSON.parse(door.sites) });

export const doorsTable = (db: Db) => {
  const add = db.prepare('INSERT INTO doors VALUES (@id, @publicId, @name, @sites, @now)');
  const all = db.prepare<[], Stored>(`SELECT ${columns} FROM doors ORDER BY created_at, id`);
  const byId = db.prepare<[string], Stored>(`SELECT ${columns} FROM doors WHERE id = ?`);
  const byPublicId = db.prepare<[string], Stored>(
    `SELECT ${columns} FROM doors WHERE public_id = ?`,
  );
  const setSites = db.prepare('UPDATE doors SET sites = ? WHERE id = ?');
  const one = (stored: Stored | undefined): DoorRecord | null =>
    stored ? fromStored(stored) : null;
  return {
    add: (door: DoorRecord, now: number): void => {
      add.run({ ...door, sites: JSON.stringify(door.sites), now });
    },
    all: (): DoorRecord[] => all.all().map(fromStored),
    byId: (id: string): DoorRecord | null => one(byId.get(id)),
    byPublicId: (publicId: string): DoorRecord | null => one(byPublicId.get(publicId)),
    setSites: (id: string, sites: Site[]): void => {
      setSites.run(JSON.stringify(sites), id);
    },
  };
};
