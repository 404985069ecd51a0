import type { Db } from './db';

/** Up to which entry the rows of conversations are in step with the rolls. */
export const rowsBehindTable = (db: Db) => {
  const mark = db.prepare<[], { seq: number }>('SELECT seq FROM rows_behind WHERE only_one = 1');
  const setMark = db.prepare('UPDATE rows_behind SET seq = ? WHERE only_one = 1');
  return {
    mark: (): number => mark.get()?.seq ?? 0,
    setMark: (seq: number): void => {
      setMark.run(seq);
    },
  };
};
