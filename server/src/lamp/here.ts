import { type Doorbell, rings } from '@porch/core/ringing';
import type { Clock } from '../clock';
import { isCannotWrite } from '../disk/disk';
import { lastDoorOf } from '../doors/called';
import type { Follow } from '../inbox/record';
import type { Hub } from '../live/hub';
import type { BellDeviceRecord, Store } from '../store';
import type { Unlooked } from './unlooked';

const MINUTE_MS = 60_000;

/** Somebody who goes on doing things is noted again after so long. */
const NOTED_EVERY_MS = 30_000;

/** A push service took the last ring for it, and nobody has put it on silent. */
const isProven = ({ isMuted, rungAt, failedAt }: BellDeviceRecord): boolean =>
  !isMuted && rungAt !== null && failedAt === null;

/**
 * Who of the team is here, as far as that was seen: they did something not long ago, or something of theirs would ring:
 * a device whose last ring was taken, or the app in sight. What rings counts no more for those who answer at a door
 * where somebody was kept waiting past their patience and nobody has looked, until somebody does: it has rung in an
 * empty room.
 */
export const createHere = (services: {
  store: Store;
  clock: Clock;
  hub: Pick<Hub, 'isInSight'>;
  unlooked: Unlooked;
  bellOf: (memberId: string) => Doorbell;
  /** For how long somebody counts as here after they did something. */
  minutes: () => number;
}) => {
  const { store, clock, hub, unlooked, bellOf, minutes } = services;
  /** Who was rung in vain; null: everybody. */
  let rungInVain: ReadonlySet<string> | null = new Set();
  /** By the clock that nobody sets, for whoever was noted since the start. */
  const notedAt = new Map<string, number>();
  /** What would ring is looked up once a second, not with every message. */
  const ringing = new Map<string, boolean>();

  const sinceMs = (memberId: string): number => {
    const steadyAt = notedAt.get(memberId);
    if (steadyAt !== undefined) return clock.steady() - steadyAt;
    const at = store.here.of(memberId);
    const passed = at === null ? Number.POSITIVE_INFINITY : clock.now() - at;
    // A moment that is still to come was noted by a clock that somebody has set back since.
    return passed < 0 ? Number.POSITIVE_INFINITY : passed;
  };

  const write = (memberId: string): void => {
    if (sinceMs(memberId) < NOTED_EVERY_MS) return;
    notedAt.set(memberId, clock.steady());
    store.here.note(memberId, clock.now());
  };

  const note = (memberId: string): void => {
    try {
      write(memberId);
    } catch (error) {
      // Whoever reads on a full disk is here all the same; what they do next is noted.
      if (!isCannotWrite(error)) throw error;
    }
  };

  const wouldRing = (memberId: string, doorId: string | null): boolean => {
    const bell = bellOf(memberId);
    const at = doorId ?? bell.doorIds?.[0] ?? '';
    return (
      rings(bell, { cause: 'first', doorId: at }, clock.now()) &&
      store.bellDevices.of(memberId).some(isProven)
    );
  };

  const rangFor = (memberId: string, doorId: string | null): boolean => {
    const key = `${memberId} ${doorId ?? ''}`;
    const is = ringing.get(key) ?? wouldRing(memberId, doorId);
    ringing.set(key, is);
    return is;
  };

  const isRungInVain = (memberId: string): boolean => rungInVain?.has(memberId) ?? true;

  /** Who answers where somebody waits whom nobody has looked at. */
  const findInVain = (): typeof rungInVain => {
    const found = new Set<string>();
    for (const conversation of unlooked.all()) {
      const memberIds = lastDoorOf(store, conversation)?.memberIds ?? null;
      if (memberIds === null) return null;
      for (const id of memberIds) found.add(id);
    }
    return found;
  };

  const follow: Follow = (_was, _now, entries) => {
    for (const entry of entries) {
      // An alert that went to somebody says nothing of where they are.
      // What cannot be written ends the transaction that it is written in.
      if (entry.kind !== 'rang' && 'memberId' in entry && entry.memberId) write(entry.memberId);
    }
    return [];
  };

  return {
    note,
    follow,
    /** Whether somebody is here for a door; null: for the house. */
    isHere: (memberId: string, doorId: string | null): boolean =>
      sinceMs(memberId) < minutes() * MINUTE_MS ||
      (!isRungInVain(memberId) && (hub.isInSight(memberId) || rangFor(memberId, doorId))),
    /** What rings for whom is another, perhaps. */
    forget: (): void => ringing.clear(),
    tick: (): void => {
      ringing.clear();
      rungInVain = findInVain();
    },
  };
};

export type Here = ReturnType<typeof createHere>;
