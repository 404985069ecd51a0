import type { Db } from './db';

/** Up to which entry something was done that follows from the entries. */
export const markTable = (db: Db, table: 'afterwards' | 'rows_behind') => {
  const mark = db.prepare<[], { seq: number }>(`SELECT seq FROM ${table} WHERE only_one = 1`);
  const setMark = db.prepare(`UPDATE ${table} SET seq = ? WHERE only_one = 1`);
  return {
    mark: (): number => mark.get()?.seq ?? 0,
    setMark: (seq: number): void => {
      setMark.run(seq);
    },
  };
};
