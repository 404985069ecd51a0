import type { Doorbell, RingOn } from '@porch/core/ringing';
import type { Db } from './db';

/** How each of the team wants to be rung, and what happens while nobody looks. */
export const doorbellsTable = (db: Db) => {
  const find = db.prepare<[string], { settings: string }>(
    'SELECT settings FROM doorbells WHERE member_id = ?',
  );
  const write = db.prepare(
    'INSERT INTO doorbells VALUES (?, ?) ON CONFLICT DO UPDATE SET settings = excluded.settings',
  );
  const rules = db.prepare<[], { rules: string }>('SELECT rules FROM ring_on');
  const setRules = db.prepare(
    'INSERT INTO ring_on VALUES (1, ?) ON CONFLICT DO UPDATE SET rules = excluded.rules',
  );
  return {
    /** Null: they have said nothing yet. What was kept may lack what was added since. */
    of: (memberId: string): Partial<Doorbell> | null => {
      const found = find.get(memberId);
      return found ? JSON.parse(found.settings) : null;
    },
    write: (memberId: string, doorbell: Doorbell): void => {
      write.run(memberId, JSON.stringify(doorbell));
    },
    ringOn: (): Partial<RingOn> | null => {
      const found = rules.get();
      return found ? JSON.parse(found.rules) : null;
    },
    setRingOn: (ringOn: RingOn): void => {
      setRules.run(JSON.stringify(ringOn));
    },
  };
};
