import type { Business } from '@porch/contract/house';
import type { LampSetting } from '@porch/core/lamp';
import { byHours } from '@porch/core/lamp';
import type { Db } from './db';
import { createKept } from './kept';

/** The business itself and what it has set for everybody: one row each. */
export const businessTable = (db: Db) => {
  const read = db.prepare<[], Business>(
    `SELECT name, zone, country, address, picture_id AS pictureId,
       picture_shape AS pictureShape, walk_step AS walkStep FROM business`,
  );
  const write = db.prepare(
    `INSERT INTO business (only_one, name, zone, country, address, picture_id, picture_shape,
       walk_step, created_at)
     VALUES (1, @name, @zone, @country, @address, @pictureId, @pictureShape, @walkStep, @now)
     ON CONFLICT DO UPDATE SET name = @name, zone = @zone, country = @country,
       address = @address, picture_id = @pictureId, picture_shape = @pictureShape,
       walk_step = @walkStep`,
  );
  const readLamp = db.prepare<[], LampSetting>('SELECT state, until FROM lamp');
  const dropLamp = db.prepare('DELETE FROM lamp');
  const writeLamp = db.prepare(
    `INSERT INTO lamp VALUES (1, @state, @until, @now)
     ON CONFLICT DO UPDATE SET state = @state, until = @until, set_at = @now`,
  );
  const readMark = db.prepare<[string], { seq: number }>('SELECT seq FROM marks WHERE name = ?');
  const writeMark = db.prepare(
    'INSERT INTO marks VALUES (?, ?) ON CONFLICT DO UPDATE SET seq = max(seq, excluded.seq)',
  );
  const readReached = db.prepare<[], { origin: string }>('SELECT origin FROM reached_at');
  const writeReached = db.prepare(
    'INSERT INTO reached_at VALUES (1, ?) ON CONFLICT DO UPDATE SET origin = excluded.origin',
  );
  const reached = createKept((): string | null => readReached.get()?.origin ?? null);
  const business = createKept((): Business | null => read.get() ?? null);
  const lamp = createKept((): LampSetting => readLamp.get() ?? byHours);
  return {
    read: (): Business | null => business.get(),
    forget: (): void => {
      business.forget();
      lamp.forget();
      reached.forget();
    },
    write: (written: Business, now: number): void => {
      business.forget();
      write.run({ ...written, now });
    },
    /** Under which origin the owner reached us; null: nobody has kept it yet. */
    reachedAt: (): string | null => reached.get(),
    setReachedAt: (origin: string): void => {
      reached.forget();
      writeReached.run(origin);
    },
    /** By the hours until somebody says otherwise: whoever has just set up has none, and is there. */
    lamp: (): LampSetting => lamp.get(),
    setLamp: (next: LampSetting, now: number): void => {
      lamp.forget();
      if (next.state === 'by-hours') dropLamp.run();
      else writeLamp.run({ ...next, now });
    },
    /** The newest seq that a device of the team is known to have. */
    teamHasSeq: (): number => readMark.get('team-has')?.seq ?? 0,
    setTeamHasSeq: (seq: number): void => {
      writeMark.run('team-has', seq);
    },
  };
};
