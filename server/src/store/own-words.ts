import type { Db } from './db';

/** Words of the business that no dictionary has: names of plants, of streets, of people. */
export const ownWordsTable = (db: Db) => {
  const all = db.prepare<[], { word: string }>('SELECT word FROM own_words ORDER BY word');
  const add = db.prepare('INSERT INTO own_words VALUES (?) ON CONFLICT DO NOTHING');
  const drop = db.prepare('DELETE FROM own_words WHERE word = ?');
  return {
    all: (): string[] => all.all().map(({ word }) => word),
    add: (word: string): void => {
      add.run(word);
    },
    drop: (word: string): void => {
      drop.run(word);
    },
  };
};
