import type { Db } from './db';

/** Up to which entry it was counted and learned. */
export const afterwardsTable = (db: Db) => {
  const mark = db.prepare<[], { seq: number }>('SELECT seq FROM afterwards WHERE only_one = 1');
  const setMark = db.prepare('UPDATE afterwards SET seq = ? WHERE only_one = 1');
  return {
    mark: (): number => mark.get()?.seq ?? 0,
    setMark: (seq: number): void => {
      setMark.run(seq);
    },
  };
};
