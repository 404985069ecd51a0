import { createStore, openDatabase, type Store } from '../store';
import { createBatch } from './batch';

const spin = (ms: number): void => {
  const until = performance.now() + ms;
  while (performance.now() < until);
};

describe('writes that come in at the same moment', () => {
  let store: Store;
  let commits: number;
  let batch: ReturnType<typeof createBatch>;
  beforeEach(() => {
    const real = createStore(openDatabase(':memory:'));
    commits = 0;
    store = {
      ...real,
      atOnce: (work) => {
        commits += 1;
        return real.atOnce(work);
      },
    };
    batch = createBatch(
      store,
      () => undefined,
      (error) => {
        throw error;
      },
    );
  });
  afterEach(() => store.close());

  const done: string[] = [];
  const slow = (lane: string, name: string) =>
    batch.write(() => {
      spin(2);
      done.push(name);
      return { result: name, news: [] };
    }, lane);
  beforeEach(() => {
    done.length = 0;
  });

  it('are no more in one transaction than a moment’s work, and what comes by others has its turn between', async () => {
    const all = Array.from({ length: 60 }, (_none, nth) => slow('network', `hook ${nth}`));
    await all[0];
    // The first are acknowledged while the last still wait.
    expect(done.length).toBeLessThan(60);
    await Promise.all(all);
    expect(done).toEqual(Array.from({ length: 60 }, (_none, nth) => `hook ${nth}`));
    expect(commits).toBeGreaterThan(5);
  });

  it('take turns by whose they are, each in its own order', async () => {
    const hooks = Array.from({ length: 100 }, (_none, nth) => slow('network', `hook ${nth}`));
    const words = [slow('wren', 'words 0'), slow('wren', 'words 1')];
    await Promise.all(words);
    expect(done.indexOf('words 0')).toBe(1);
    expect(done.indexOf('words 1')).toBe(3);
    await Promise.all(hooks);
    expect(done.filter((name) => name.startsWith('hook'))).toEqual(
      hooks.map((_hook, nth) => `hook ${nth}`),
    );
  });

  it('are all refused where no transaction can be begun, and none of them waits for another one', async () => {
    const real = store.atOnce;
    store.atOnce = () => {
      throw new Error('the disk is gone');
    };
    const all = [slow('network', 'hook'), slow('wren', 'words')];
    for (const one of all) await expect(one).rejects.toThrow('the disk is gone');
    store.atOnce = real;
    expect(await slow('wren', 'words')).toBe('words');
  });

  it('are each done apart where one of them is refused, and what waits behind them goes on', async () => {
    const refused = batch.write(() => {
      throw new Error('no');
    }, 'wren');
    const all = Array.from({ length: 30 }, (_none, nth) => slow('network', `hook ${nth}`));
    await expect(refused).rejects.toThrow('no');
    expect(await Promise.all(all)).toHaveLength(30);
    expect(new Set(done).size).toBe(30);
  });
});
