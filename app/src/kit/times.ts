import { kitWords } from './words';

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;

/** A length of time as people say it: 42_000 → "42 s", 4 minutes → "4 min", then hours and days. */
export const spanInWords = (ms: number): string => {
  const length = Math.abs(ms);
  const { spans } = kitWords();
  if (length < MINUTE_MS) return spans.seconds(Math.max(1, Math.floor(length / 1_000)));
  if (length < HOUR_MS) return spans.minutes(Math.floor(length / MINUTE_MS));
  if (length < DAY_MS) return spans.hours(Math.floor(length / HOUR_MS));
  return spans.days(Math.floor(length / DAY_MS));
};

const clock = (zone: string) =>
  new Intl.DateTimeFormat(kitWords().locale, {
    timeZone: zone,
    hour: '2-digit',
    minute: '2-digit',
  });

const dayKey = (at: number, zone: string): string =>
  new Intl.DateTimeFormat('en-CA', { timeZone: zone }).format(at);

/** "14:30" today, "Thu 09:00" within a week either way, "12 Nov" beyond that, "12 Nov 2025" in other years. */
export const momentInWords = (at: number, now: number, zone: string): string => {
  if (dayKey(at, zone) === dayKey(now, zone)) return clock(zone).format(at);
  if (Math.abs(at - now) < 6 * DAY_MS) {
    const weekday = new Intl.DateTimeFormat(kitWords().locale, {
      timeZone: zone,
      weekday: 'short',
    });
    return `${weekday.format(at)} ${clock(zone).format(at)}`;
  }
  const isSameYear = dayKey(at, zone).slice(0, 4) === dayKey(now, zone).slice(0, 4);
  const date: Intl.DateTimeFormatOptions = { timeZone: zone, day: 'numeric', month: 'short' };
  return new Intl.DateTimeFormat(
    kitWords().locale,
    isSameYear ? date : { ...date, year: 'numeric' },
  ).format(at);
};

/** The whole moment, for whoever wants it exactly: "Thursday 12 November 2026 at 10:04". */
export const exactly = (at: number, zone: string): string =>
  new Intl.DateTimeFormat(kitWords().locale, {
    timeZone: zone,
    dateStyle: 'full',
    timeStyle: 'short',
  }).format(at);

/** The day above a stretch of a roll: "Thursday 12 November". */
export const dayInWords = (at: number, zone: string): string =>
  new Intl.DateTimeFormat(kitWords().locale, {
    timeZone: zone,
    weekday: 'long',
    day: 'numeric',
    month: 'long',
  }).format(at);
