import { Refused } from '../refused';
import { addressKey } from './addresses';

/** When it is worth trying again: others may have left by then. */
const TRY_AGAIN_MS = 30_000;

/** How many lasting connections (sockets, plates that follow the lamp) an address holds open. */
export const createConnections = (most: number) => {
  const open = new Map<string, number>();
  const openOf = (address: string): number => open.get(addressKey(address)) ?? 0;
  return {
    open: openOf,
    refuseIfTooMany: (address: string): void => {
      if (openOf(address) >= most) {
        throw new Refused('too-many', { waitMs: TRY_AGAIN_MS });
      }
    },
    /** Counts one; gives what counts it off again, once. */
    add: (address: string): (() => void) => {
      const key = addressKey(address);
      let isOpen = true;
      open.set(key, (open.get(key) ?? 0) + 1);
      return () => {
        if (!isOpen) return;
        isOpen = false;
        const left = (open.get(key) ?? 1) - 1;
        if (left > 0) open.set(key, left);
        else open.delete(key);
      };
    },
  };
};

export type Connections = ReturnType<typeof createConnections>;
