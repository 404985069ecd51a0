import type { Db } from './db';

/** Ringing for a conversation, from its first ring until somebody looks. */
export interface Round {
  conversationId: string;
  beganAt: number;
  /** The newest message that was rung for. */
  seq: number;
  /** Who of the team was rung. */
  rung: string[];
}

/** What is rung for now, and where its alerts may be shown. */
export const roundsTable = (db: Db) => {
  const find = db.prepare<[string], Omit<Round, 'rung'> & { rung: string }>(
    `SELECT conversation_id AS conversationId, began_at AS beganAt, seq, rung
     FROM rounds WHERE conversation_id = ?`,
  );
  const write = db.prepare(
    `INSERT INTO rounds VALUES (@conversationId, @beganAt, @seq, @rung)
     ON CONFLICT DO UPDATE SET began_at = @beganAt, seq = @seq, rung = @rung`,
  );
  const end = db.prepare('DELETE FROM rounds WHERE conversation_id = ?');
  const show = db.prepare('INSERT INTO alerts VALUES (?, ?) ON CONFLICT DO NOTHING');
  const shownOn = db.prepare<[string], { deviceId: string }>(
    'SELECT device_id AS deviceId FROM alerts WHERE conversation_id = ?',
  );
  const hide = db.prepare('DELETE FROM alerts WHERE conversation_id = ?');
  return {
    of: (conversationId: string): Round | null => {
      const found = find.get(conversationId);
      return found ? { ...found, rung: JSON.parse(found.rung) } : null;
    },
    write: (round: Round): void => {
      write.run({ ...round, rung: JSON.stringify(round.rung) });
    },
    end: (conversationId: string): void => {
      end.run(conversationId);
    },
    /** An alert of a conversation goes to a device. */
    alert: (conversationId: string, deviceId: string): void => {
      show.run(conversationId, deviceId);
    },
    /** Devices that may show an alert of a conversation; asked once, for from then on they do not. */
    takeAlerts: (conversationId: string): string[] => {
      const ids = shownOn.all(conversationId).map(({ deviceId }) => deviceId);
      if (ids.length > 0) hide.run(conversationId);
      return ids;
    },
  };
};
