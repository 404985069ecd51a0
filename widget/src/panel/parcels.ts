import type { Parcel } from '@porch/core/send-queue';
import { createStore, del, entries, set } from 'idb-keyval';

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
  | { do: 'details'; name?: string; email?: string; phone?: string };

export type PanelParcel = Parcel<Load>;

/** Where unsent parcels outlive a reload. One record each, so that two tabs never overwrite one another. */
export const createShelf = (door: string) => {
  const store = (() => {
    try {
      return createStore(`porch-${door}`, 'unsent');
    } catch {
      return null;
    }
  })();
  return {
    put: async (parcel: PanelParcel): Promise<void> => {
      if (store) await set(parcel.id, parcel, store).catch(() => undefined);
    },
    remove: async (id: string): Promise<void> => {
      if (store) await del(id, store).catch(() => undefined);
    },
    all: async (): Promise<PanelParcel[]> => {
      if (!store) return [];
      const kept = await entries<string, PanelParcel>(store).catch(() => []);
      return kept.map(([, parcel]) => parcel).sort((a, b) => a.madeAt - b.madeAt);
    },
  };
};
