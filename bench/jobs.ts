import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { systemClock } from '@porch/server/clock';
import { createBatch } from '@porch/server/inbox/batch';
import { createWorker, type JobKind } from '@porch/server/jobs/worker';
import { createStore, openDatabase, type Store } from '@porch/server/store/index';

const JOBS = 6_000;
const AT_ONCE = 50;

const fill = (store: Store): void =>
  store.atOnce(() => {
    for (let index = 0; index < JOBS; index += 1) {
      const job = { key: `job ${index}`, kind: 'bench', load: { index }, notBefore: 0 };
      store.jobs.add(job, 0);
    }
  });

/** On the disk of the project: durability is part of what is measured. */
const withStore = async (use: (store: Store) => Promise<void>): Promise<number> => {
  const dir = mkdtempSync(join(process.cwd(), '.built/bench-'));
  const store = createStore(openDatabase(join(dir, 'porch.sqlite')));
  fill(store);
  const begin = performance.now();
  await use(store);
  const took = performance.now() - begin;
  store.close();
  rmSync(dir, { recursive: true, force: true });
  return (JOBS / took) * 1_000;
};

/** Jobs a second through the worker, with nothing to do in each. */
export const throughWorker = (): Promise<number> =>
  withStore(async (store) => {
    let done = 0;
    const kind: JobKind = {
      name: 'bench',
      atOnce: AT_ONCE,
      leaseMs: 60_000,
      triesMost: 3,
      firstWaitMs: 1_000,
      longestWaitMs: 1_000,
      do: async () => undefined,
      note: () => {
        done += 1;
        return { result: null, news: [] };
      },
    };
    const report = (error: unknown): void => {
      throw error;
    };
    const { write } = createBatch(store, () => {}, report);
    const worker = createWorker({ store, clock: systemClock, write, report, kinds: [kind] });
    void worker.tick();
    while (done < JOBS) await new Promise((resolve) => setImmediate(resolve));
    worker.stop();
  });

/** The same statements bare: as many taken at once, as many struck off in one transaction. */
export const bare = (): Promise<number> =>
  withStore(async (store) => {
    for (;;) {
      const taken = store.atOnce(() => store.jobs.take('bench', 1, AT_ONCE));
      if (taken.length === 0) return;
      store.atOnce(() => {
        for (const job of taken) store.jobs.drop(job);
      });
    }
  });
