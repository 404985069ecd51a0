import { BACK_SOON_LONGEST_MS, type LampSetting, lampAt, lit } from '@porch/core/lamp';
import type { Clock } from '../clock';
import type { Hub } from '../live/hub';
import { Refused } from '../refused';
import type { Store } from '../store';

/** The porch light: set by hand, ended by time, told to everybody at once. */
export const createLamp = (services: { store: Store; clock: Clock; hub: Hub }) => {
  const { store, clock, hub } = services;
  const lastsUntil = (lamp: LampSetting): number =>
    lamp.until === null ? Number.POSITIVE_INFINITY : clock.steady() + lamp.until - clock.now();
  // "Back in an hour" lasts an hour, also where somebody sets the machine's clock back meanwhile.
  let until = lastsUntil(store.business.lamp());

  const now = (): LampSetting =>
    until <= clock.steady() ? lit : lampAt(store.business.lamp(), clock.now());

  const set = (lamp: LampSetting): LampSetting => {
    if (lamp.state === 'back-soon') {
      const aheadMs = lamp.until - clock.now();
      if (aheadMs <= 0) throw new Refused('time-not-ahead', { field: 'until' });
      if (aheadMs > BACK_SOON_LONGEST_MS) {
        throw new Refused('bad-request', { field: 'until', limit: BACK_SOON_LONGEST_MS });
      }
    }
    store.business.setLamp(lamp, clock.now());
    until = lastsUntil(lamp);
    hub.tellLamp(lamp, clock.now());
    return lamp;
  };
  return {
    now,
    set,
    /** Lights the lamp again when "back soon" has run out. */
    tick: (): void => {
      if (store.business.lamp().state !== now().state) set(lit);
    },
  };
};

export type Lamp = ReturnType<typeof createLamp>;
