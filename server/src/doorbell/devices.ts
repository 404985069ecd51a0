import {
  BELL_DEVICES_MOST,
  type BellDevice,
  type NewBellDevice,
  type TrialRing,
} from '@porch/contract/doorbell';
import type { TrialLoad } from '@porch/core/ringing';
import type { Asking } from '../accounts/accounts';
import { requiredLine } from '../accounts/accounts';
import type { Clock } from '../clock';
import type { Change } from '../inbox/batch';
import { Refused } from '../refused';
import { newId } from '../security/tokens';
import type { BellDeviceRecord, Store } from '../store';
import { refuseBadSubscription } from './endpoints';
import type { PushJob, Ringing } from './ringing';
import type { Trials } from './trials';

export const toBellDevice = ({
  id,
  name,
  isMuted,
  addedAt,
  rungAt,
  failedAt,
  why,
}: BellDeviceRecord): BellDevice => ({ id, name, isMuted, addedAt, rungAt, failedAt, why });

/** The devices that ring: each belongs to somebody, and nobody else sees or changes it. */
export const createBellDevices = (services: {
  store: Store;
  clock: Clock;
  change: Change;
  ringing: Ringing;
  trials: Trials;
  /** Origins that pushes may go to though they are not on the open internet. */
  allowed: readonly string[];
}) => {
  const { store, clock, change, ringing, trials, allowed } = services;

  const mine = (id: string, memberId: string): BellDeviceRecord => {
    const device = store.bellDevices.byId(id);
    if (device?.memberId !== memberId) throw new Refused('not-found');
    return device;
  };

  return {
    of: (memberId: string): BellDevice[] => store.bellDevices.of(memberId).map(toBellDevice),

    /** Adds the device that asks, under an id that it has made; or says anew how it is reached. */
    put: (
      id: string,
      { name, subscription }: NewBellDevice,
      { me, sessionHash }: Asking,
    ): BellDevice => {
      refuseBadSubscription(subscription, allowed);
      const called = requiredLine(name, 'name');
      const { endpoint, keys } = subscription;
      return change(() => {
        const known = store.bellDevices.byId(id);
        if (known && known.memberId !== me.id) throw new Refused('id-taken');
        // The same browser, signed in as somebody else or under another id: it is one device all the same.
        const before = store.bellDevices.byEndpoint(endpoint);
        if (before && before.id !== id) store.bellDevices.drop(before.id);
        if (!known && store.bellDevices.of(me.id).length >= BELL_DEVICES_MOST) {
          throw new Refused('too-many-of-these', { limit: BELL_DEVICES_MOST });
        }
        const where = { endpoint, p256dh: keys.p256dh, auth: keys.auth };
        const addedAt = known?.addedAt ?? clock.now();
        store.bellDevices.put({
          id,
          memberId: me.id,
          sessionHash,
          ...where,
          name: called,
          addedAt,
        });
        const device = store.bellDevices.byId(id);
        if (!device) throw new Refused('not-found');
        return toBellDevice(device);
      });
    },

    mute: (id: string, isMuted: boolean, memberId: string): void =>
      change(() => store.bellDevices.mute(mine(id, memberId).id, isMuted)),

    remove: (id: string, memberId: string): void =>
      change(() => store.bellDevices.drop(mine(id, memberId).id)),

    /** Sends a real ring to a device, so that its owner sees whether it comes. */
    tryOut: (id: string, memberId: string): TrialRing => {
      const device = mine(id, memberId);
      const { sound, vibrates } = ringing.bellOf(memberId);
      const ring = newId();
      const load: TrialLoad = { say: 'trial', ring, sound, vibrates };
      const trial = trials.begin(device.id, ring);
      const job: PushJob = { deviceId: id, memberId, talk: null, isOfRound: false, load };
      const key = `push ${ring} ${memberId} ${id}`;
      change(() =>
        store.jobs.add({ key, kind: 'push', load: job, notBefore: clock.now() }, clock.now()),
      );
      return trial;
    },

    trialOf: (id: string, memberId: string): TrialRing | null => trials.of(mine(id, memberId).id),

    arrived: (id: string, ring: string, memberId: string): void => {
      if (!trials.arrived(mine(id, memberId).id, ring)) throw new Refused('not-found');
    },
  };
};

export type BellDevices = ReturnType<typeof createBellDevices>;
