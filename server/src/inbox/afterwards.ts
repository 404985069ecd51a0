import type { Entry } from '@porch/core/conversation';
import { isCannotWrite } from '../disk/disk';
import type { News } from '../live/hub';
import type { Store } from '../store';

/** What is counted or learned of entries. Called inside a transaction, in order, once for each of them. */
export type Afterwards = (entries: readonly Entry[]) => void;

/** The same, one by one. */
export const forEach =
  (one: (entry: Entry) => void): Afterwards =>
  (entries) => {
    for (const entry of entries) one(entry);
  };

/** So many entries at a time: nobody else waits for longer. */
const AT_ONCE = 200;
/** So often at most, while much is written; what is asked for meanwhile is brought up to date first. */
const EVERY_MS = 250;
/** After it could not be written. */
const AGAIN_MS = 5_000;
/** More are read again when their turn comes, rather than kept. */
const KEPT_MOST = 5_000;

/**
 * What follows from what was written and no acknowledgement waits for: that it can be found, counts, what is learned.
 * It happens after the commit, from the entries themselves, and goes on where it was after a kill: how far it is stands in the same
 * transaction as what it did.
 */
export const createAfterwards = (services: {
  store: Store;
  all: readonly Afterwards[];
  report: (error: unknown) => void;
}) => {
  const { store, all, report } = services;
  /** What was written since, as far as all of it is here; null: it has to be read. */
  let fresh: Entry[] | null = null;
  let timer: NodeJS.Timeout | null = null;
  let ranAt = 0;
  let isStopped = false;

  /** The next entries that have not been looked at, oldest first. */
  const next = (): { entries: readonly Entry[]; isAll: boolean } => {
    if (fresh) return { entries: fresh.splice(0, AT_ONCE), isAll: fresh.length === 0 };
    const entries = store.entries.since(store.afterwards.mark(), AT_ONCE);
    return { entries, isAll: entries.length < AT_ONCE };
  };

  /** All of it for these entries, and how far it is, at once. */
  const doAll = (entries: readonly Entry[]): void =>
    store.derive(() => {
      for (const one of all) one(entries);
      store.afterwards.setMark(entries.at(-1)?.seq ?? 0);
    });

  /** Each apart: one of them that cannot be counted is passed over, so that it stops nothing that comes after it. */
  const doEach = (entries: readonly Entry[]): void => {
    for (const entry of entries) {
      try {
        doAll([entry]);
      } catch (error) {
        if (isCannotWrite(error)) throw error;
        report(error);
        store.afterwards.setMark(entry.seq);
      }
    }
  };

  /** One stretch; true when there is no more. Fails where nothing can be written. */
  const step = (): boolean => {
    const { entries, isAll } = next();
    try {
      if (entries.length > 0) doAll(entries);
    } catch (error) {
      // What was not done is read again.
      fresh = null;
      if (isCannotWrite(error)) throw error;
      doEach(entries);
    }
    if (isAll && fresh === null) fresh = [];
    return isAll;
  };

  /** True when all that could be done is done; a disk that takes nothing says so itself, and is tried again. */
  const tryStep = (): boolean => {
    try {
      return step();
    } catch (error) {
      if (!isCannotWrite(error)) throw error;
      later(AGAIN_MS);
      return true;
    }
  };

  const turn = (): void => {
    timer = null;
    ranAt = performance.now();
    if (tryStep()) return;
    ranAt = 0;
    later();
  };

  const later = (leastMs = 0): void => {
    if (timer || isStopped) return;
    timer = setTimeout(turn, Math.max(leastMs, ranAt + EVERY_MS - performance.now()));
    timer.unref();
  };

  return {
    /** Something was written and is on disk. */
    note: (news: readonly News[]): void => {
      let has = false;
      for (const { entries } of news) {
        if (entries.length > 0) has = true;
        fresh?.push(...entries);
      }
      if (fresh && fresh.length > KEPT_MOST) fresh = null;
      if (has) later();
    },
    /** Brings it up to date now, as far as the disk lets it: a count that is asked for is the right one. */
    catchUp: (): void => {
      if (fresh?.length === 0) return;
      while (!tryStep());
    },
    /** After a start: goes on where it was. */
    begin: (): void => later(),
    stop: (): void => {
      isStopped = true;
      if (timer) clearTimeout(timer);
    },
  };
};

export type AfterwardsOf = ReturnType<typeof createAfterwards>;
