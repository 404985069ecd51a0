import { isWorthRetrying, type Refusal } from '@porch/contract/errors';
import type { Deed, DeedDone } from '@porch/contract/team';
import {
  nextLookAt,
  type Parcel,
  type Queue,
  type QueueAction,
  ready,
  step,
} from '@porch/core/send-queue';
import { createStore, del, entries as kept, set as put } from 'idb-keyval';
import { nanoid } from 'nanoid';
import { useSyncExternalStore } from 'react';
import { ApiError, api } from './api';

/** A file that waits on this device. */
export interface HeldFile {
  id: string;
  name: string;
  type: string;
  sizeBytes: number;
  blob: Blob;
}

/** Something to be done in a conversation; the deed's id is the parcel's. */
export type Load = { files: HeldFile[] } & (Deed extends infer One
  ? One extends Deed
    ? Omit<One, 'id'>
    : never
  : never);

export type DeedParcel = Parcel<Load>;

interface OutboxState {
  queue: Queue<Load>;
  refusals: Readonly<Record<string, Refusal>>;
}

let state: OutboxState = { queue: [], refusals: {} };
let isOpen = false;
let timer: ReturnType<typeof setTimeout> | undefined;
let taken: (done: DeedDone) => void = () => {};
let refused: (parcel: DeedParcel) => void = () => {};
const watchers = new Set<() => void>();
const shelf = typeof indexedDB === 'undefined' ? null : createStore('porch-outbox', 'unsent');

const show = (): void => {
  for (const watcher of watchers) watcher();
};

/** One record for each parcel, so that two tabs never overwrite one another. */
const keepParcel = async (id: string): Promise<void> => {
  const parcel = state.queue.find((one) => one.id === id);
  try {
    if (shelf) await (parcel ? put(id, parcel, shelf) : del(id, shelf));
  } catch {
    // A full or forbidden database: it is sent all the same, but not kept over a reload.
  }
};

const leftFromBefore = async (): Promise<DeedParcel[]> => {
  try {
    const left = shelf ? await kept<string, DeedParcel>(shelf) : [];
    return left.map(([, parcel]) => parcel).sort((a, b) => a.madeAt - b.madeAt);
  } catch {
    return [];
  }
};

const change = (action: QueueAction<Load>): void => {
  state = { ...state, queue: step(state.queue, action) };
  if (action.do === 'add') void keepParcel(action.parcel.id);
  else if ('id' in action) void keepParcel(action.id);
  show();
};

const send = async ({ id, lane, load }: DeedParcel): Promise<DeedDone> => {
  const { files, ...deed } = load;
  for (const file of files) await api.upload(file.id, file.name, file.blob);
  return api.send<DeedDone>('POST', `/api/conversations/${lane}/deeds`, { ...deed, id });
};

const deliver = async (parcel: DeedParcel): Promise<void> => {
  change({ do: 'sending', id: parcel.id });
  try {
    taken(await send(parcel));
    change({ do: 'arrived', id: parcel.id });
  } catch (error) {
    failed(parcel, error);
  }
  pump();
};

const failed = (parcel: DeedParcel, error: unknown): void => {
  const { id } = parcel;
  const isRefused = error instanceof ApiError && !isWorthRetrying(error.status);
  // Signed out meanwhile: it waits here until somebody signs in again.
  const isSignedOut = error instanceof ApiError && error.status === 401;
  if (!isRefused || isSignedOut) {
    change({ do: 'not-now', id, now: Date.now() });
    return;
  }
  // That something was seen is nobody's to do anew.
  if (parcel.load.do === 'read') {
    change({ do: 'drop', id });
    return;
  }
  const { refusal } = error;
  state = { ...state, refusals: { ...state.refusals, [id]: refusal } };
  change({ do: 'refused', id, reason: refusal.code });
  refused(parcel);
};

const pump = (): void => {
  clearTimeout(timer);
  if (!isOpen) return;
  for (const parcel of ready(state.queue, Date.now())) void deliver(parcel);
  const lookAt = nextLookAt(state.queue, Date.now());
  if (lookAt !== null) timer = setTimeout(pump, Math.max(50, lookAt - Date.now()));
};

/** What this device still has to send: kept over a reload, sent in order, each thing once. */
export const outbox = {
  add: (conversationId: string, load: Load): string => {
    const id = nanoid();
    change({ do: 'add', parcel: { id, lane: conversationId, load, madeAt: Date.now() } });
    pump();
    return id;
  },
  retry: (id: string): void => {
    change({ do: 'retry', id });
    pump();
  },
  drop: (id: string): void => change({ do: 'drop', id }),
  count: (): number => state.queue.length,
  /** The line to the server is there: whatever waits may go. */
  lineBack: (): void => {
    change({ do: 'line-back' });
    pump();
  },
  /** Takes up what an earlier visit left, and begins to send. */
  start: async (
    onTaken: (done: DeedDone) => void,
    onRefused: (parcel: DeedParcel) => void,
  ): Promise<void> => {
    taken = onTaken;
    refused = onRefused;
    if (isOpen) return;
    isOpen = true;
    const parcels = await leftFromBefore();
    for (const { id, lane, load, madeAt } of parcels) {
      change({ do: 'add', parcel: { id, lane, load, madeAt } });
    }
    pump();
  },
  stop: (): void => {
    isOpen = false;
    clearTimeout(timer);
  },
  /** Forgets what was never sent, on leaving this device. */
  clear: (): void => {
    for (const { id } of state.queue) change({ do: 'drop', id });
  },
};

const subscribe = (watcher: () => void): (() => void) => {
  watchers.add(watcher);
  return () => watchers.delete(watcher);
};

export const useOutbox = (): OutboxState =>
  useSyncExternalStore(
    subscribe,
    () => state,
    () => state,
  );
