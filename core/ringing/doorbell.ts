import { minuteOfDay } from '../hours';

/** Why a doorbell may ring. */
export const causes = [
  /** Somebody began to wait. */
  'first',
  /** Somebody who waits already wrote again. */
  'more',
  /** Somebody's patience runs low. */
  'low',
  /** Nobody has looked yet. */
  'again',
  /** Nobody has looked yet, and whoever was rung first did not come. */
  'others',
  /** Something was left while the porch light was not lit. */
  'note',
  /** Something is owed, and its time has come. */
  'owed',
  /** A network will soon let somebody be answered no more, and they are still owed an answer. */
  'window',
  /** Somebody is on a page that was chosen. */
  'landed',
  /** Somebody who has written before is back on the website. */
  'back',
] as const;
export type Cause = (typeof causes)[number];

/** Which messages ring: each of them; the first of each wait; or only when patience runs low. */
export const messageChoices = ['every', 'first', 'low'] as const;
export type MessageChoice = (typeof messageChoices)[number];

/** What may ring through quiet hours. */
export const quietChoices = ['nothing', 'low', 'first'] as const;
export type QuietChoice = (typeof quietChoices)[number];

export const sounds = ['two-notes', 'wooden-knock', 'small-bell'] as const;
export type Sound = (typeof sounds)[number];

/** What the buttons of an alert can do. */
export const alertDeeds = ['open', 'short-reply', 'back-soon', 'put-by'] as const;
export type AlertDeed = (typeof alertDeeds)[number];

export interface QuietHours {
  isOn: boolean;
  /** Minutes of the day, 0 to 1439, by the clocks of `zone`; from after to: past midnight. The same: the whole day. */
  from: number;
  to: number;
  /** IANA; one's own, which need not be the business's. */
  zone: string;
  mayRing: QuietChoice;
}

/** How somebody of the team wants to be rung. */
export interface Doorbell {
  /** Ids of the doors that ring; null: each that concerns them. */
  doorIds: string[] | null;
  messages: MessageChoice;
  /** Also what is left while the porch light is not lit. */
  notes: boolean;
  /** Paths of the website: whoever lands there rings. "/delivery", or "/plants/" and a star for all below it. */
  pages: string[];
  /** Whoever has written before and is back on the website rings. */
  comesBack: boolean;
  quiet: QuietHours;
  sound: Sound | null;
  vibrates: boolean;
  /** Keeps what was said off the lock screen. */
  hidesWords: boolean;
  buttons: [AlertDeed, AlertDeed];
  /** What the button for a short reply says. */
  shortReply: string;
}

export const PAGES_MOST = 20;
export const PAGE_PATH_LONGEST = 200;
export const SHORT_REPLY_LONGEST = 140;

/** As a doorbell is until somebody says otherwise, for somebody who lives in a zone. */
export const plainDoorbell = (zone: string): Doorbell => ({
  doorIds: null,
  messages: 'every',
  notes: true,
  pages: [],
  comesBack: false,
  quiet: { isOn: false, from: 22 * 60, to: 7 * 60, zone, mayRing: 'nothing' },
  sound: 'two-notes',
  vibrates: true,
  hidesWords: false,
  buttons: ['open', 'back-soon'],
  shortReply: '',
});

/**
 * Whether somebody's quiet hours are on at a moment. By the clocks of their zone: an hour that clocks repeat in
 * autumn is quiet twice, one that they skip in spring never comes.
 */
export const isQuiet = ({ isOn, from, to, zone }: QuietHours, now: number): boolean => {
  if (!isOn) return false;
  const minute = minuteOfDay(now, zone);
  if (from === to) return true;
  return from < to ? minute >= from && minute < to : minute >= from || minute < to;
};

const wantsMessage: Record<MessageChoice, ReadonlySet<Cause>> = {
  every: new Set<Cause>(['first', 'more', 'low', 'again', 'others']),
  first: new Set<Cause>(['first', 'low', 'again', 'others']),
  low: new Set<Cause>(['low']),
};

const wantsInQuiet: Record<QuietChoice, ReadonlySet<Cause>> = {
  nothing: new Set<Cause>(),
  low: new Set<Cause>(['low']),
  first: new Set<Cause>(['first', 'low']),
};

/** "/plants/*" holds "/plants/fern" and "/plants"; any other pattern only itself, a slash at the end apart. */
export const isOnPage = (pattern: string, path: string): boolean => {
  const bare = (text: string): string => text.replace(/\/+$/, '') || '/';
  if (!pattern.endsWith('/*')) return bare(pattern) === bare(path);
  const above = bare(pattern.slice(0, -2));
  return bare(path) === above || path.startsWith(above === '/' ? '/' : `${above}/`);
};

/** What may ring: why, at which door, and on which page of the website where that is the reason. */
export interface Occasion {
  cause: Cause;
  doorId: string;
  path?: string;
}

const wants = (bell: Doorbell, { cause, path }: Occasion): boolean => {
  switch (cause) {
    case 'note':
      return bell.notes;
    case 'owed':
    case 'window':
      return true;
    case 'landed':
      return path !== undefined && bell.pages.some((pattern) => isOnPage(pattern, path));
    case 'back':
      return bell.comesBack;
    default:
      return wantsMessage[bell.messages].has(cause);
  }
};

/** Whether a doorbell rings for an occasion at `now`. Mutes of single devices are not looked at here. */
export const rings = (bell: Doorbell, occasion: Occasion, now: number): boolean => {
  if (bell.doorIds && !bell.doorIds.includes(occasion.doorId)) return false;
  if (!wants(bell, occasion)) return false;
  return !isQuiet(bell.quiet, now) || wantsInQuiet[bell.quiet.mayRing].has(occasion.cause);
};
