/** The porch light: whether somebody is in. */
export type LampState = 'lit' | 'back-soon' | 'dark';

/** What somebody set by hand. `until` ends "back soon" by itself; UTC epoch milliseconds. */
export type LampSetting =
  | { state: 'lit'; until: null }
  | { state: 'back-soon'; until: number }
  | { state: 'dark'; until: null };

export const lit: LampSetting = { state: 'lit', until: null };

/** The longest that "back soon" may last: past a day it is not soon. */
export const BACK_SOON_LONGEST_MS = 24 * 3_600_000;

/** What the light shows at `now`: a "back soon" whose time has come is lit again. */
export const lampAt = (setting: LampSetting, now: number): LampSetting =>
  setting.state === 'back-soon' && setting.until <= now ? lit : setting;

/** Whether what a visitor writes at `now` is left as a note instead of being answered at once. */
export const takesNotes = (setting: LampSetting, now: number): boolean =>
  lampAt(setting, now).state !== 'lit';
