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
}

const columns = 'id, key, kind, load, tries, lease, made_at AS madeAt';

/** So many dead jobs are shown at a time. */
export const DEAD_PAGE = 50;

export const jobsTable = (db: Db) => {
  let hasNew = false;
  const values = `(key, kind, load, state, not_before, wait_ms, tries, lease, made_at)
     VALUES (@key, @kind, @load, 'ready', @notBefore, @waitMs, 0, 0, @now)`;
  const add = db.prepare(`INSERT INTO jobs ${values} ON CONFLICT DO NOTHING`);
  const schedule = db.prepare(
    `INSERT INTO jobs ${values}
     ON CONFLICT DO UPDATE SET load = excluded.load, not_before = excluded.not_before,
       state = 'ready', wait_ms = excluded.wait_ms, tries = 0, lease = lease + 1, why = NULL
     WHERE not_before <> excluded.not_before OR state <> 'ready' OR load <> excluded.load`,
  );
  const take = db.prepare<{ kind: string; now: number; most: number }, JobRecord>(
    `UPDATE jobs SET state = 'leased', lease = lease + 1, tries = tries + 1
     WHERE id IN (
       SELECT id FROM jobs WHERE kind = @kind AND state = 'ready' AND not_before <= @now
       ORDER BY not_before, id LIMIT @most
     )
     RETURNING ${columns}`,
  );
  const drop = db.prepare("DELETE FROM jobs WHERE id = ? AND lease = ? AND state = 'leased'");
  const putBack = db.prepare(
    `UPDATE jobs SET state = 'ready', not_before = @notBefore, wait_ms = @waitMs, why = @why
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
  const dead = db.prepare<[number, number], DeadJob>(
    `SELECT ${columns}, why, died_at AS diedAt FROM jobs
     WHERE state = 'dead' AND id < ? ORDER BY id DESC LIMIT ?`,
  );
  const deadCount = db.prepare<[], { dead: number }>('SELECT dead FROM job_counts');
  const revive = db.prepare(
    `UPDATE jobs SET state = 'ready', not_before = ?, wait_ms = 0, tries = 0, why = NULL,
       died_at = NULL WHERE id = ? AND state = 'dead'`,
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
    ...job,
    load: JSON.stringify(job.load),
    now,
  });
  return {
    /** Adds what must happen; the same key twice is once. Call in the transaction of its cause. */
    add: (job: NewJob, now: number): void => {
      hasNew = add.run(row(job, now)).changes > 0 || hasNew;
    },
    /** The same, where a later time for the same key takes the place of an earlier one. */
    schedule: (job: NewJob, now: number): void => {
      hasNew = schedule.run(row(job, now)).changes > 0 || hasNew;
    },
    /** Whether any came since this was asked last. */
    tookNew: (): boolean => {
      const was = hasNew;
      hasNew = false;
      return was;
    },
    /** Leases the first of a kind that are due. */
    take: (kind: string, now: number, most: number): JobRecord[] => take.all({ kind, now, most }),
    /** Strikes a job off; false when it was not whoever holds this lease who had it. */
    drop: ({ id, lease }: JobRecord): boolean => drop.run(id, lease).changes > 0,
    putBack: (
      { id, lease }: JobRecord,
      again: { notBefore: number; waitMs: number; why: string },
    ): boolean => putBack.run({ id, lease, ...again }).changes > 0,
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
    revive: (id: number, now: number): boolean => revive.run(now, id).changes > 0,
    leave: (id: number): boolean => leave.run(id).changes > 0,
    /** Whether any is still to be done whose key begins so. */
    isAnyUnder: (prefix: string): boolean => under.get(prefix, `${prefix}\uffff`) !== undefined,
    byKey: (key: string) => byKey.get(key) ?? null,
  };
};
