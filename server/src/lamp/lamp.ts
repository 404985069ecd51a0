import type { TeamLamp } from '@porch/contract/lamp';
import type { Stretch } from '@porch/contract/visitor';
import { timeOnDay } from '@porch/core/hours';
import type { Opening } from '@porch/core/hours/opening';
import {
  BACK_SOON_LONGEST_MS,
  BY_HAND_LONGEST_MS,
  byHours,
  inFrom,
  type LampSetting,
  type Light,
  lightOf,
  settingAt,
} from '@porch/core/lamp';
import type { Clock } from '../clock';
import type { HoursOf } from '../hours/hours';
import type { Change } from '../inbox/batch';
import type { Hub } from '../live/hub';
import type { PromisesKept } from '../promises/promises';
import { Refused } from '../refused';
import type { Store } from '../store';
import type { Here } from './here';

/** For so long it is said that what was set by hand has ended. */
const ENDED_SHOWN_MS = 15 * 60_000;

/** So many days ahead it is said when it is open, and so many spans at most. */
const OPENS_AHEAD_MS = 7 * 24 * 3_600_000;
const OPENS_MOST = 30;

const stretchesFrom = (opening: Opening, now: number): Stretch[] => {
  const stretches: Stretch[] = [];
  let at = opening.nextOpen(now);
  while (at !== null && at < now + OPENS_AHEAD_MS && stretches.length < OPENS_MOST) {
    const to = opening.nextChange(at);
    if (to === null) break;
    stretches.push([at, to]);
    at = opening.nextOpen(to);
  }
  return stretches;
};

/** Nobody tells a clock that was set by less from one that is slow. */
const JUMP_MS = 2_000;

/** The porch light: by the hours and who is in, or set by hand, ended by time, told to everybody at once. */
export const createLamp = (services: {
  store: Store;
  clock: Clock;
  hub: Hub;
  hours: HoursOf;
  here: Pick<Here, 'isHere'>;
  promises: Pick<PromisesKept, 'told'>;
  /** Whether a door says no more than when it is open while the light is not lit. */
  saysHours: (doorId: string) => boolean;
  /** After everybody was told something new. */
  toldAnew: () => void;
  change: Change;
}) => {
  const { store, clock, hub, hours, here, promises, saysHours, toldAnew, change } = services;
  const lastsUntil = (lamp: LampSetting): number =>
    lamp.until === null ? Number.POSITIVE_INFINITY : clock.steady() + lamp.until - clock.now();
  // "Back in an hour" lasts an hour, also where somebody sets the machine's clock back meanwhile.
  let until = lastsUntil(store.business.lamp());
  let ended: TeamLamp['ended'] = null;
  let asked: TeamLamp['ask'] = null;
  let told = '';

  const setting = (): LampSetting => {
    const kept = store.business.lamp();
    if (until <= clock.steady()) return byHours;
    const endsAt = clock.now() + until - clock.steady();
    const isMoved = kept.until !== null && Math.abs(endsAt - kept.until) >= JUMP_MS;
    // A length of time is as long whatever the machine's clock is set to; what is shown of its end follows that.
    if (kept.state === 'back-soon' && isMoved) return { ...kept, until: endsAt };
    return settingAt(kept, clock.now());
  };

  /** Who answers at a door; null: in the house. */
  const peopleAt = (doorId: string | null) => {
    const memberIds = doorId === null ? null : (store.doors.byId(doorId)?.memberIds ?? null);
    return store.members
      .all()
      .filter(({ id, hasLeft }) => !hasLeft && (memberIds?.includes(id) ?? true));
  };

  const lightAt = (doorId: string | null) => {
    const now = clock.now();
    const people = peopleAt(doorId);
    const outs = people.map(({ out }) => out);
    const means = {
      setting: setting(),
      opening: hours.opening(doorId),
      hasHours: hours.isSet(doorId),
      inFrom: inFrom(outs, now),
      isHere: people.some(({ id, out }) => out === null && here.isHere(id, doorId)),
    };
    return lightOf(means, now);
  };

  const atDoor = (doorId: string): Light => {
    const { state, until: when } = lightAt(doorId);
    return { state, until: when };
  };

  const forTeam = (): TeamLamp => {
    const now = clock.now();
    const hasHours = hours.isSet();
    const opening = hours.opening();
    const isOpen = hasHours && opening.isOpen(now);
    const shuts = isOpen ? opening.nextChange(now) : now;
    const tomorrow = timeOnDay(now, hours.zone(), 1, 0);
    const isFresh = ended !== null && now - ended.at < ENDED_SHOWN_MS;
    return {
      ...lightAt(null),
      setting: setting(),
      hasHours,
      isOpen,
      shutsNext: isOpen ? shuts : null,
      opensNext: shuts === null || !hasHours ? null : opening.nextOpen(shuts),
      opensTomorrow: hasHours ? opening.nextOpen(tomorrow) : null,
      ask: asked,
      ended: isFresh ? ended : null,
    };
  };

  /** When a door is open in the days that come, where it says no more than that. */
  const opensAt = (doorId: string): Stretch[] =>
    saysHours(doorId) ? stretchesFrom(hours.opening(doorId), clock.now()) : [];

  /** Since when each door's light is out: for as long it says one thing to one person. */
  const noteLights = (doors: readonly (readonly [string, Light])[]): void =>
    store.atOnce(() => {
      for (const [id, { state }] of doors) {
        if (state === 'lit') store.lights.isLit(id);
        else store.lights.goesOut(id, clock.now());
      }
    });

  /** Tells everybody what the light shows, where that is another than what was told. */
  const tell = (): void => {
    const lamp = forTeam();
    const doors = store.doors.all().map(({ id }) => [id, atDoor(id)] as const);
    const text = JSON.stringify([lamp, doors, promises.told() === null]);
    if (text === told) return;
    told = text;
    // Told first: where nothing can be written it is so all the same.
    hub.tellLamp(lamp, atDoor, promises.told(), opensAt, clock.now());
    noteLights(doors);
    toldAnew();
  };

  const checked = (lamp: LampSetting): void => {
    if (lamp.until === null) return;
    const aheadMs = lamp.until - clock.now();
    const limit = lamp.state === 'back-soon' ? BACK_SOON_LONGEST_MS : BY_HAND_LONGEST_MS;
    if (aheadMs <= 0) throw new Refused('time-not-ahead', { field: 'until' });
    if (aheadMs > limit) throw new Refused('bad-request', { field: 'until', limit });
  };

  const write = (lamp: LampSetting): void => {
    store.business.setLamp(lamp, clock.now());
    until = lastsUntil(lamp);
  };

  return {
    atDoor,
    /** Why the light of a door shows what it does. */
    whyAt: (doorId: string) => lightAt(doorId).why,
    opensAt,
    /** Since when the light of a door is out; now, where it has just gone out or is lit. */
    notLitSince: (doorId: string): number => store.lights.outSince(doorId) ?? clock.now(),
    forTeam,
    tell,
    /** Sets it without telling anybody yet, inside a transaction. */
    turn: write,
    /** What the team is asked about; null: nothing. */
    asked: (): TeamLamp['ask'] => asked,
    ask: (about: TeamLamp['ask']): void => {
      asked = about;
      tell();
    },
    set: (lamp: LampSetting): TeamLamp => {
      checked(lamp);
      write(lamp);
      ended = null;
      asked = null;
      tell();
      return forTeam();
    },
    /** What was set by hand ends when its time has come, the hours open and shut, and people come back. */
    tick: (): void => {
      const { state } = store.business.lamp();
      if (state !== 'by-hours' && setting().state === 'by-hours') {
        write(byHours);
        ended = { state, at: clock.now() };
      }
      const back = store.members.all().filter(({ out }) => out?.until && out.until <= clock.now());
      const letIn = (): void => {
        for (const { id } of back) store.members.setOut(id, null);
      };
      if (back.length > 0) change(letIn);
      tell();
    },
  };
};

export type Lamp = ReturnType<typeof createLamp>;
