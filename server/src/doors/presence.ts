import type { Clock } from '../clock';
import type { Receive, Sender } from '../inbox/receive';
import type { Hub } from '../live/hub';
import type { Store } from '../store';

/** A visitor who goes from one page of the website to the next is away for a moment only. */
export const LEAVING_MS = 20_000;

/** Who is on a page with a panel: they come at once and leave after a moment's grace. */
export const createPresence = (services: {
  clock: Clock;
  store: Store;
  hub: Hub;
  receive: Receive;
}) => {
  const { clock, store, hub, receive } = services;
  const leaving = new Map<string, number>();
  // Whoever was here when the server stopped has the same moment to come back.
  for (const tokenHash of store.conversations.tokensHere()) leaving.set(tokenHash, clock.steady());

  const go = async (tokenHash: string): Promise<void> => {
    const visitor = store.visitors.byToken(tokenHash);
    if (visitor) await receive.presence({ doorId: visitor.doorId, tokenHash }, false);
  };

  return {
    came: (sender: Sender): Promise<boolean> => {
      leaving.delete(sender.tokenHash);
      return receive.presence(sender, true);
    },
    left: (tokenHash: string): void => {
      if (!hub.isHere(tokenHash)) leaving.set(tokenHash, clock.steady());
    },
    tick: async (): Promise<void> => {
      for (const [tokenHash, since] of leaving) {
        if (clock.steady() - since < LEAVING_MS) continue;
        leaving.delete(tokenHash);
        if (!hub.isHere(tokenHash)) await go(tokenHash);
      }
    },
  };
};

export type Presence = ReturnType<typeof createPresence>;
