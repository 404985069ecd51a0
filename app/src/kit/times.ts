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

const manners = {
  clock: { hour: '2-digit', minute: '2-digit' },
  weekday: { weekday: 'short' },
  date: { day: 'numeric', month: 'short' },
  dateAndYear: { day: 'numeric', month: 'short', year: 'numeric' },
  exactly: { dateStyle: 'full', timeStyle: 'short' },
  day: { weekday: 'long', day: 'numeric', month: 'long' },
} satisfies Record<string, Intl.DateTimeFormatOptions>;

/** Each is dear to make and cheap to use, and every row on the screen uses some every second. */
const formats = new Map<string, Intl.DateTimeFormat>();

const formatOf = (
  locale: string,
  zone: string,
  key: string,
  options: Intl.DateTimeFormatOptions,
): Intl.DateTimeFormat => {
  const name = `${locale} ${zone} ${key}`;
  const known = formats.get(name);
  if (known) return known;
  const made = new Intl.DateTimeFormat(locale, { timeZone: zone, ...options });
  formats.set(name, made);
  return made;
};

const told = (at: number, zone: string, manner: keyof typeof manners): string =>
  formatOf(kitWords().locale, zone, manner, manners[manner]).format(at);

/** Sorts and compares: "2026-11-12" in every language. */
const dayKey = (at: number, zone: string): string => formatOf('en-CA', zone, 'key', {}).format(at);

/** "14:30" today, "Thu 09:00" within a week either way, "12 Nov" beyond that, "12 Nov 2025" in other years. */
export const momentInWords = (at: number, now: number, zone: string): string => {
  const [its, today] = [dayKey(at, zone), dayKey(now, zone)];
  if (its === today) return told(at, zone, 'clock');
  if (Math.abs(at - now) < 6 * DAY_MS) {
    return `${told(at, zone, 'weekday')} ${told(at, zone, 'clock')}`;
  }
  return told(at, zone, its.slice(0, 4) === today.slice(0, 4) ? 'date' : 'dateAndYear');
};

/** The whole moment, for whoever wants it exactly: "Thursday 12 November 2026 at 10:04". */
export const exactly = (at: number, zone: string): string => told(at, zone, 'exactly');

/** The day above a stretch of a roll: "Thursday 12 November". */
export const dayInWords = (at: number, zone: string): string => told(at, zone, 'day');
