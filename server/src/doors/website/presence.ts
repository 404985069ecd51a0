import type { Clock } from '../../clock';
import type { Hub } from '../../live/hub';
import { type Store, writerKey } from '../../store';
import type { Visiting, Visitor } from './visiting';

/** A visitor who goes from one page of the website to the next is away for a moment only. */
export const LEAVING_MS = 20_000;

/** Who is on a page with a panel: they come at once and leave after a moment's grace. */
export const createPresence = (services: {
  clock: Clock;
  store: Store;
  hub: Hub;
  visiting: Visiting;
}) => {
  const { clock, store, hub, visiting } = services;
  const leaving = new Map<string, { visitor: Visitor; since: number }>();

  const keyOf = ({ doorId, tokenHash }: Visitor): string =>
    writerKey({ doorId, address: tokenHash });

  const starts = (visitor: Visitor): void => {
    leaving.set(keyOf(visitor), { visitor, since: clock.steady() });
  };

  // Whoever was here when the server stopped has the same moment to come back.
  for (const { threads } of store.conversations.here()) {
    for (const { threadId, isHere } of threads) {
      const thread = isHere ? store.threads.byId(threadId) : null;
      if (thread) starts({ doorId: thread.doorId, tokenHash: thread.address });
    }
  }

  return {
    came: (visitor: Visitor): Promise<boolean> => {
      leaving.delete(keyOf(visitor));
      return visiting.presence(visitor, true);
    },
    left: (visitor: Visitor): void => {
      if (!hub.isHere(keyOf(visitor))) starts(visitor);
    },
    tick: async (): Promise<void> => {
      for (const [writer, { visitor, since }] of leaving) {
        if (clock.steady() - since < LEAVING_MS) continue;
        leaving.delete(writer);
        if (!hub.isHere(writer)) await visiting.presence(visitor, false);
      }
    },
  };
};

export type Presence = ReturnType<typeof createPresence>;
