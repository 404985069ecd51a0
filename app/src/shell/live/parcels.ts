import type { HeldFile } from '@porch/client/files';
import type { Outcome } from '@porch/client/send-loop';
import { createShelf } from '@porch/client/shelf';
import { isWorthRetrying } from '@porch/contract/errors';
import type { Deed, DeedDone } from '@porch/contract/line';
import type { ShelfSaid } from '@porch/core/conversation';
import type { Parcel } from '@porch/core/send-queue';
import { api } from '../session/api';
import { ApiError } from '../session/refused';

/** Something to be done in a conversation; the deed's id is the parcel's. `shown`: what goes with it from the shelf. */
export type Load = { files: HeldFile[]; shown?: readonly ShelfSaid[] } & (Deed extends infer One
  ? One extends Deed
    ? Omit<One, 'id'>
    : never
  : never);

export type DeedParcel = Parcel<Load>;

/** What waits on this device: the app and its service worker take it from here, and put it here. */
export const unsent = createShelf<Load>('porch-outbox');

/** By which the browser wakes the service worker once there is signal, where it can. */
export const SYNC_TAG = 'outbox';

const send = async ({ id, lane, load }: DeedParcel): Promise<DeedDone> => {
  const { files, shown: _shown, ...deed } = load;
  for (const file of files) await api.upload(file.id, file.name, file.blob);
  return api.send<DeedDone>('POST', `/api/conversations/${lane}/deeds`, { ...deed, id });
};

/** Brings one parcel to the server, and never throws; twice is once there. */
export const deliver = async (
  parcel: DeedParcel,
  taken: (done: DeedDone) => void,
): Promise<Outcome> => {
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

/**
 * Sends what waits, each lane in its order, without the app. What is refused stays: the app says so when it is
 * open. Throws where some of it could not go out now, so that whoever woke us tries again.
 */
export const sendUnsent = async (): Promise<void> => {
  const held = new Set<string>();
  for (const parcel of await unsent.all()) {
    if (held.has(parcel.lane)) continue;
    const outcome = await deliver(parcel, () => undefined);
    if (outcome === 'arrived' || outcome === 'pointless') await unsent.remove(parcel.id);
    else held.add(parcel.lane);
    if (outcome === 'not-now') throw new Error('no signal');
  }
};
