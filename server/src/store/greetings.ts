import type { Db } from './db';

export interface GreetingCount {
  greetingId: string;
  seen: number;
  answered: number;
}

/** What came of greetings; they themselves stand in the dress of their door. */
export const greetingsTable = (db: Db) => {
  const count = db.prepare(
    `INSERT INTO greeting_counts VALUES (@doorId, @greetingId, @seen, @answered)
     ON CONFLICT DO UPDATE SET seen = seen + @seen, answered = answered + @answered`,
  );
  const counts = db.prepare<[string], GreetingCount>(
    'SELECT greeting_id AS greetingId, seen, answered FROM greeting_counts WHERE door_id = ?',
  );
  const helloed = db.prepare('INSERT INTO hello_threads VALUES (?) ON CONFLICT DO NOTHING');
  const spoken = db.prepare('DELETE FROM hello_threads WHERE thread_id = ?');
  return {
    /** The first hello is the last thing that was said in a thread. */
    helloed: (threadId: string): void => {
      helloed.run(threadId);
    },
    /** Something else was said there; true where the first hello had been the last. */
    spoken: (threadId: string): boolean => spoken.run(threadId).changes > 0,
    /** Adds to what is counted of a greeting. */
    count: (doorId: string, { greetingId, seen, answered }: GreetingCount): void => {
      count.run({ doorId, greetingId, seen, answered });
    },
    counts: (doorId: string): GreetingCount[] => counts.all(doorId),
  };
};
