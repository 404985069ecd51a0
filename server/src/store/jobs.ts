import type { Db } from './db';

export interface JobRecord {
  id: number;
  /** The same for the same cause: what it is known by outside, however often it is done. */
  key: string;
  kind: string;
  /** JSON. */
  load: string;
  tries: number;
  lease: number;
  /** What is done in turn has the same; null: it waits for no other. */
  lane: string | null;
  /** Whose work it is; '' for the house's own. */
  belongs: string;
  /** Why the try before came to nothing; null: there was none. */
  why: string | null;
  madeAt: number;
}

export interface DeadJob extends JobRecord {
  why: string;
  diedAt: number;
}

export interface NewJob {
  key: string;
  kind: string;
  load: unknown;
  /** UTC epoch milliseconds. */
  notBefore: number;
  /** How much of it is a length of time, which a clock that is set makes no longer or shorter; 0: a moment. */
  waitMs?: number;
  /** Jobs of one lane are done one after the other, in the order in which they came. */
  lane?: string;
  /**
   * Whose work it is, those of one sharing what there is to do it with: a door, a push service; after a blank, whose
   * among those (a writer at the door).
   */
  belongs?: string;
}

const columns = 'id, key, kind, load, tries, lease, lane, belongs, why, made_at AS madeAt';

/** Among so many places it is looked for work at a time. */
const PLACES_LOOKED_AT_MOST = 1_000;

/** So many that were given up are kept. */
const DEAD_KEPT_MOST = 2_000;

/** So many dead jobs are shown at a time. */
export const DEAD_PAGE = 50;

export const jobsTable = (db: Db) => {
  /** Of which kinds some may be due that were not before. */
  let fresh = new Set<string>();
  const note = (
    { kind, notBefore }: NewJob,
    now: number,
    { changes }: { changes: number },
  ): void => {
    if (changes > 0 && notBefore <= now) fresh.add(kind);
  };
  const values = `(key, kind, load, state, not_before, wait_ms, tries, lease, made_at, lane, belongs)
     VALUES (@key, @kind, @load, 'ready', @notBefore, @waitMs, 0, 0, @now, @lane, @belongs)`;
  const add = db.prepare(`INSERT INTO jobs ${values} ON CONFLICT DO NOTHING`);
  const schedule = db.prepare(
    `INSERT INTO jobs ${values}
     ON CONFLICT DO UPDATE SET load = excluded.load, not_before = excluded.not_before,
       state = 'ready', wait_ms = excluded.wait_ms, tries = 0, lease = lease + 1, why = NULL,
       named = 0, made_at = excluded.made_at
     WHERE not_before <> excluded.not_before OR state <> 'ready' OR load <> excluded.load`,
  );
  const take = db.prepare<{ kind: string; belongs: string; now: number; most: number }, JobRecord>(
    `UPDATE jobs SET state = 'leased', lease = lease + 1, tries = tries + 1
     WHERE id IN (
       SELECT id FROM jobs
       WHERE kind = @kind AND state = 'ready' AND behind = 0 AND belongs = @belongs
         AND not_before <= @now
       ORDER BY not_before, id LIMIT @most
     )
     RETURNING ${columns}`,
  );
  const firstOf = (rest: string) =>
    db.prepare<[string, string], { belongs: string; notBefore: number }>(
      `SELECT belongs, not_before AS notBefore FROM jobs
       WHERE kind = ? AND state = 'ready' AND behind = 0 AND belongs ${rest} ?
       ORDER BY belongs, not_before LIMIT 1`,
    );
  const nextPlace = firstOf('>');
  const fromPlace = firstOf('>=');
  const anyBehind = db.prepare<[string], { id: number }>(
    "SELECT id FROM jobs WHERE lane = ? AND state <> 'dead' AND behind = 1 LIMIT 1",
  );
  const anyLeased = db.prepare("SELECT id FROM jobs WHERE state = 'leased' LIMIT 1");
  const anyReady = db.prepare<[string], { id: number }>(
    "SELECT id FROM jobs WHERE kind = ? AND state = 'ready' AND behind = 0 LIMIT 1",
  );
  const drop = db.prepare("DELETE FROM jobs WHERE id = ? AND lease = ? AND state = 'leased'");
  const putBack = db.prepare(
    `UPDATE jobs SET state = 'ready', not_before = @notBefore, wait_ms = @waitMs, why = @why,
       named = @named
     WHERE id = @id AND lease = @lease AND state = 'leased'`,
  );
  const bury = db.prepare(
    `UPDATE jobs SET state = 'dead', why = @why, died_at = @now
     WHERE id = @id AND lease = @lease AND state = 'leased'`,
  );
  const free = db.prepare("UPDATE jobs SET state = 'ready' WHERE state = 'leased'");
  const shift = db.prepare(
    "UPDATE jobs SET not_before = not_before + ? WHERE wait_ms > 0 AND state = 'ready'",
  );
  const hurry = db.prepare<{ belongs: string; now: number }, { kind: string }>(
    `UPDATE jobs SET not_before = @now, wait_ms = 0
     WHERE belongs >= @belongs AND belongs < @belongs || '!' AND wait_ms > 0
       AND state = 'ready' AND named = 0 AND tries > 0
     RETURNING kind`,
  );
  const hurryLane = db.prepare<{ lane: string; now: number }, { kind: string }>(
    `UPDATE jobs SET not_before = @now, wait_ms = 0
     WHERE lane = @lane AND state <> 'dead' AND behind = 0 AND state = 'ready' AND wait_ms > 0
       AND named = 0 AND tries > 0
     RETURNING kind`,
  );
  const whysAt = db.prepare<{ belongs: string }, { kind: string; why: string }>(
    `SELECT DISTINCT kind, why FROM jobs
     WHERE belongs >= @belongs AND belongs < @belongs || '!' AND wait_ms > 0
       AND state = 'ready' AND why IS NOT NULL`,
  );
  const dropWaiting = db.prepare<[string], { kind: string }>(
    `DELETE FROM jobs WHERE lane = ? AND state <> 'dead' AND state = 'ready' AND tries > 0
     RETURNING kind`,
  );
  const dead = db.prepare<[number, number], DeadJob>(
    `SELECT ${columns}, why, died_at AS diedAt FROM jobs
     WHERE state = 'dead' AND id < ? ORDER BY id DESC LIMIT ?`,
  );
  const deadCount = db.prepare<[], { dead: number }>('SELECT dead FROM job_counts');
  const revive = db.prepare(
    `UPDATE jobs SET state = 'ready', not_before = ?, wait_ms = 0, tries = 0, why = NULL,
       died_at = NULL, named = 0, made_at = ? WHERE id = ? AND state = 'dead'`,
  );
  const dropDead = db.prepare(
    `DELETE FROM jobs WHERE state = 'dead' AND id < coalesce((
       SELECT id FROM jobs WHERE state = 'dead' ORDER BY id DESC LIMIT 1 OFFSET ?
     ), 0)`,
  );
  const leave = db.prepare("DELETE FROM jobs WHERE id = ? AND state = 'dead'");
  const byKey = db.prepare<[string], JobRecord & { state: string; notBefore: number }>(
    `SELECT ${columns}, state, not_before AS notBefore FROM jobs WHERE key = ?`,
  );
  const under = db.prepare<[string, string], { id: number }>(
    "SELECT id FROM jobs WHERE key >= ? AND key < ? AND state <> 'dead' LIMIT 1",
  );
  const row = (job: NewJob, now: number) => ({
    waitMs: 0,
    lane: null,
    belongs: '',
    ...job,
    load: JSON.stringify(job.load),
    now,
  });
  return {
    /** Adds what must happen; the same key twice is once. Call in the transaction of its cause. */
    add: (job: NewJob, now: number): void => {
      note(job, now, add.run(row(job, now)));
    },
    /** The same, where a later time for the same key takes the place of an earlier one. */
    schedule: (job: NewJob, now: number): void => {
      note(job, now, schedule.run(row(job, now)));
    },
    /** Of which kinds any came, or may be due now, since this was asked last. */
    tookNew: (): ReadonlySet<string> => {
      const were = fresh;
      fresh = new Set();
      return were;
    },
    /** Whether any is being done. */
    isAnyLeased: (): boolean => anyLeased.get() !== undefined,
    /** Whether any of a kind waits, due or not. */
    hasReady: (kind: string): boolean => anyReady.get(kind) !== undefined,
    /** Whose work of a kind is due, from a place on and around; of very many some, and the next time others. */
    places: (kind: string, now: number, after: string): string[] => {
      const due: string[] = [];
      let looked = 0;
      const walk = (
        first: ReturnType<typeof nextPlace.get>,
        isIn: (belongs: string) => boolean,
      ) => {
        let next = first;
        while (next && isIn(next.belongs) && looked < PLACES_LOOKED_AT_MOST) {
          if (next.notBefore <= now) due.push(next.belongs);
          looked += 1;
          next = nextPlace.get(kind, next.belongs);
        }
      };
      walk(nextPlace.get(kind, after), () => true);
      walk(fromPlace.get(kind, ''), (belongs) => belongs <= after);
      return due;
    },
    /** Leases the first of a kind that are due, of one place; of each lane the first alone. */
    take: (kind: string, now: number, most: number, belongs = ''): JobRecord[] =>
      take.all({ kind, now, most, belongs }),
    /** Strikes a job off; false when it was not whoever holds this lease who had it. */
    drop: ({ id, lease }: JobRecord): boolean => drop.run(id, lease).changes > 0,
    putBack: (
      { id, lease }: JobRecord,
      /** `isNamed`: the other side said when; nobody comes sooner. */
      again: { notBefore: number; waitMs: number; why: string; isNamed?: boolean },
    ): boolean => {
      const { isNamed = false, ...when } = again;
      return putBack.run({ id, lease, ...when, named: Number(isNamed) }).changes > 0;
    },
    /** What waits to be tried again at a place is due now: it works. But for what the other side named a time for. */
    hurry: (belongs: string, now: number): void => {
      for (const { kind } of hurry.all({ belongs, now })) fresh.add(kind);
    },
    /** What is wrong with what waits to be tried again at a place. */
    whysAt: (belongs: string): { kind: string; why: string }[] => whysAt.all({ belongs }),
    /** The same for the first of a lane. */
    hurryLane: (lane: string, now: number): void => {
      for (const { kind } of hurryLane.all({ lane, now })) fresh.add(kind);
    },
    /** Whether another waits behind the first of a lane. */
    isAnyBehind: (lane: string): boolean => anyBehind.get(lane) !== undefined,
    /** Forgets what was tried and waits in a lane: something newer takes its place. What is on its way goes on. */
    dropWaiting: (lane: string): void => {
      // What stood behind it is the first now, and may be due.
      for (const { kind } of dropWaiting.all(lane)) fresh.add(kind);
    },
    bury: ({ id, lease }: JobRecord, why: string, now: number): boolean =>
      bury.run({ id, lease, why, now }).changes > 0,
    /** Nobody holds a lease any more: whoever had one is gone. */
    freeAll: (): void => {
      free.run();
    },
    /** The machine's clock was set by so much: whoever waits for another try waits no longer for it. */
    shiftWaiting: (ms: number): void => {
      shift.run(ms);
    },
    /** Those that were given up, the newest first, before an id. */
    dead: (before: number = Number.MAX_SAFE_INTEGER): DeadJob[] => dead.all(before, DEAD_PAGE),
    deadCount: (): number => deadCount.get()?.dead ?? 0,
    /** Lets a dead one be tried again; false when it is not there, or not dead. */
    revive: (id: number, now: number): boolean => revive.run(now, now, id).changes > 0,
    /** Of those that were given up only the newest are kept: nobody goes through thousands. */
    tidy: (): void => {
      dropDead.run(DEAD_KEPT_MOST - 1);
    },
    leave: (id: number): boolean => leave.run(id).changes > 0,
    /** Whether any is still to be done whose key begins so. */
    isAnyUnder: (prefix: string): boolean => under.get(prefix, `${prefix}\uffff`) !== undefined,
    byKey: (key: string) => byKey.get(key) ?? null,
  };
};
