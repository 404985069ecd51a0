import type { Parcel } from '@porch/core/send-queue';
import { createStore, del, entries, set, type UseStore } from 'idb-keyval';

/** Where what is not sent yet outlives a reload. */
export interface Shelf<Load> {
  put(parcel: Parcel<Load>): Promise<void>;
  remove(id: string): Promise<void>;
  /** All that an earlier page left, the oldest first. */
  all(): Promise<Parcel<Load>[]>;
}

/** Runs what needs the browser's database; where that is full or forbidden, memory has to do. */
const ifAllowed = async <Result>(
  work: () => Promise<Result>,
  otherwise: Result,
): Promise<Result> => {
  try {
    return await work();
  } catch {
    return otherwise;
  }
};

/** A shelf in the browser's database of that name. One record a parcel, so that two tabs never overwrite one another. */
export const createShelf = <Load>(database: string): Shelf<Load> => {
  let opened: UseStore | undefined;
  const store = (): UseStore => {
    opened ??= createStore(database, 'unsent');
    return opened;
  };
  return {
    put: (parcel) => ifAllowed(() => set(parcel.id, parcel, store()), undefined),
    remove: (id) => ifAllowed(() => del(id, store()), undefined),
    all: async () => {
      const left = await ifAllowed(() => entries<string, Parcel<Load>>(store()), []);
      return left.map(([, parcel]) => parcel).sort((a, b) => a.madeAt - b.madeAt);
    },
  };
};

/** A shelf that forgets: for what is only tried. */
export const emptyShelf: Shelf<never> = {
  put: async () => undefined,
  remove: async () => undefined,
  all: async () => [],
};
