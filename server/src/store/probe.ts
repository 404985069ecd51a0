import type { Db } from './db';

/** Larger than any message, so that a disk that takes it takes messages too. */
const PROBE_BYTES = 128 * 1024;

/** Whether anything can be written: throws what SQLite says when not. */
export const probeTable = (db: Db) => {
  const write = db.prepare('INSERT INTO probe VALUES (1, zeroblob(?)) ON CONFLICT DO NOTHING');
  const drop = db.prepare('DELETE FROM probe');
  return {
    /** Two commits: room that is taken, and given back. */
    run: (): void => {
      write.run(PROBE_BYTES);
      drop.run();
    },
  };
};
