import type { Clock } from '../clock';
import type { Hub } from '../live/hub';
import type { Store } from '../store';

const LOGGED_EVERY_MS = 60_000;
const PROBED_EVERY_MS = 5_000;

/** What stands behind an error: SQLite could not write, for reasons that lie with the disk. */
export const isCannotWrite = (error: unknown): boolean =>
  /^SQLITE_(FULL|READONLY|IOERR|CANTOPEN)/.test(String((error as { code?: unknown })?.code ?? ''));

/** Whether the business's file can be written: noticed when a write fails, tried again until one goes well. */
export const createDisk = (services: { store: Store; clock: Clock; hub: Hub }) => {
  const { store, clock, hub } = services;
  let isFailing = false;
  let loggedAt = Number.NEGATIVE_INFINITY;
  let probedAt = Number.NEGATIVE_INFINITY;
  let say: (problem: string) => void = () => {};

  const become = (failing: boolean): void => {
    if (isFailing === failing) return;
    isFailing = failing;
    hub.tellHouse();
  };

  const failed = (error: unknown): void => {
    if (clock.steady() - loggedAt >= LOGGED_EVERY_MS) {
      loggedAt = clock.steady();
      say((error as Error).message);
    }
    become(true);
  };

  return {
    /** Who writes down what is wrong, at most once a minute. */
    onProblem: (listener: (problem: string) => void): void => {
      say = listener;
    },
    canWrite: (): boolean => !isFailing,
    /** Takes note of an error; true when it is the disk's. */
    note: (error: unknown): boolean => {
      if (!isCannotWrite(error)) return false;
      failed(error);
      return true;
    },
    tick: (): void => {
      if (!isFailing || clock.steady() - probedAt < PROBED_EVERY_MS) return;
      probedAt = clock.steady();
      try {
        store.probe.run();
        become(false);
      } catch (error) {
        if (!isCannotWrite(error)) throw error;
        failed(error);
      }
    },
  };
};

export type Disk = ReturnType<typeof createDisk>;
