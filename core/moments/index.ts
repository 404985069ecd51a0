import { dayOf, momentTyped } from '../hours';

/** The words of one language for days and lengths of time, in lower case. */
export interface DayWords {
  today: string;
  tomorrow: string;
  /** From Sunday on. */
  weekdays: readonly string[];
  /** From January on. */
  months: readonly string[];
  /** "in", as in "in two weeks". */
  ahead: string;
  /** Each word for a number, from one on: "a", "an" and "one" are all 1. */
  numbers: readonly (readonly string[])[];
  hours: readonly string[];
  days: readonly string[];
  weeks: readonly string[];
  morning: string;
  afternoon: string;
}

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** Whoever names a day alone means the beginning of its work. */
const USUAL_TIME = '09:00';
const SHORTEST_NAME = 3;

const two = (count: number): string => String(count).padStart(2, '0');

/** Which of a list a word begins, given at least three letters of it; -1 for none. */
const indexIn = (list: readonly string[], word: string): number =>
  word.length < SHORTEST_NAME ? -1 : list.findIndex((name) => name.startsWith(word));

/** "9", "9:30", "9.30", "9am", "9 pm" → "09:00"; null for no time. */
const timeSaid = (said: string, words: DayWords): string | null => {
  const match = /^(\d{1,2})(?:[:.](\d{2}))?\s*(\p{L}+)?$/u.exec(said);
  if (!match) return null;
  const [, hourSaid, minuteSaid = '0', half] = match;
  if (half && half !== words.morning && half !== words.afternoon) return null;
  const hour = (Number(hourSaid) % (half ? 12 : 24)) + (half === words.afternoon ? 12 : 0);
  const isTime = Number(hourSaid) <= (half ? 12 : 23) && Number(minuteSaid) < 60;
  return isTime ? `${two(hour)}:${two(Number(minuteSaid))}` : null;
};

const dayNamed = (
  year: number | null,
  month: number,
  date: number,
  today: string,
): string | null => {
  const inYear = (in_: number): string => `${in_}-${two(month)}-${two(date)}`;
  const thisYear = Number(today.slice(0, 4));
  const day = inYear(year ?? thisYear);
  // Without a year it is the next such day.
  const meant = year === null && day < today ? inYear(thisYear + 1) : day;
  const isDay = new Date(`${meant}T00:00:00Z`).toISOString().startsWith(meant);
  return isDay ? meant : null;
};

const safely = <Value>(work: () => Value | null): Value | null => {
  try {
    return work();
  } catch {
    // A month of 13, a day of 40: no date at all.
    return null;
  }
};

const fullYear = (said: string | undefined): number | null =>
  said ? Number(said) + (said.length === 2 ? 2000 : 0) : null;

const plusDays = (day: string, days: number): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) + days * DAY_MS).toISOString().slice(0, 10);

/** How many words at the front name a day, and which. */
const daySaid = (
  said: readonly string[],
  today: string,
  words: DayWords,
): { day: string; length: number } | null => {
  const [first = '', second = '', third] = said;
  if (first === words.today) return { day: today, length: 1 };
  if (first === words.tomorrow) return { day: plusDays(today, 1), length: 1 };
  const weekday = indexIn(words.weekdays, first);
  if (weekday >= 0) {
    const now = new Date(`${today}T00:00:00Z`).getUTCDay();
    return { day: plusDays(today, (weekday - now + 7) % 7 || 7), length: 1 };
  }
  const written = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(first);
  if (written) {
    const day = dayNamed(Number(written[1]), Number(written[2]), Number(written[3]), today);
    return day ? { day, length: 1 } : null;
  }
  const short = /^(\d{1,2})[/.](\d{1,2})(?:[/.](\d{4}|\d{2})?)$|^(\d{1,2})\/(\d{1,2})$/.exec(first);
  if (short) {
    const [date, month] = [short[1] ?? short[4], short[2] ?? short[5]];
    const day = dayNamed(fullYear(short[3]), Number(month), Number(date), today);
    return day ? { day, length: 1 } : null;
  }
  const [date, month] = /^\d/.test(first)
    ? [Number.parseInt(first, 10), indexIn(words.months, second)]
    : [Number.parseInt(second, 10), indexIn(words.months, first)];
  if (month < 0 || !(date > 0)) return null;
  const year = third && /^\d{4}$/.test(third) ? Number(third) : null;
  const day = dayNamed(year, month + 1, date, today);
  return day ? { day, length: year === null ? 2 : 3 } : null;
};

/** "2", "two" → 2; null for no number of at most three figures. */
const countSaid = (said: string, words: DayWords): number | null => {
  if (/^\d{1,3}$/.test(said)) return Number(said);
  const index = words.numbers.findIndex((names) => names.includes(said));
  return index < 0 ? null : index + 1;
};

/** "in 2 weeks", "in three days" → how many of what; null for what says no such thing. */
const aheadSaid = (
  [ahead, counted = '', unit = '']: readonly string[],
  words: DayWords,
): { count: number; unit: string } | null => {
  const count = ahead === words.ahead ? countSaid(counted, words) : null;
  return count === null ? null : { count, unit };
};

const hoursAhead = (said: readonly string[], now: number, words: DayWords): number | null => {
  const ahead = aheadSaid(said, words);
  return ahead && words.hours.includes(ahead.unit) ? now + ahead.count * HOUR_MS : null;
};

const daysAhead = (said: readonly string[], words: DayWords): number | null => {
  const ahead = aheadSaid(said, words);
  if (!ahead) return null;
  if (words.days.includes(ahead.unit)) return ahead.count;
  return words.weeks.includes(ahead.unit) ? ahead.count * 7 : null;
};

/**
 * A day and a time as people write them → the moment in the zone; null for what is neither. "tomorrow 9",
 * "Fri 10:30", "24 Dec 2pm", "24/12 14.00", "in two weeks", "16:00" (the next one). A day alone means its 09:00.
 */
export const momentSaid = (
  typed: string,
  now: number,
  zone: string,
  words: DayWords,
): number | null =>
  safely(() => {
    const said = typed.toLowerCase().replaceAll(',', ' ').trim().split(/\s+/);
    const inHours = hoursAhead(said, now, words);
    if (inHours !== null) return inHours;
    const today = dayOf(now, zone);
    const days = daysAhead(said, words);
    const named =
      days === null ? daySaid(said, today, words) : { day: plusDays(today, days), length: 3 };
    const rest = said.slice(named?.length ?? 0).join(' ');
    const time = rest ? timeSaid(rest, words) : named ? USUAL_TIME : null;
    if (time === null) return null;
    const at = momentTyped(named?.day ?? today, time, zone);
    if (at === null || named || at > now) return at;
    return momentTyped(plusDays(today, 1), time, zone);
  });
