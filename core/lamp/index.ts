import type { Opening } from '../hours/opening';

/** The porch light: whether somebody is in. */
export type LampState = 'lit' | 'back-soon' | 'dark';

/**
 * What somebody set by hand; by hours: nothing. `until` ends it by itself, UTC epoch milliseconds; null: it stays so
 * until somebody sets it otherwise.
 */
export type LampSetting =
  | { state: 'by-hours'; until: null }
  | { state: 'back-soon'; until: number }
  | { state: 'lit' | 'dark'; until: number | null };

export const byHours: LampSetting = { state: 'by-hours', until: null };

/** What the light shows. Lit: until when; otherwise: when somebody is back. Null: that is not known. */
export interface Light {
  state: LampState;
  until: number | null;
}

/** Why it shows that. */
export type LightReason = 'hours' | 'hand' | 'nobody-in' | 'nobody-here' | 'no-hours';

export const lit: Light = { state: 'lit', until: null };

/** The longest that "back soon" may last: past a day it is not soon. (A bare number: it weighs nothing in a page.) */
export const BACK_SOON_LONGEST_MS = 86_400_000;

/** The longest that a light may be set by hand to a time: 366 days. */
export const BY_HAND_LONGEST_MS = 31_622_400_000;

/** Of a setting whose time has come nothing is left. */
export const settingAt = (setting: LampSetting, now: number): LampSetting =>
  setting.until !== null && setting.until <= now ? byHours : setting;

/**
 * What a light that was told earlier shows at `now`, until a newer one is told: whoever said when they are back is
 * back, and whoever answered until a time does so no more.
 */
export const lampAt = (light: Light, now: number): Light => {
  if (light.until === null || light.until > now) return light;
  return { state: light.state === 'lit' ? 'dark' : 'lit', until: null };
};

/** Whether what a visitor writes at `now` is left as a note instead of being answered at once. */
export const takesNotes = (light: Light, now: number): boolean =>
  lampAt(light, now).state !== 'lit';

/** Until when somebody is out; null: until they say otherwise. */
export interface Out {
  until: number | null;
}

/** The first moment from `now` on at which one of them is in; null: not known. Nobody at all → null. */
export const inFrom = (outs: readonly (Out | null)[], now: number): number | null => {
  let first: number | null = null;
  for (const out of outs) {
    const from = out === null ? now : out.until;
    if (from !== null) first = Math.min(first ?? Number.POSITIVE_INFINITY, Math.max(now, from));
  }
  return first;
};

/**
 * What the light is reckoned from: the hours, what was set by hand, from when somebody is in, and whether one of them
 * can be seen to be here.
 */
export interface LightMeans {
  setting: LampSetting;
  opening: Opening;
  /** Without hours nobody has said when somebody answers: only a hand can light it. */
  hasHours: boolean;
  inFrom: number | null;
  isHere: boolean;
}

/**
 * What the light shows at `now`, and why. It is lit when it is open, somebody is in, and they are here. When somebody
 * comes who should be here is not known: no time is told then. A time that is told is one at which somebody is in by
 * what was said: "back at five" with closing at half past four is dark until the next opening.
 */
export const lightOf = (
  { setting, opening, hasHours, inFrom: somebodyFrom, isHere }: LightMeans,
  now: number,
): Light & { why: LightReason } => {
  const backFrom = (at: number): number | null =>
    somebodyFrom === null ? null : opening.nextOpen(Math.max(at, somebodyFrom));
  const dark = (at: number, why: LightReason) =>
    ({ state: 'dark', until: backFrom(at), why }) as const;
  const isOpen = opening.isOpen(now);
  const byHand = settingAt(setting, now);
  switch (byHand.state) {
    case 'dark':
      if (byHand.until === null) return { state: 'dark', until: null, why: 'hand' };
      return dark(byHand.until, 'hand');
    case 'back-soon': {
      if (!isOpen) return dark(byHand.until, 'hours');
      const back = backFrom(byHand.until);
      return back === byHand.until
        ? { state: 'back-soon', until: back, why: 'hand' }
        : dark(byHand.until, 'hand');
    }
    case 'lit':
      if (somebodyFrom !== now) return dark(now, 'nobody-in');
      if (!isHere) return { state: 'dark', until: null, why: 'nobody-here' };
      if (byHand.until !== null && hasHours && opening.isOpen(byHand.until)) {
        return { state: 'lit', until: opening.nextChange(byHand.until), why: 'hand' };
      }
      return { state: 'lit', until: byHand.until, why: 'hand' };
    case 'by-hours':
      if (!hasHours) return { state: 'dark', until: null, why: 'no-hours' };
      if (!isOpen) return dark(now, 'hours');
      if (somebodyFrom !== now) return dark(now, 'nobody-in');
      if (!isHere) return { state: 'dark', until: null, why: 'nobody-here' };
      return { state: 'lit', until: opening.nextChange(now), why: 'hours' };
  }
};
