import type { Promises } from '@porch/core/promises';
import type { Db } from './db';
import { createKept } from './kept';

/** What is promised to whoever writes, and of whom it was asked whether the light should say "back soon". */
export const promisesTable = (db: Db) => {
  const read = db.prepare<[], { settings: string }>('SELECT settings FROM promises');
  const write = db.prepare(
    'INSERT INTO promises VALUES (1, ?) ON CONFLICT DO UPDATE SET settings = excluded.settings',
  );
  const asked = db.prepare<[string], { since: number }>(
    'SELECT since FROM late_asked WHERE conversation_id = ?',
  );
  const ask = db.prepare(
    'INSERT INTO late_asked VALUES (?, ?) ON CONFLICT DO UPDATE SET since = excluded.since',
  );
  const tidy = db.prepare('DELETE FROM late_asked WHERE since < ?');
  const kept = createKept((): Partial<Promises> => JSON.parse(read.get()?.settings ?? '{}'));
  return {
    forget: kept.forget,
    /** Forgets for whom it was asked long ago. */
    tidy: (before: number): void => {
      tidy.run(before);
    },
    /** What was kept may lack what was added since. */
    settings: (): Partial<Promises> => kept.get(),
    setSettings: (promises: Promises): void => {
      kept.forget();
      write.run(JSON.stringify(promises));
    },
    /** Whether it was asked for somebody who waits since then. */
    wasLateAsked: (conversationId: string, since: number): boolean =>
      asked.get(conversationId)?.since === since,
    noteLateAsked: (conversationId: string, since: number): void => {
      ask.run(conversationId, since);
    },
  };
};
