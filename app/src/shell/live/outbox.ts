import { createSendLoop } from '@porch/client/send-loop';
import type { Refusal } from '@porch/contract/errors';
import type { DeedDone } from '@porch/contract/line';
import { type Queue, step } from '@porch/core/send-queue';
import { create } from 'zustand';
import { type DeedParcel, deliver, type Load, SYNC_TAG, unsent } from './parcels';

export type { DeedParcel, Load } from './parcels';

interface OutboxState {
  queue: Queue<Load>;
  refusals: Readonly<Record<string, Refusal>>;
}

/** What waits on this device to be sent, and why some of it was refused. */
export const useOutbox = create<OutboxState>(() => ({ queue: [], refusals: {} }));

let isOpen = false;
let taken: (done: DeedDone) => void = () => {};
let refused: (parcel: DeedParcel) => void = () => {};

/** Background Synchronization is no standard, and not everywhere. */
type Waking = ServiceWorkerRegistration & { sync?: { register(tag: string): Promise<void> } };

/** Asks the browser to wake the service worker once there is signal: the app may be closed by then. */
const askToBeWoken = async (): Promise<void> => {
  const registration: Waking | undefined = await navigator.serviceWorker?.getRegistration();
  await registration?.sync?.register(SYNC_TAG);
};

const loop = createSendLoop<Load>({
  queue: () => useOutbox.getState().queue,
  change: (action) => useOutbox.setState(({ queue }) => ({ queue: step(queue, action) })),
  deliver: (parcel) => deliver(parcel, taken),
  refused: (parcel, refusal) => {
    useOutbox.setState(({ refusals }) => ({ refusals: { ...refusals, [parcel.id]: refusal } }));
    refused(parcel);
  },
  mayLeave: () => isOpen,
  shelf: unsent,
  now: () => Date.now(),
});

/** What this device still has to send: kept over a reload, sent in order, each thing once. */
export const outbox = {
  add: (lane: string, load: Load): string => {
    const id = loop.add(lane, load);
    askToBeWoken().catch(() => undefined);
    return id;
  },
  retry: loop.retry,
  drop: loop.drop,
  connected: loop.connected,
  count: (): number => useOutbox.getState().queue.length,
  /** Takes up what an earlier visit left, and begins to send. */
  start: async (
    onTaken: (done: DeedDone) => void,
    onRefused: (parcel: DeedParcel) => void,
  ): Promise<void> => {
    taken = onTaken;
    refused = onRefused;
    if (isOpen) return;
    isOpen = true;
    await loop.start();
  },
  stop: (): void => {
    isOpen = false;
    loop.stop();
  },
  /** Forgets what was never sent, on leaving this device. */
  clear: (): void => {
    for (const { id } of useOutbox.getState().queue) loop.drop(id);
  },
};
