import { createSmallStore } from './small-store';

const store = createSmallStore<string>('porch-doorbell');
const ID = 'id';

/** By which id this device rings: the app writes it, its service worker reads it. Null: it does not ring. */
export const bellDeviceId = (): Promise<string | null> => store.get(ID);

export const keepBellDeviceId = (id: string): Promise<void> => store.set(ID, id);

export const forgetBellDeviceId = (): Promise<void> => store.drop(ID);
