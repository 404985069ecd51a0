/** A day of the calendar: "2026-12-24". */
export type Day = string;

/**
 * Open from a minute of its day to another: 540 to 1050 is 09:00 to 17:30. Past midnight it goes on counting, so that
 * 1320 to 1560 is 22:00 to 02:00 of the next day. `0 ≤ from < 1440`, `from < to ≤ from + 1440`.
 */
export interface Span {
  from: number;
  to: number;
}
export type Spans = readonly Span[];

/** On public holidays: shut, as on any such weekday, or hours of their own. */
export type HolidayChoice = 'closed' | 'usual' | Spans;

/** Days that go their own way, first and last included; without spans they are shut. */
export interface Spell {
  from: Day;
  to: Day;
  spans: Spans;
  /** What the owner calls it: "Winter break". */
  why: string;
}

export interface HolidayRules {
  /** ISO 3166-1, and the part of it as the calendar of holidays calls it ('' for the whole, 'BY', 'BY-A'). */
  country: string;
  region: string;
  /** What holds where nothing is chosen for a holiday. */
  others: HolidayChoice;
  /** By a holiday's key. */
  choices: Readonly<Record<string, HolidayChoice>>;
}

/** When a business is open, as its owner says it. */
export interface OpeningHours {
  /** Seven days, Monday first. */
  week: readonly Spans[];
  /** Null: holidays are days like others. */
  holidays: HolidayRules | null;
  spells: readonly Spell[];
}

/** A public holiday; the key is the same in every year. */
export interface Holiday {
  day: Day;
  key: string;
  name: string;
}

/** The same, reckoned out: a week, and each day that is not like its weekday. */
export interface Schedule {
  zone: string;
  week: readonly Spans[];
  days: ReadonlyMap<Day, Spans>;
}

export const DAY_MINUTES = 1_440;
const DAY_MS = DAY_MINUTES * 60_000;

/** A spell goes on no longer than this, whatever is written: a year and a day. */
export const SPELL_LONGEST_DAYS = 367;

export const shut: Spans = [];

/** Whether a text is a day that there is, from 1970 to 2999. "2026-02-29" → false */
export const isDay = (text: string): boolean => {
  const at = /^(?:19[7-9]\d|2\d{3})-\d\d-\d\d$/.test(text)
    ? Date.parse(`${text}T00:00:00Z`)
    : Number.NaN;
  return !Number.isNaN(at) && new Date(at).toISOString().startsWith(text);
};

/** The day so many days on. ("2026-12-31", 1) → "2027-01-01" */
export const dayAfter = (day: Day, days = 1): Day =>
  new Date(Date.parse(`${day}T00:00:00Z`) + days * DAY_MS).toISOString().slice(0, 10);

/** 0 for Monday to 6 for Sunday. */
export const weekdayOf = (day: Day): number => (new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7;

/** Spans in their order, those that touch or overlap as one: [13–17, 9–13:30] → [9–17]. No longer than a day each. */
export const tidySpans = (spans: Spans): Span[] => {
  const tidy: Span[] = [];
  for (const { from, to } of [...spans].sort((a, b) => a.from - b.from)) {
    const last = tidy.at(-1);
    if (last && from <= last.to) last.to = Math.max(last.to, to);
    else tidy.push({ from, to });
  }
  return tidy.map(({ from, to }) => ({ from, to: Math.min(to, from + DAY_MINUTES) }));
};

const daysOf = ({ from, to }: Spell): Day[] => {
  const days: Day[] = [];
  for (let day = from; day <= to && days.length < SPELL_LONGEST_DAYS; day = dayAfter(day)) {
    days.push(day);
  }
  return days;
};

/** What was said, with the holidays that there are, as a week and the days that differ. A spell goes before a holiday. */
export const scheduleOf = (
  { week, holidays, spells }: OpeningHours,
  zone: string,
  calendar: readonly Holiday[],
): Schedule => {
  const days = new Map<Day, Spans>();
  for (const { day, key } of holidays ? calendar : []) {
    const choice = holidays?.choices[key] ?? holidays?.others ?? 'usual';
    if (choice !== 'usual') days.set(day, choice === 'closed' ? shut : choice);
  }
  for (const spell of spells) for (const day of daysOf(spell)) days.set(day, spell.spans);
  return { zone, week, days };
};
