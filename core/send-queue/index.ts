/** What waits to be sent from this device, oldest first. Kept on the device until the server has it. */
export interface Parcel<Load> {
  /** Made here; the server takes the same id once. */
  id: string;
  /** Parcels of one lane leave in order; lanes do not wait for each other. */
  lane: string;
  load: Load;
  /** UTC epoch milliseconds, by this device's clock; for showing only. */
  madeAt: number;
  state: 'waiting' | 'sending' | 'failed';
  tries: number;
  /** Not before this time; 0 for at once. */
  notBefore: number;
  /** Why it failed: an error code of the contract. */
  reason: string | null;
}

export type Queue<Load> = readonly Parcel<Load>[];

export type QueueAction<Load> =
  | { do: 'add'; parcel: Pick<Parcel<Load>, 'id' | 'lane' | 'load' | 'madeAt'> }
  | { do: 'sending'; id: string }
  | { do: 'arrived'; id: string }
  | { do: 'not-now'; id: string; now: number }
  | { do: 'refused'; id: string; reason: string }
  | { do: 'retry'; id: string }
  | { do: 'drop'; id: string }
  | { do: 'connected' };

export const BACK_OFF_FIRST_MS = 1_000;
export const BACK_OFF_LONGEST_MS = 30_000;

/** How long to wait after the n-th failed try: doubles from one second up to half a minute. */
export const backOffMs = (tries: number): number =>
  Math.min(BACK_OFF_LONGEST_MS, BACK_OFF_FIRST_MS * 2 ** Math.max(0, tries - 1));

const change = <Load>(
  queue: Queue<Load>,
  id: string,
  to: (parcel: Parcel<Load>) => Partial<Parcel<Load>>,
): Queue<Load> => queue.map((parcel) => (parcel.id === id ? { ...parcel, ...to(parcel) } : parcel));

const without = <Load>(queue: Queue<Load>, id: string): Queue<Load> =>
  queue.filter((parcel) => parcel.id !== id);

const retried = <Load>(queue: Queue<Load>, id: string): Queue<Load> => {
  const parcel = queue.find((one) => one.id === id);
  if (!parcel) return queue;
  const again: Parcel<Load> = { ...parcel, state: 'waiting', tries: 0, notBefore: 0, reason: null };
  return [...without(queue, id), again];
};

/** The queue after an action. Adding an id twice is adding it once; unknown ids change nothing. */
export const step = <Load>(queue: Queue<Load>, action: QueueAction<Load>): Queue<Load> => {
  switch (action.do) {
    case 'add':
      if (queue.some((parcel) => parcel.id === action.parcel.id)) return queue;
      return [
        ...queue,
        { ...action.parcel, state: 'waiting', tries: 0, notBefore: 0, reason: null },
      ];
    case 'sending':
      return change(queue, action.id, () => ({ state: 'sending' }));
    case 'arrived':
    case 'drop':
      return without(queue, action.id);
    case 'not-now':
      return change(queue, action.id, (parcel) => ({
        state: 'waiting',
        tries: parcel.tries + 1,
        notBefore: action.now + backOffMs(parcel.tries + 1),
      }));
    case 'refused':
      return change(queue, action.id, () => ({ state: 'failed', reason: action.reason }));
    case 'retry':
      return retried(queue, action.id);
    case 'connected':
      return queue.map((parcel) =>
        parcel.state === 'failed' ? parcel : { ...parcel, state: 'waiting', notBefore: 0 },
      );
  }
};

/**
 * What may leave now: the first parcel of each lane in which nothing is on its way.
 * A refused parcel does not hold up those behind it; one that waits for a later try does, to keep the order.
 */
export const ready = <Load>(queue: Queue<Load>, now: number): Parcel<Load>[] => {
  const seen = new Set<string>();
  return queue.filter((parcel) => {
    if (parcel.state === 'failed' || seen.has(parcel.lane)) return false;
    seen.add(parcel.lane);
    return parcel.state === 'waiting' && parcel.notBefore <= now;
  });
};

/** When to look again, in UTC epoch milliseconds; null when nothing waits for a time. */
export const nextLookAt = <Load>(queue: Queue<Load>, now: number): number | null => {
  const times = queue
    .filter((parcel) => parcel.state === 'waiting' && parcel.notBefore > now)
    .map((parcel) => parcel.notBefore);
  return times.length > 0 ? Math.min(...times) : null;
};
