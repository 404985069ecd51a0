import type { Clock } from '../clock';
import type { Write } from '../inbox/batch';
import { JobFailed } from '../jobs/worker';
import type { Store } from '../store';
import { isOfDoor } from './answers';

/** Says of a door that it fails from the first try on, not only when something is given up. */
export const createFailing = (services: { store: Store; clock: Clock; write: Write }) => {
  const { store, clock, write } = services;

  const note = async (doorId: string, why: string): Promise<void> => {
    if (!store.doors.byId(doorId) || store.doors.health(doorId).why === why) return;
    await write(() => {
      store.doors.failing(doorId, clock.now(), why);
      return { result: null, news: [], isHouse: true };
    });
  };

  return {
    /**
     * A door's network works: what waited for it goes now. `by`: the kind of job that found so; absent: somebody made
     * sure. In a transaction that is under way; true where the door was said to fail before.
     */
    wellNow: (doorId: string, by = ''): boolean => {
      const wasFailing = store.doors.health(doorId).failingSince !== null;
      // What fails otherwise goes on failing, and says so: one thing that works does not speak for another.
      const isStill = store.jobs
        .whysAt(doorId)
        .some(({ kind, why }) => kind !== by && isOfDoor(why));
      if (wasFailing && (!isStill || by === '')) store.doors.well(doorId);
      store.jobs.hurry(doorId, clock.now());
      return wasFailing;
    },
    /** Does something with a door's network; where it fails, the door is said to fail. */
    noted: async <Result>(doorId: string, work: () => Promise<Result>): Promise<Result> => {
      try {
        return await work();
      } catch (error) {
        if (error instanceof JobFailed && isOfDoor(error.why)) await note(doorId, error.why);
        throw error;
      }
    },
  };
};

export type Failing = ReturnType<typeof createFailing>;
