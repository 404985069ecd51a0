import {
  DAY_MINUTES,
  type HolidayChoice,
  type Span,
  type Spans,
  type Spell,
  tidySpans,
} from '../opening';

/** Why a part of a text was not carried over, or not as it stood. */
export const leftReasons = [
  'not-understood',
  'season',
  'sun',
  'open-end',
  'otherwise',
  'remark',
  'only-next',
  'too-long',
  'over',
  'two-years',
  'holidays-differ',
  'minute-less',
  'reason-unsaid',
] as const;
export type LeftReason = (typeof leftReasons)[number];

export interface LeftOut {
  /** As it stood; for what the target cannot say, as we would say it. */
  text: string;
  why: LeftReason;
}

/** What was read of a text. */
export interface ReadHours {
  week: Spans[];
  spells: Spell[];
  /** Null: holidays were not spoken of. */
  onHolidays: HolidayChoice | null;
  left: LeftOut[];
}

export interface WrittenHours {
  text: string;
  left: LeftOut[];
}

/** How long a text may be that is pasted in, in characters. */
export const HOURS_TEXT_LONGEST = 20_000;

const two = (count: number): string => String(count).padStart(2, '0');

/** 570 → "09:30", 1440 → "24:00" */
export const clockText = (minute: number): string =>
  `${two(Math.floor(minute / 60))}:${two(minute % 60)}`;

/** "9:30" → 570, "24:00" → 1440; null for no time of a day. */
export const clockMinute = (text: string): number | null => {
  const match = /^(\d{1,2}):(\d\d)(?::\d\d)?$/.exec(text.trim());
  if (!match) return null;
  const minute = Number(match[1]) * 60 + Number(match[2]);
  return Number(match[2]) < 60 && minute <= DAY_MINUTES ? minute : null;
};

/** From one time to another: one that is not later is on the next day. */
export const spanFrom = (from: number, to: number): Span => ({
  from,
  to: to > from ? to : to + DAY_MINUTES,
});

export const sameSpans = (some: Spans, others: Spans): boolean =>
  some.length === others.length &&
  some.every(({ from, to }, index) => from === others[index]?.from && to === others[index]?.to);

/** What holds on holidays after more was said of them; no spans: shut. */
export const withMore = (before: HolidayChoice | null, spans: Spans): HolidayChoice =>
  spans.length === 0 ? 'closed' : tidySpans([...(Array.isArray(before) ? before : []), ...spans]);

/** Weekdays by what they have: [[0, 1, 4], spans], in the order of the week, those that are shut left out. */
export const weekdaysAlike = (week: readonly Spans[]): [weekdays: number[], spans: Spans][] => {
  const alike: [number[], Spans][] = [];
  for (const [weekday, spans] of week.entries()) {
    if (spans.length === 0) continue;
    const known = alike.find(([, others]) => sameSpans(spans, others));
    if (known) known[0].push(weekday);
    else alike.push([[weekday], spans]);
  }
  return alike;
};
