import { clear, createStore, del, get, set, type UseStore } from 'idb-keyval';

/**
 * A place in the browser's database for small things. Where that is full, forbidden or missing nothing is kept, and
 * nothing fails for it.
 */
export const createSmallStore = <Value>(database: string) => {
  let opened: UseStore | undefined;
  const store = (): UseStore => {
    opened ??= createStore(database, 'kept');
    return opened;
  };
  const ifAllowed = async <Result>(work: () => Promise<Result>): Promise<Result | null> => {
    try {
      return await work();
    } catch {
      return null;
    }
  };
  return {
    get: async (key: string): Promise<Value | null> =>
      (await ifAllowed(() => get<Value>(key, store()))) ?? null,
    set: async (key: string, value: Value): Promise<void> => {
      await ifAllowed(() => set(key, value, store()));
    },
    drop: async (key: string): Promise<void> => {
      await ifAllowed(() => del(key, store()));
    },
    clear: async (): Promise<void> => {
      await ifAllowed(() => clear(store()));
    },
  };
};
