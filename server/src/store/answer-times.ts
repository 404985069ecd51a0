import type { Db } from './db';

/** More than this tell nothing new of what is usual. */
const LOOKED_AT_MOST = 2_000;

/** How long people had to wait for a first answer. */
export const answerTimesTable = (db: Db) => {
  const add = db.prepare('INSERT INTO answer_times VALUES (?, ?, ?)');
  const since = db.prepare<[number, number], { tookMs: number }>(
    'SELECT took_ms AS tookMs FROM answer_times WHERE at >= ? ORDER BY at DESC LIMIT ?',
  );
  const drop = db.prepare('DELETE FROM answer_times WHERE at < ?');
  return {
    add: (doorId: string, at: number, tookMs: number): void => {
      add.run(at, doorId, tookMs);
    },
    /** The newest since a moment, in milliseconds of open time. */
    since: (at: number): number[] => since.all(at, LOOKED_AT_MOST).map(({ tookMs }) => tookMs),
    dropBefore: (at: number): void => {
      drop.run(at);
    },
  };
};
