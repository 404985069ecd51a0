import type { Device, Hub } from '../live/hub';
import type { Pairings } from '../pairing/pairing';
import type { Store } from '../store';

/** Who is to be signed out: one session, or all of a member but perhaps the one that asks for it. */
export type Ending = { sessionHash: string } | { memberId: string; keptHash: string | null };

const isMeant = (ending: Ending, device: Pick<Device, 'memberId' | 'sessionHash'>): boolean =>
  'sessionHash' in ending
    ? device.sessionHash === ending.sessionHash
    : device.memberId === ending.memberId && device.sessionHash !== ending.keptHash;

/**
 * Wherever sessions end, everything ends that could become one again: a phone's codes, links that
 * were made by or for the member, devices that were trusted, calendars read by a secret address, and the sockets that
 * are open.
 */
export const createEndings = (services: { store: Store; hub: Hub; pairings: Pairings }) => {
  const { store, hub, pairings } = services;
  return {
    /** What is on disk; call it in the transaction that is the reason. */
    write: (ending: Ending): void => {
      if ('sessionHash' in ending) {
        store.sessions.end(ending.sessionHash);
        return;
      }
      const { memberId, keptHash } = ending;
      if (keptHash === null) store.sessions.endAllOf(memberId);
      else store.sessions.endOthersOf(memberId, keptHash);
      store.links.dropFor(memberId);
      store.links.dropMadeBy(memberId);
      store.knownDevices.dropAllOf(memberId);
      // Whoever reads along by a secret address does so no longer.
      store.feeds.drop(memberId);
    },
    /** What is in memory; call it once that transaction is through. */
    tell: (ending: Ending): void => {
      pairings.end((one) =>
        'sessionHash' in ending
          ? one.sessionHash === ending.sessionHash
          : one.memberId === ending.memberId,
      );
      hub.closeTeam((device) => isMeant(ending, device));
    },
  };
};

export type Endings = ReturnType<typeof createEndings>;
