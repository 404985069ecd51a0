import type { Clock } from '../clock';
import { isCannotWrite } from '../disk/disk';
import type { Write, Written } from '../inbox/batch';
import type { JobRecord, NewJob, Store } from '../store';

/** A job came to nothing, in the code of what went wrong; whoever looks at it reads a sentence for that. */
export class JobFailed extends Error {
  constructor(
    readonly why: string,
    /** Trying again is no use. */
    readonly isFinal = false,
    /** How long whoever was asked wants to be left alone. */
    readonly afterMs = 0,
  ) {
    super(why);
  }
}

export interface About {
  /** By which doing it twice is known as the same, wherever it is done. */
  key: string;
  /** How many tries this is; the first is 1. */
  tries: number;
  /** When there was cause for it, or it was asked for again. UTC epoch milliseconds. */
  madeAt: number;
  /** Aborts when the lease has run out: what comes of it is not asked for any more. */
  signal: AbortSignal;
}

/** Something that must happen, by a name that stands in the data. */
export interface JobKind<Load = unknown, Result = unknown> {
  name: string;
  /** So many at the same time. */
  atOnce: number;
  /** Of those so many for one place (a door, a push service), so that one that is slow leaves room; absent: all. */
  atOnceOfOne?: number;
  /** Of those so many for what stands before the blank in a place's name (the door of a writer); absent: all. */
  atOnceOfGroup?: number;
  /** So long may one try take. */
  leaseMs: number | ((load: Load) => number);
  /** After so many tries it is given up, and told; of what is worth doing for a time: tries that failed by our own fault. */
  triesMost: number;
  /**
   * Until when it is worth doing, and why not any longer (null: for why it failed last). It is tried for so long,
   * however often that is. Absent: `triesMost` counts.
   */
  worth?: (load: Load, madeAt: number) => { until: number; why: string | null };
  /** How long before the second try; each next one waits twice as long, up to the longest. */
  firstWaitMs: number;
  longestWaitMs: number;
  /** What happens outside; it may happen twice, under the same key. Throws `JobFailed`. */
  do?: (load: Load, about: About) => Promise<Result>;
  /** What is written when it was done, in the transaction that strikes the job off. */
  note?: (load: Load, result: Result) => Written<unknown>;
  /** What is written when a try came to nothing and another follows. */
  later?: (load: Load, why: string) => Written<unknown>;
  /** What is written when it was given up. */
  buried?: (load: Load, why: string) => Written<unknown>;
}

interface Running {
  job: JobRecord;
  kind: JobKind;
  leaseEndsAt: number;
  controller: AbortController;
}

const nothing: Written<unknown> = { result: undefined, news: [] };

/** Nobody tells a clock that was set by less from one that is slow. */
const JUMP_MS = 2_000;

/**
 * How long to wait before the next try: twice as long each time, up to the longest, and anything from half of
 * that to all of it, so that those that failed together do not come back together.
 */
export const waitBefore = (
  { firstWaitMs, longestWaitMs }: Pick<JobKind, 'firstWaitMs' | 'longestWaitMs'>,
  tries: number,
  random: number,
): number => {
  const whole = Math.min(longestWaitMs, firstWaitMs * 2 ** Math.min(tries - 1, 30));
  return Math.round(whole * (0.5 + random / 2));
};

const groupOf = (place: string): string => place.split(' ', 1)[0] ?? '';

const leaseOf = ({ leaseMs }: JobKind, { load }: JobRecord): number =>
  typeof leaseMs === 'number' ? leaseMs : leaseMs(JSON.parse(load));

/**
 * Does what must happen: takes what is due, each kind bounded for itself so that a slow one holds up no other.
 * A process that ends between doing and noting does it again under the same key.
 */
export const createWorker = (services: {
  store: Store;
  clock: Clock;
  write: Write;
  report: (error: unknown) => void;
  kinds: readonly JobKind[];
  random?: () => number;
}) => {
  const { store, clock, write, report, kinds, random = Math.random } = services;
  const running = new Set<Running>();
  const refills = new Map<JobKind, Promise<void>>();
  /** What could not be written when it had happened: the disk may take it later. */
  let unwritten: (() => Promise<void>)[] = [];
  let isStopped = false;
  let seen = { now: clock.now(), steady: clock.steady() };

  const written = async (work: () => Written<unknown>): Promise<void> => {
    try {
      await write(work);
    } catch (error) {
      if (!isCannotWrite(error)) throw error;
      report(error);
      unwritten.push(() => written(work));
    }
  };

  const done = ({ job, kind }: Running, result: unknown): Promise<void> =>
    written(() => {
      if (!store.jobs.drop(job)) return nothing;
      return kind.note?.(JSON.parse(job.load), result) ?? nothing;
    });

  /** Why it is given up; null: it is tried again. */
  const endOf = ({ job, kind }: Running, error: unknown, why: string): string | null => {
    if (error instanceof JobFailed && error.isFinal) return why;
    const isOurFault = !(error instanceof JobFailed);
    if (!kind.worth || isOurFault) return job.tries >= kind.triesMost ? why : null;
    const { until, why: past } = kind.worth(JSON.parse(job.load), job.madeAt);
    return clock.now() >= until ? (past ?? why) : null;
  };

  /** How long to wait before the next try: the last one comes while it is still worth it. */
  const waitOf = ({ job, kind }: Running, afterMs: number): number => {
    const waitMs = Math.max(waitBefore(kind, job.tries, random()), afterMs);
    if (!kind.worth) return waitMs;
    const { until } = kind.worth(JSON.parse(job.load), job.madeAt);
    return Math.min(waitMs, Math.max(1, until - clock.now()));
  };

  const failed = (one: Running, error: unknown): Promise<void> => {
    const { job, kind } = one;
    const isMeant = error instanceof JobFailed;
    if (!isMeant) report(error);
    const why = isMeant ? error.why : 'our-fault';
    const end = endOf(one, error, why);
    const now = clock.now();
    if (end !== null) {
      return written(() => {
        if (!store.jobs.bury(job, end, now)) return nothing;
        return { ...(kind.buried?.(JSON.parse(job.load), end) ?? nothing), isHouse: true };
      });
    }
    const afterMs = isMeant ? error.afterMs : 0;
    const waitMs = waitOf(one, afterMs);
    return written(() => {
      const isNamed = afterMs > 0;
      store.jobs.putBack(job, { notBefore: now + waitMs, waitMs, why, isNamed });
      return kind.later?.(JSON.parse(job.load), why) ?? nothing;
    });
  };

  const run = async (one: Running): Promise<void> => {
    const { job, kind, controller } = one;
    const { key, tries, madeAt } = job;
    const about = { key, tries, madeAt, signal: controller.signal };
    try {
      const result = await kind.do?.(JSON.parse(job.load), about);
      if (running.has(one)) await done(one, result);
    } catch (error) {
      // Whoever comes back after their lease has been put back already.
      if (running.has(one)) await failed(one, error);
    } finally {
      running.delete(one);
    }
  };

  const countOf = (kind: JobKind): number => [...running].filter((one) => one.kind === kind).length;

  /** With whose work each kind began last: the next begins with another's. */
  const lastBegun = new Map<JobKind, string>();

  /** How much more a kind may do at once for each place, beside what it does. */
  const roomsOf = (kind: JobKind) => {
    const counts = new Map<string, number>();
    const count = (place: string): void => {
      const group = `group ${groupOf(place)}`;
      for (const one of [place, group]) counts.set(one, (counts.get(one) ?? 0) + 1);
    };
    for (const { kind: its, job } of running) if (its === kind) count(job.belongs);
    const { atOnce, atOnceOfOne = atOnce, atOnceOfGroup = atOnce } = kind;
    return {
      count,
      at: (place: string): number =>
        Math.min(
          atOnceOfOne - (counts.get(place) ?? 0),
          atOnceOfGroup - (counts.get(`group ${groupOf(place)}`) ?? 0),
        ),
    };
  };

  /** Leases what is due and fits, by turns of those whose work it is. Call in a transaction. */
  const take = (kind: JobKind, room: number): JobRecord[] => {
    const now = clock.now();
    const open = new Set(store.jobs.places(kind.name, now, lastBegun.get(kind) ?? ''));
    const rooms = roomsOf(kind);
    const taken: JobRecord[] = [];
    while (taken.length < room && open.size > 0) {
      const share = Math.max(1, Math.floor((room - taken.length) / open.size));
      for (const place of open) {
        const fits = Math.min(share, rooms.at(place), room - taken.length);
        const got = fits > 0 ? store.jobs.take(kind.name, now, fits, place) : [];
        for (const job of got) rooms.count(job.belongs);
        taken.push(...got);
        if (got.length > 0) lastBegun.set(kind, place);
        if (got.length < share) open.delete(place);
      }
    }
    return taken;
  };

  /** What has ended makes room: filled once for all that end in the same turn. */
  const refill = (kind: JobKind): Promise<void> => {
    const coming = refills.get(kind);
    if (coming) return coming;
    const next = new Promise((resolve) => setImmediate(resolve)).then(() => {
      refills.delete(kind);
      return pump(kind);
    });
    refills.set(kind, next);
    return next;
  };

  /** Begins with whatever is due and fits, of one kind; resolves when those and what follows them are over. */
  const pump = async (kind: JobKind): Promise<void> => {
    const room = isStopped ? 0 : kind.atOnce - countOf(kind);
    if (room <= 0 || !store.jobs.hasReady(kind.name)) return;
    const taken = store.atOnce(() => take(kind, room));
    if (taken.length === 0) return;
    await Promise.all(
      taken.map(async (job) => {
        const leaseEndsAt = clock.steady() + leaseOf(kind, job);
        const one = { job, kind, leaseEndsAt, controller: new AbortController() };
        running.add(one);
        await run(one);
        await refill(kind);
      }),
    );
  };

  const begin = (kind: JobKind): Promise<void> =>
    pump(kind).catch((error) => {
      report(error);
    });

  const endLeases = (): void => {
    for (const one of running) {
      if (one.leaseEndsAt > clock.steady()) continue;
      running.delete(one);
      one.controller.abort();
      failed(one, new JobFailed('too-slow')).catch(report);
    }
  };

  /** Waits are lengths of time: a clock that is set makes none of them longer or shorter. */
  const followClock = (): void => {
    const now = { now: clock.now(), steady: clock.steady() };
    const jumpMs = now.now - seen.now - (now.steady - seen.steady);
    seen = now;
    if (Math.abs(jumpMs) >= JUMP_MS) store.jobs.shiftWaiting(jumpMs);
  };

  return {
    names: kinds.map(({ name }) => name),
    /** Adds what must happen. Call in the transaction of its cause; the worker wakes by itself after it. */
    add: (job: NewJob): void => store.jobs.add(job, clock.now()),
    /** The one process that does jobs starts: whoever held leases when the last one ended is gone. */
    start: (): void => store.jobs.freeAll(),
    /** After a commit: begins with what came in it. */
    wake: (): void => {
      const fresh = store.jobs.tookNew();
      if (fresh.size === 0) return;
      for (const kind of kinds) if (fresh.has(kind.name)) void begin(kind);
    },
    /** Begins with what is due. Resolves when all that happens inside the house is over. */
    tick: async (): Promise<void> => {
      followClock();
      endLeases();
      const again = unwritten;
      unwritten = [];
      for (const work of again) await work();
      const begun = kinds.map((kind) => ({ kind, over: begin(kind) }));
      await Promise.all(begun.map(({ kind, over }) => (kind.do ? undefined : over)));
    },
    /** Takes nothing more; what is being done may end or not. */
    stop: (): void => {
      isStopped = true;
      for (const { controller } of running) controller.abort();
    },
  };
};

export type Worker = ReturnType<typeof createWorker>;
