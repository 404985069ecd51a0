import type { HeldFile } from '@porch/client/files';
import { createSendLoop, type Outcome } from '@porch/client/send-loop';
import { createShelf } from '@porch/client/shelf';
import { isWorthRetrying, type Refusal } from '@porch/contract/errors';
import type { Deed, DeedDone } from '@porch/contract/line';
import { type Parcel, type Queue, step } from '@porch/core/send-queue';
import { create } from 'zustand';
import { api } from '../session/api';
import { ApiError } from '../session/refused';

/** Something to be done in a conversation; the deed's id is the parcel's. */
type Load = { files: HeldFile[] } & (Deed extends infer One
  ? One extends Deed
    ? Omit<One, 'id'>
    : never
  : never);

export type DeedParcel = Parcel<Load>;

interface OutboxState {
  queue: Queue<Load>;
  refusals: Readonly<Record<string, Refusal>>;
}

/** What waits on this device to be sent, and why some of it was refused. */
export const useOutbox = create<OutboxState>(() => ({ queue: [], refusals: {} }));

let isOpen = false;
let taken: (done: DeedDone) => void = () => {};
let refused: (parcel: DeedParcel) => void = () => {};

const send = async ({ id, lane, load }: DeedParcel): Promise<DeedDone> => {
  const { files, ...deed } = load;
  for (const file of files) await api.upload(file.id, file.name, file.blob);
  return api.send<DeedDone>('POST', `/api/conversations/${lane}/deeds`, { ...deed, id });
};

const deliver = async (parcel: DeedParcel): Promise<Outcome> => {
  try {
    taken(await send(parcel));
    return 'arrived';
  } catch (error) {
    const isRefused = error instanceof ApiError && !isWorthRetrying(error.status);
    // Signed out meanwhile: it waits here until somebody signs in again.
    if (!isRefused || error.status === 401) return 'not-now';
    // That something was seen is nobody's to do anew.
    return parcel.load.do === 'read' ? 'pointless' : error.refusal;
  }
};

const loop = createSendLoop<Load>({
  queue: () => useOutbox.getState().queue,
  change: (action) => useOutbox.setState(({ queue }) => ({ queue: step(queue, action) })),
  deliver,
  refused: (parcel, refusal) => {
    useOutbox.setState(({ refusals }) => ({ refusals: { ...refusals, [parcel.id]: refusal } }));
    refused(parcel);
  },
  mayLeave: () => isOpen,
  shelf: createShelf('porch-outbox'),
  now: () => Date.now(),
});

/** What this device still has to send: kept over a reload, sent in order, each thing once. */
export const outbox = {
  add: loop.add,
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
