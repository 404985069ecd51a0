import type { Db } from './db';

export interface BellDeviceRecord {
  id: string;
  memberId: string;
  /** Of which session it is: it ends with it. */
  sessionHash: string;
  endpoint: string;
  p256dh: string;
  auth: string;
  name: string;
  isMuted: boolean;
  addedAt: number;
  rungAt: number | null;
  failedAt: number | null;
  why: string | null;
}

type Stored = Omit<BellDeviceRecord, 'isMuted'> & { isMuted: number };

const columns = `id, member_id AS memberId, session_hash AS sessionHash, endpoint, p256dh, auth, name,
  is_muted AS isMuted, added_at AS addedAt, rung_at AS rungAt, failed_at AS failedAt, why`;

const fromStored = (device: Stored): BellDeviceRecord => ({
  ...device,
  isMuted: device.isMuted === 1,
});

/** Where pushes go. */
export const bellDevicesTable = (db: Db) => {
  const byId = db.prepare<[string], Stored>(`SELECT ${columns} FROM bell_devices WHERE id = ?`);
  const byEndpoint = db.prepare<[string], Stored>(
    `SELECT ${columns} FROM bell_devices WHERE endpoint = ?`,
  );
  const ofMember = db.prepare<[string], Stored>(
    `SELECT ${columns} FROM bell_devices WHERE member_id = ? ORDER BY added_at, id`,
  );
  const any = db.prepare<[], { id: string }>('SELECT id FROM bell_devices LIMIT 1');
  const put = db.prepare(
    `INSERT INTO bell_devices VALUES (@id, @memberId, @sessionHash, @endpoint, @p256dh, @auth, @name,
       0, @addedAt, NULL, NULL, NULL)
     ON CONFLICT (id) DO UPDATE SET member_id = @memberId, session_hash = @sessionHash,
       endpoint = @endpoint, p256dh = @p256dh, auth = @auth, name = @name, failed_at = NULL, why = NULL`,
  );
  const mute = db.prepare('UPDATE bell_devices SET is_muted = ? WHERE id = ?');
  const rung = db.prepare(
    'UPDATE bell_devices SET rung_at = ?, failed_at = NULL, why = NULL WHERE id = ?',
  );
  const failed = db.prepare('UPDATE bell_devices SET failed_at = ?, why = ? WHERE id = ?');
  const drop = db.prepare('DELETE FROM bell_devices WHERE id = ?');
  const one = (stored: Stored | undefined): BellDeviceRecord | null =>
    stored ? fromStored(stored) : null;
  return {
    byId: (id: string): BellDeviceRecord | null => one(byId.get(id)),
    byEndpoint: (endpoint: string): BellDeviceRecord | null => one(byEndpoint.get(endpoint)),
    of: (memberId: string): BellDeviceRecord[] => ofMember.all(memberId).map(fromStored),
    isAny: (): boolean => any.get() !== undefined,
    /** Adds one, or changes where it is reached. */
    put: (
      device: Pick<
        BellDeviceRecord,
        'id' | 'memberId' | 'sessionHash' | 'endpoint' | 'p256dh' | 'auth' | 'name' | 'addedAt'
      >,
    ): void => {
      put.run(device);
    },
    mute: (id: string, isMuted: boolean): void => {
      mute.run(isMuted ? 1 : 0, id);
    },
    rung: (id: string, at: number): void => {
      rung.run(at, id);
    },
    failed: (id: string, at: number, why: string): void => {
      failed.run(at, why, id);
    },
    drop: (id: string): void => {
      drop.run(id);
    },
  };
};
