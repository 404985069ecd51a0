import type { Parcel } from '@porch/core/send-queue';
import { createStore, del, entries, set, type UseStore } from 'idb-keyval';

/** A file that waits on this device. */
export interface HeldFile {
  id: string;
  name: string;
  type: string;
  sizeBytes: number;
  blob: Blob;
}

export type Load =
  | { do: 'say'; text: string; files: HeldFile[]; page: { url: string; title: string } | null }
  | ({ do: 'details' } & Given);

/** What a visitor says of themselves; `own` are answers to the door's own questions, by id. */
export interface Given {
  name?: string;
  email?: string;
  phone?: string;
  own?: Record<string, string>;
}

export type PanelParcel = Parcel<Load>;

/** Runs what needs the browser's database; where that is forbidden, memory has to do. */
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

/** Where unsent parcels outlive a reload. One record each, so that two tabs never overwrite one another. */
export const createShelf = (door: string) => {
  const store = (): UseStore => {
    opened ??= createStore(`porch-${door}`, 'unsent');
    return opened;
  };
  let opened: UseStore | undefined;
  return {
    put: (parcel: PanelParcel): Promise<void> =>
      ifAllowed(() => set(parcel.id, parcel, store()), undefined),
    remove: (id: string): Promise<void> => ifAllowed(() => del(id, store()), undefined),
    all: async (): Promise<PanelParcel[]> => {
      const kept = await ifAllowed(() => entries<string, PanelParcel>(store()), []);
      return kept.map(([, parcel]) => parcel).sort((a, b) => a.madeAt - b.madeAt);
    },
  };
};
