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
