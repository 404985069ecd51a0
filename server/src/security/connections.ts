import type { Server } from 'node:net';
import { Refused } from '../refused';
import { addressKey } from './addresses';

/** When it is worth trying again: others may have left by then. */
const TRY_AGAIN_MS = 30_000;

/** How many lasting connections (sockets, plates that follow the lamp) an address holds open. */
export const createConnections = (most: number) => {
  const open = new Map<string, number>();
  const openOf = (address: string): number => open.get(addressKey(address)) ?? 0;
  const isFull = (address: string): boolean => openOf(address) >= most;
  return {
    open: openOf,
    isFull,
    refuseIfTooMany: (address: string): void => {
      if (isFull(address)) throw new Refused('too-many', { waitMs: TRY_AGAIN_MS });
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

/** Of whatever connects at all, also of what has asked for nothing yet: twice what may last. */
const CONNECTED_FOR_LASTING = 2;

/**
 * Cuts off what an address connects beyond what is any use to it, before a byte of it is read.
 * Only where nobody stands between: behind a proxy every connection is the proxy's.
 */
export const boundConnected = (server: Server, mostLasting: number): void => {
  const connected = createConnections(mostLasting * CONNECTED_FOR_LASTING);
  server.on('connection', (socket) => {
    const address = socket.remoteAddress ?? '';
    if (connected.isFull(address)) {
      socket.destroy();
      return;
    }
    socket.once('close', connected.add(address));
  });
};
