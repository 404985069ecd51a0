import type { DoorHealth } from '@porch/contract/doors';
import type { Db } from './db';
import { createMemo } from './memo';

export interface DoorRecord {
  id: string;
  /** Stands in addresses that the world knows. */
  publicId: string;
  kind: string;
  name: string;
  /** What its kind needs to know; each kind reads its own. */
  settings: Readonly<Record<string, unknown>>;
  /** Whom it concerns; null: everybody. */
  memberIds: string[] | null;
  closedAt: number | null;
  /** Taken away: it is nowhere any more, but for what was said by it. */
  removedAt: number | null;
}

type Stored = Omit<DoorRecord, 'settings' | 'memberIds'> & {
  settings: string;
  memberIds: string | null;
};

const KEPT_MOST = 200;

const columns = `id, public_id AS publicId, kind, name, settings, member_ids AS memberIds, closed_at AS closedAt,
   removed_at AS removedAt`;

const fromStored = (door: Stored): DoorRecord => ({
  ...door,
  settings: JSON.parse(door.settings),
  memberIds: door.memberIds === null ? null : JSON.parse(door.memberIds),
});

const toStored = (door: DoorRecord): Stored => ({
  ...door,
  settings: JSON.stringify(door.settings),
  memberIds: door.memberIds && JSON.stringify(door.memberIds),
});

export const doorsTable = (db: Db) => {
  const add = db.prepare(
    `INSERT INTO doors (id, public_id, kind, name, settings, member_ids, closed_at, created_at)
     VALUES (@id, @publicId, @kind, @name, @settings, @memberIds, @closedAt, @now)`,
  );
  const all = db.prepare<[], Stored>(`SELECT ${columns} FROM doors ORDER BY created_at, id`);
  const standing = db.prepare<[], Stored>(
    `SELECT ${columns} FROM doors WHERE removed_at IS NULL ORDER BY created_at, id`,
  );
  const byId = db.prepare<[string], Stored>(`SELECT ${columns} FROM doors WHERE id = ?`);
  const byPublicId = db.prepare<[string], Stored>(
    `SELECT ${columns} FROM doors WHERE public_id = ?`,
  );
  const update = db.prepare(
    `UPDATE doors SET name = @name, settings = @settings, member_ids = @memberIds,
       closed_at = @closedAt, removed_at = @removedAt WHERE id = @id`,
  );
  const health = db.prepare<[string], DoorHealth>(
    `SELECT heard_at AS heardAt, failing_since AS failingSince, failing_why AS why
     FROM doors WHERE id = ?`,
  );
  const heard = db.prepare('UPDATE doors SET heard_at = ?, heard_thread = ? WHERE id = ?');
  const heardThread = db.prepare<[string], { threadId: string | null }>(
    'SELECT heard_thread AS threadId FROM doors WHERE id = ?',
  );
  const failing = db.prepare(
    'UPDATE doors SET failing_since = coalesce(failing_since, ?), failing_why = ? WHERE id = ?',
  );
  const well = db.prepare('UPDATE doors SET failing_since = NULL, failing_why = NULL WHERE id = ?');
  const secret = db.prepare<[string], { secret: Buffer | null }>(
    'SELECT secret FROM doors WHERE id = ?',
  );
  const setSecret = db.prepare('UPDATE doors SET secret = ? WHERE id = ?');
  const mark = db.prepare<[string], { mark: string | null }>('SELECT mark FROM doors WHERE id = ?');
  const setMark = db.prepare('UPDATE doors SET mark = ? WHERE id = ?');
  const known = createMemo<DoorRecord>(KEPT_MOST);
  const remember = (stored: Stored | undefined): DoorRecord | null => {
    if (!stored) return null;
    const door = fromStored(stored);
    known.put(door.publicId, door);
    known.put(door.id, door);
    return door;
  };
  return {
    add: (door: DoorRecord, now: number): void => {
      add.run({ ...toStored(door), now });
    },
    /** Those that were taken away too: what was said by them stays. */
    all: (): DoorRecord[] => all.all().map(fromStored),
    standing: (): DoorRecord[] => standing.all().map(fromStored),
    byId: (id: string): DoorRecord | null => known.get(id) ?? remember(byId.get(id)),
    byPublicId: (publicId: string): DoorRecord | null =>
      known.get(publicId) ?? remember(byPublicId.get(publicId)),
    update: (door: DoorRecord): void => {
      update.run(toStored(door));
      known.put(door.publicId, door);
      known.put(door.id, door);
    },
    health: (id: string): DoorHealth =>
      health.get(id) ?? { heardAt: null, failingSince: null, why: null },
    /** Somebody wrote by it. */
    heard: (id: string, at: number, threadId: string): void => {
      heard.run(at, threadId, id);
    },
    /** Who wrote by it last, by the thread; null: nobody did. */
    heardThread: (id: string): string | null => heardThread.get(id)?.threadId ?? null,
    /** Nothing goes out by it, since then or since before. */
    failing: (id: string, at: number, why: string): void => {
      failing.run(at, why, id);
    },
    well: (id: string): void => {
      well.run(id);
    },
    /** Up to where its network has been asked, as the network calls it; '' at first. */
    mark: (id: string): string => mark.get(id)?.mark ?? '',
    setMark: (id: string, next: string): void => {
      setMark.run(next, id);
    },
    /** As it is sealed; null where it has none. See `security/seal.ts`. */
    sealedSecret: (id: string): Buffer | null => secret.get(id)?.secret ?? null,
    setSealedSecret: (id: string, sealed: Buffer | null): void => {
      setSecret.run(sealed, id);
    },
    forget: known.forget,
  };
};
