import { dueAt } from '@porch/core/patience';
import { windowEnd } from '@porch/core/routes';
import type { Clock } from '../clock';
import type { HoursOf } from '../hours/hours';
import type { PromisesKept } from '../promises/promises';
import type { Store } from '../store';

/** So much of one turn may go into it: nobody who is served meanwhile waits longer for it. */
const TURN_LONGEST_MS = 5;

const MINUTE_MS = 60_000;

const nextTurn = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/**
 * When answers are due, in open time, or when a network's window closes if that is sooner. Where the hours become others, whoever waits stands elsewhere in the line: they
 * are put there by and by, and the team is told once that is done.
 */
export const createDueTimes = (services: {
  store: Store;
  clock: Pick<Clock, 'now'>;
  hours: Pick<HoursOf, 'opening' | 'mark'>;
  promises: Pick<PromisesKept, 'now'>;
  /** For how long a door's network lets somebody be answered, in milliseconds; null: always. */
  windowOf: (doorId: string) => number | null;
  tellLine: () => void;
  report: (error: unknown) => void;
}) => {
  const { store, clock, hours, promises, windowOf, tellLine, report } = services;
  const reckon = (): void => {
    const graceMs = promises.now().graceMinutes * MINUTE_MS;
    store.conversations.reckonDueBy((state, last) => {
      const due = dueAt(state, hours.opening(last?.doorId ?? ''), graceMs);
      const end = last && windowEnd(last.heardAt ?? null, windowOf(last.doorId));
      if (due === null || end === null) return due;
      // Once the window is closed nobody can answer there: they stand after those who can be answered.
      return end <= clock.now() ? null : Math.min(due, end);
    });
  };
  const markNow = (): string => `${hours.mark()} ${promises.now().graceMinutes}`;
  reckon();
  let mark = markNow();
  let isStopped = false;
  let running: Promise<void> = Promise.resolve();

  /** Puts some where they belong; gives the ids that are left. */
  const turn = (ids: readonly string[]): readonly string[] =>
    store.atOnce(() => {
      const until = performance.now() + TURN_LONGEST_MS;
      for (const [done, id] of ids.entries()) {
        const conversation = store.conversations.byId(id);
        if (conversation) store.conversations.write(conversation);
        if (performance.now() > until) return ids.slice(done + 1);
      }
      return [];
    });

  const placeAnew = async (): Promise<void> => {
    // Among notes too a window may have closed while the house was off.
    let left: readonly string[] = [
      ...store.conversations.idsIn('waiting'),
      ...store.conversations.idsIn('note'),
    ];
    while (left.length > 0 && !isStopped) {
      left = turn(left);
      await nextTurn();
    }
    tellLine();
  };

  return {
    /** Something of the house is another: where that is the hours, due times are too. */
    note: (): void => {
      const now = markNow();
      if (now === mark) return;
      mark = now;
      // What is kept in memory was reckoned by the hours before.
      reckon();
      running = running.then(placeAnew).catch(report);
    },
    /** Puts everybody who waits where they belong: after a start, for one that ended in the middle of it. */
    run: (): Promise<void> => {
      running = running.then(placeAnew).catch(report);
      return running;
    },
    stop: (): void => {
      isStopped = true;
    },
  };
};
