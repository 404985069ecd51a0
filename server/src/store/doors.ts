import type { Site } from '@porch/core/website';
import type { Db } from './db';
import { createMemo } from './memo';

export interface DoorRecord {
  id: string;
  publicId: string;
  name: string;
  sites: Site[];
  /** Whom it concerns; null: everybody. */
  memberIds: string[] | null;
  closedAt: number | null;
}

type Stored = Omit<DoorRecord, 'sites' | 'memberIds'> & {
  sites: string;
  memberIds: string | null;
};

const KEPT_MOST = 200;

const columns =
  'id, public_id AS publicId, name, sites, member_ids AS memberIds, closed_at AS closedAt';

const fromStored = (door: Stored): DoorRecord => ({
  ...door,
  sites: JSON.parse(door.sites),
  memberIds: door.memberIds === null ? null : JSON.parse(door.memberIds),
});

const toStored = (door: DoorRecord): Stored => ({
  ...door,
  sites: JSON.stringify(door.sites),
  memberIds: door.memberIds && JSON.stringify(door.memberIds),
});

export const doorsTable = (db: Db) => {
  const add = db.prepare(
    `INSERT INTO doors (id, public_id, name, sites, member_ids, closed_at, created_at)
     VALUES (@id, @publicId, @name, @sites, @memberIds, @closedAt, @now)`,
  );
  const all = db.prepare<[], Stored>(`SELECT ${columns} FROM doors ORDER BY created_at, id`);
  const byId = db.prepare<[string], Stored>(`SELECT ${columns} FROM doors WHERE id = ?`);
  const byPublicId = db.prepare<[string], Stored>(
    `SELECT ${columns} FROM doors WHERE public_id = ?`,
  );
  const update = db.prepare(
    `UPDATE doors SET name = @name, sites = @sites, member_ids = @memberIds,
       closed_at = @closedAt WHERE id = @id`,
  );
  const one = (stored: Stored | undefined): DoorRecord | null =>
    stored ? fromStored(stored) : null;
  const known = createMemo<DoorRecord>(KEPT_MOST);
  return {
    add: (door: DoorRecord, now: number): void => {
      add.run({ ...toStored(door), now });
    },
    all: (): DoorRecord[] => all.all().map(fromStored),
    byId: (id: string): DoorRecord | null => one(byId.get(id)),
    byPublicId: (publicId: string): DoorRecord | null => {
      const door = known.get(publicId) ?? one(byPublicId.get(publicId));
      if (door) known.put(publicId, door);
      return door;
    },
    update: (door: DoorRecord): void => {
      update.run(toStored(door));
      known.put(door.publicId, door);
    },
    forget: known.forget,
  };
};
