import type { Refusal } from '@porch/contract/errors';
import {
  nextLookAt,
  type Parcel,
  type Queue,
  type QueueAction,
  ready,
} from '@porch/core/send-queue';
import { nanoid } from 'nanoid';
import type { Shelf } from '../shelf';

/** What became of an attempt: it is on the server's disk, may work later, is nobody's to do anew, or was refused. */
export type Outcome = 'arrived' | 'not-now' | 'pointless' | Refusal;

/** What the loop stands on. Whoever draws the queue holds it. */
export interface Sending<Load> {
  queue: () => Queue<Load>;
  change: (action: QueueAction<Load>) => void;
  /** Brings one parcel to the server, and never throws. */
  deliver: (parcel: Parcel<Load>) => Promise<Outcome>;
  /** Told before the queue changes. */
  refused: (parcel: Parcel<Load>, refusal: Refusal) => void;
  /** Whether anything may leave now. */
  mayLeave: () => boolean;
  shelf: Shelf<Load>;
  /** This device's clock, in UTC epoch milliseconds. */
  now: () => number;
}

/** However soon the next look is due: a clock that goes backwards must not make it a busy one. */
const LOOK_SOONEST_MS = 50;

/**
 * Sends what waits on a device: in order within a lane, each thing once under an id made here, kept over a
 * reload until the server has it.
 */
export const createSendLoop = <Load>(sending: Sending<Load>) => {
  let timer: ReturnType<typeof setTimeout> | undefined;

  /** Keeps what the queue now holds of a parcel, or no longer holds. */
  const keepParcel = (id: string): void => {
    const parcel = sending.queue().find((one) => one.id === id);
    void (parcel ? sending.shelf.put(parcel) : sending.shelf.remove(id));
  };

  const change = (action: QueueAction<Load>): void => {
    sending.change(action);
    if (action.do === 'add') keepParcel(action.parcel.id);
    else if ('id' in action) keepParcel(action.id);
  };

  const send = async (parcel: Parcel<Load>): Promise<void> => {
    const { id } = parcel;
    change({ do: 'sending', id });
    const outcome = await sending.deliver(parcel);
    if (outcome === 'arrived') change({ do: 'arrived', id });
    else if (outcome === 'not-now') change({ do: 'not-now', id, now: sending.now() });
    else if (outcome === 'pointless') change({ do: 'drop', id });
    else {
      sending.refused(parcel, outcome);
      change({ do: 'refused', id, reason: outcome.code });
    }
    pump();
  };

  const pump = (): void => {
    clearTimeout(timer);
    if (!sending.mayLeave()) return;
    for (const parcel of ready(sending.queue(), sending.now())) void send(parcel);
    const lookAt = nextLookAt(sending.queue(), sending.now());
    if (lookAt !== null) {
      timer = setTimeout(pump, Math.max(LOOK_SOONEST_MS, lookAt - sending.now()));
    }
  };

  return {
    /** Puts something last in its lane; gives the id under which it will be known for ever. */
    add: (lane: string, load: Load): string => {
      const id = nanoid();
      change({ do: 'add', parcel: { id, lane, load, madeAt: sending.now() } });
      pump();
      return id;
    },
    retry: (id: string): void => {
      change({ do: 'retry', id });
      pump();
    },
    drop: (id: string): void => change({ do: 'drop', id }),
    /** The server can be reached again: whatever waits may go. */
    connected: (): void => {
      change({ do: 'connected' });
      pump();
    },
    /** The server was heard to have these: they wait no longer. */
    settled: (ids: readonly string[]): void => {
      for (const id of ids) keepParcel(id);
    },
    /** Takes up what an earlier page left, and begins to send. */
    start: async (): Promise<void> => {
      for (const { id, lane, load, madeAt } of await sending.shelf.all()) {
        sending.change({ do: 'add', parcel: { id, lane, load, madeAt } });
      }
      pump();
    },
    stop: (): void => clearTimeout(timer),
  };
};

export type SendLoop<Load> = ReturnType<typeof createSendLoop<Load>>;
