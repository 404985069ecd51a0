import { systemClock } from '../src/clock';
import { createBatch } from '../src/inbox/batch';
import { createWorker, JobFailed, type JobKind } from '../src/jobs/worker';
import { createStore, openDatabase } from '../src/store';

/**
 * A process of its own that does jobs against a stand-in until it is killed, or until none is left: then it
 * says so and ends. Its jobs are there from its first start on.
 */
const [path = '', url = '', count = '0'] = process.argv.slice(2);

const db = openDatabase(path);
db.exec('CREATE TABLE IF NOT EXISTS noted (key TEXT PRIMARY KEY)');
const noted = db.prepare('INSERT INTO noted VALUES (?)');
const left = db.prepare<[], { jobs: number }>('SELECT count(*) AS jobs FROM jobs');
const store = createStore(db);
const report = (error: unknown): void => {
  process.stderr.write(`${error}\n`);
};

const kind: JobKind<{ key: string }> = {
  name: 'post',
  atOnce: 4,
  leaseMs: 2_000,
  triesMost: 1_000,
  firstWaitMs: 5,
  longestWaitMs: 20,
  do: async (_load, { key, signal }) => {
    const headers = { 'idempotency-key': key };
    const answer = await fetch(url, { method: 'POST', headers, signal }).catch(() => null);
    if (!answer?.ok) throw new JobFailed('gone');
  },
  note: ({ key }) => {
    noted.run(key);
    return { result: null, news: [] };
  },
};

const { write } = createBatch(store, () => worker.wake(), report);
const worker = createWorker({ store, clock: systemClock, write, report, kinds: [kind as JobKind] });

worker.start();

const start = async (): Promise<void> => {
  // Any tick does: it says that they were added once.
  if (store.ticks.has('team')) return;
  await write(() => {
    for (let index = 0; index < Number(count); index += 1) {
      const key = `post ${index}`;
      worker.add({ key, kind: 'post', load: { key }, notBefore: 0 });
    }
    store.ticks.set('team', 0);
    return { result: null, news: [] };
  });
};

start().then(() => {
  process.stdout.write('begun\n');
  setInterval(async () => {
    await worker.tick();
    if ((left.get()?.jobs ?? 0) > 0) return;
    process.stdout.write('over\n');
    process.exit(0);
  }, 5);
});
