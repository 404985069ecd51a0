import type { Db } from './db';

export type Tick = 'answered' | 'dark-texts' | 'team' | 'home-screen' | 'notes-owed';

/** What has happened once and for all. */
export const ticksTable = (db: Db) => {
  const set = db.prepare('INSERT INTO ticks VALUES (?, ?) ON CONFLICT DO NOTHING');
  const has = db.prepare<[string], { at: number }>('SELECT at FROM ticks WHERE name = ?');
  return {
    /** True when it is new. */
    set: (tick: Tick, now: number): boolean => set.run(tick, now).changes > 0,
    has: (tick: Tick): boolean => has.get(tick) !== undefined,
  };
};
