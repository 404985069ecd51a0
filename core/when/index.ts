const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;

/** How moments are told: as a locale writes them, and in which zone (absent: the device's). */
export interface Listener {
  locale: string;
  zone?: string;
}

/**
 * As which dates and times are written for whoever reads a language, where a business is: English as in its country, as
 * half of those who speak it write "2:30 PM" and "December 3". ("en", "US") → "en-US"; of English whose country is not
 * known the way of writing a time that nobody can misread, ("en", "") → "en-GB"; any other as it is, ("de", "US") → "de".
 */
export const localeOf = (language: string, country: string): string =>
  language === 'en' ? `en-${/^[A-Z]{2}$/.test(country) ? country : 'GB'}` : language;

/** How far a moment is ahead: "in 40 minutes", "in 14 hours", "in 3 days". Never less than a minute. */
export const aheadIn = (language: string, aheadMs: number): string => {
  const words = new Intl.RelativeTimeFormat(language, { numeric: 'always' });
  if (aheadMs < HOUR_MS) return words.format(Math.max(1, Math.ceil(aheadMs / MINUTE_MS)), 'minute');
  if (aheadMs < 2 * DAY_MS) return words.format(Math.round(aheadMs / HOUR_MS), 'hour');
  return words.format(Math.round(aheadMs / DAY_MS), 'day');
};

/** A moment as somebody elsewhere reads it: "14:00" on their day, "Thursday 09:00" within a week, with a date beyond. */
export const momentIn = ({ locale, zone }: Listener, at: number, now: number): string => {
  const timeZone = zone;
  const time = new Intl.DateTimeFormat(locale, { timeZone, timeStyle: 'short' }).format(at);
  const day = (moment: number): string =>
    new Intl.DateTimeFormat('en-CA', { timeZone }).format(moment);
  if (day(at) === day(now)) return time;
  const date: Intl.DateTimeFormatOptions =
    at - now < 6 * DAY_MS
      ? { weekday: 'long' }
      : { weekday: 'long', day: 'numeric', month: 'long' };
  return `${new Intl.DateTimeFormat(locale, { timeZone, ...date }).format(at)} ${time}`;
};

/** A length of time in whole units: 5 → "5 minutes", 120 → "2 hours", 2880 → "2 days". */
export const minutesIn = (language: string, minutes: number): string => {
  const [count, unit] =
    minutes < 60
      ? [minutes, 'minute']
      : minutes < 24 * 60
        ? [Math.round(minutes / 60), 'hour']
        : [Math.round(minutes / 24 / 60), 'day'];
  return new Intl.NumberFormat(language, { style: 'unit', unit, unitDisplay: 'long' }).format(
    count,
  );
};
