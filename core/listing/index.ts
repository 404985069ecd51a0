import type { LampSetting, Light } from '../lamp';
import { BACK_SOON_LONGEST_MS, byHours } from '../lamp';

/** Whether a listing says that one can chat, and until when nobody is there; UTC epoch milliseconds. */
export interface Availability {
  isOn: boolean;
  /** Null: somebody is there. */
  awayUntil: number | null;
}

/** What a business's listing shows of it. */
export interface Listed extends Availability {
  /** As OpenStreetMap writes opening hours; '' for none. */
  hours: string;
}

export const listedFields = ['chat', 'away', 'hours'] as const;
export type ListedField = (typeof listedFields)[number];

/** What a listing is to say while the light shows this. */
export const availabilityOf = ({ state, until }: Light): Availability => {
  if (state === 'lit') return { isOn: true, awayUntil: null };
  return until === null ? { isOn: false, awayUntil: null } : { isOn: true, awayUntil: until };
};

/** A listing that says to be away until a time that has passed says that somebody is there. */
export const availabilityAt = ({ isOn, awayUntil }: Availability, now: number): Availability => ({
  isOn,
  awayUntil: isOn && awayUntil !== null && awayUntil > now ? awayUntil : null,
});

/** Listings tell time by the minute. */
const MINUTE_MS = 60_000;

const isSameTime = (one: number | null, other: number | null): boolean =>
  one === null || other === null ? one === other : Math.abs(one - other) < MINUTE_MS;

export const isSameAvailability = (one: Availability, other: Availability): boolean =>
  one.isOn === other.isOn && isSameTime(one.awayUntil, other.awayUntil);

/** In what two of them differ. */
export const differences = (ours: Listed, theirs: Listed): ListedField[] => [
  ...(ours.isOn === theirs.isOn ? [] : (['chat'] as const)),
  ...(isSameTime(ours.awayUntil, theirs.awayUntil) ? [] : (['away'] as const)),
  ...(ours.hours === theirs.hours ? [] : (['hours'] as const)),
];

/** What is to be done so that the light and a listing say the same. */
export interface Reconciling {
  /** The listing is told what the light and the hours are. */
  tells: boolean;
  /** The light follows the listing: somebody has changed it there. */
  follows: boolean;
  differed: ListedField[];
}

/**
 * Whoever has changed since they last agreed is followed; where both have, the light counts. Opening hours are ours: the
 * listing is always told. `agreed` null: they never have.
 */
export const reconcile = (
  agreed: Availability | null,
  ours: Listed,
  theirs: Listed,
): Reconciling => {
  const differed = differences(ours, theirs);
  const haveTheyChanged = agreed !== null && !isSameAvailability(agreed, theirs);
  const haveWeChanged = agreed === null || !isSameAvailability(agreed, ours);
  const follows = haveTheyChanged && !haveWeChanged && !isSameAvailability(ours, theirs);
  const tells = follows ? differed.includes('hours') : differed.length > 0;
  return { tells, follows, differed };
};

/** How the light is set that follows a listing. */
export const settingFor = (
  { isOn, awayUntil }: Availability,
  now: number,
  isOpen: boolean,
): LampSetting => {
  if (!isOn) return { state: 'dark', until: null };
  if (awayUntil === null) return isOpen ? byHours : { state: 'lit', until: null };
  const state = awayUntil - now <= BACK_SOON_LONGEST_MS ? 'back-soon' : 'dark';
  return { state, until: awayUntil };
};
