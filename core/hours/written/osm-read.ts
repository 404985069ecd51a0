import {
  DAY_MINUTES,
  type Day,
  dayAfter,
  isDay,
  SPELL_LONGEST_DAYS,
  type Span,
  type Spans,
  tidySpans,
} from '../opening';
import {
  clockMinute,
  type LeftOut,
  type LeftReason,
  type ReadHours,
  sameSpans,
  spanFrom,
  withMore,
} from './common';
import { monthNames } from './osm-write';

const weekdayPattern = '(?:Mo|Tu|We|Th|Fr|Sa|Su)';
const timePattern = '\\d{1,2}:\\d\\d';
const spanPattern = `${timePattern}\\s*-\\s*${timePattern}`;
const isSpans = new RegExp(`^${spanPattern}(?:\\s*,\\s*${spanPattern})*$`);
const weekdayList = new RegExp(
  `^(?:${weekdayPattern}|PH)(?:\\s*-\\s*${weekdayPattern})?(?:\\s*,\\s*(?:${weekdayPattern}|PH)(?:\\s*-\\s*${weekdayPattern})?)*`,
);
const months = monthNames.join('|');
const dated = new RegExp(
  `^(?:(\\d{4})\\s+)?(${months})\\s+(\\d{1,2})(?:\\s*-\\s*(?:(?:(\\d{4})\\s+)?(${months})\\s+)?(\\d{1,2}))?(?=\\s|:|$)`,
);
const weekdays = ['Mo', 'Tu', 'We', 'Th', 'Fr', 'Sa', 'Su'];

interface Rule {
  text: string;
  /** It is added to what the days have; otherwise it takes its place. */
  isMore: boolean;
}

/** Not all of what stands between quotes, but a comma or a semicolon in there parts nothing. */
const quotes = /"[^"]*"/g;

/** Rules as they stand, remarks cut out. A comma after a time begins another rule where a day follows. */
const rulesOf = (text: string, left: LeftOut[]): Rule[] => {
  // Other dashes are typed and pasted often.
  const plain = text.replace(/[–—−]/g, '-').replace(quotes, (remark) => {
    left.push({ text: remark.slice(1, -1), why: 'remark' });
    return '';
  });
  const begins = `(?=${weekdayPattern}\\b|PH\\b|SH\\b|(?:${months})\\b|\\d{4}\\s|week\\b|easter\\b)`;
  const more = new RegExp(`(?<=(?:${timePattern}\\+?|off|closed|open)\\s*),\\s*${begins}`, 'i');
  return plain
    .split(';')
    .flatMap((part) =>
      part.split(more).map((one, index) => ({ text: one.trim(), isMore: index > 0 })),
    )
    .filter((rule) => rule.text !== '');
};

const spanOf = (text: string): Span | null => {
  const [fromText = '', toText = ''] = text.split('-');
  const from = clockMinute(fromText);
  // Up to 48:00 in this notation: "10:00-34:00".
  const [hour = '', minute = ''] = toText.trim().split(':');
  const to = Number(hour) * 60 + Number(minute);
  if (from === null || from >= DAY_MINUTES || Number(minute) > 59 || to > 2 * DAY_MINUTES) {
    return null;
  }
  const span = to > DAY_MINUTES ? { from, to } : spanFrom(from, to);
  return span.to - span.from <= DAY_MINUTES ? span : null;
};

/** "09:00-12:30,14:00-18:00", "off", "" (the whole day) → spans; null for what is none of these. */
const timesOf = (text: string): Spans | null => {
  if (/^(?:off|closed)$/i.test(text)) return [];
  if (text === '' || /^(?:open|24\/7)$/i.test(text)) return [{ from: 0, to: DAY_MINUTES }];
  if (!isSpans.test(text)) return null;
  const spans = text.split(',').map(spanOf);
  return spans.every((span) => span !== null) ? tidySpans(spans) : null;
};

const reasonOf = (text: string): LeftReason => {
  if (/sunrise|sunset|dawn|dusk/i.test(text)) return 'sun';
  if (/\d\+/.test(text)) return 'open-end';
  if (/\|\||unknown/i.test(text)) return 'otherwise';
  return new RegExp(`\\b(?:${months}|SH|week|easter)\\b`, 'i').test(text)
    ? 'season'
    : 'not-understood';
};

/** "Mo-We,Fr,PH" → which of the week, and whether holidays as well. */
const listed = (list: string): { days: number[]; isHolidays: boolean } => {
  const days = new Set<number>();
  let isHolidays = false;
  for (const part of list.split(',').map((one) => one.trim())) {
    if (part === 'PH') isHolidays = true;
    else {
      const [from = '', to = from] = part.split('-').map((one) => one.trim());
      const [first, last] = [weekdays.indexOf(from), weekdays.indexOf(to)];
      for (let day = first; ; day = (day + 1) % 7) {
        days.add(day);
        if (day === last) break;
      }
    }
  }
  return { days: [...days], isHolidays };
};

const two = (text: string | number): string => String(text).padStart(2, '0');

interface Dates {
  from: Day;
  to: Day;
  /** No year was named: it comes every year, and is taken for its next time. */
  isYearly: boolean;
  length: number;
}

/** "2026 Dec 24-2027 Jan 02", "Dec 24-26", "2026 May 01" at the front of a rule; null for no such dates. */
const datesOf = (text: string, today: Day): Dates | null => {
  const match = dated.exec(text);
  if (!match) return null;
  const [whole, yearSaid, month = '', date = '', toYearSaid, toMonth = month, toDate = date] =
    match;
  const monthNumber = (name: string): number => monthNames.indexOf(name) + 1;
  const inYear = (year: number): Omit<Dates, 'length'> => {
    const from = `${year}-${two(monthNumber(month))}-${two(date)}`;
    const rest = `${two(monthNumber(toMonth))}-${two(toDate)}`;
    const toYear = toYearSaid ? Number(toYearSaid) : rest < from.slice(5) ? year + 1 : year;
    return { from, to: `${toYear}-${rest}`, isYearly: !yearSaid };
  };
  const thisYear = inYear(Number(yearSaid ?? today.slice(0, 4)));
  const meant = yearSaid || thisYear.to >= today ? thisYear : inYear(Number(today.slice(0, 4)) + 1);
  const isWhole = isDay(meant.from) && isDay(meant.to) && meant.from <= meant.to;
  return isWhole ? { ...meant, length: whole.length } : null;
};

/** What follows days in a rule: a colon may stand between. */
const after = (text: string, length: number): string =>
  text.slice(length).trim().replace(/^:\s*/, '');

const readRules = (rules: readonly Rule[], left: LeftOut[], today: Day): ReadHours => {
  const week: Spans[] = Array.from({ length: 7 }, () => []);
  const read: ReadHours = { week, spells: [], onHolidays: null, left };

  const readDates = (rule: string, dates: Dates, isMore: boolean): void => {
    const spans = timesOf(after(rule, dates.length));
    const { from, to, isYearly } = dates;
    if (spans === null) left.push({ text: rule, why: reasonOf(after(rule, dates.length)) });
    else if (to < today) left.push({ text: rule, why: 'over' });
    else if (to >= dayAfter(from, SPELL_LONGEST_DAYS)) left.push({ text: rule, why: 'too-long' });
    else {
      if (isYearly) left.push({ text: rule, why: 'only-next' });
      const { spells } = read;
      const same = isMore ? spells.find((one) => one.from === from && one.to === to) : undefined;
      const spell = { from, to, spans: tidySpans([...(same?.spans ?? []), ...spans]), why: '' };
      read.spells = [...spells.filter((one) => one !== same), spell];
    }
  };

  /** A rule takes the place of what an earlier one has on its days, also of what reaches into them past midnight. */
  const endBefore = (days: readonly number[]): void => {
    for (const day of days) {
      const before = (day + 6) % 7;
      if (days.includes(before)) continue;
      week[before] = (week[before] ?? []).map(({ from, to }) => ({
        from,
        to: Math.min(to, DAY_MINUTES),
      }));
    }
  };

  /** It takes the place of what was said of holidays as well, where they fall on its days. */
  const overHolidays = (rule: string, days: readonly number[]): void => {
    const { onHolidays } = read;
    if (onHolidays === null || onHolidays === 'usual') return;
    const spans = onHolidays === 'closed' ? [] : onHolidays;
    const isSameElsewhere = week.every((its, day) => days.includes(day) || sameSpans(its, spans));
    if (isSameElsewhere) read.onHolidays = 'usual';
    else left.push({ text: rule, why: 'holidays-differ' });
  };

  const readRule = ({ text: rule, isMore }: Rule): void => {
    const list = weekdayList.exec(rule)?.[0] ?? '';
    const spans = timesOf(after(rule, list.length));
    if (spans === null) {
      left.push({ text: rule, why: dated.test(rule) ? 'not-understood' : reasonOf(rule) });
      return;
    }
    const { days, isHolidays } = list
      ? listed(list)
      : { days: weekdays.map((_name, index) => index), isHolidays: false };
    if (!isMore) endBefore(days);
    for (const day of days) {
      week[day] = isMore ? tidySpans([...(week[day] ?? []), ...spans]) : spans;
    }
    if (!isMore && !isHolidays) overHolidays(rule, days);
    if (isHolidays) read.onHolidays = withMore(isMore ? read.onHolidays : null, spans);
  };

  for (const rule of rules) {
    const dates = datesOf(rule.text, today);
    if (dates) readDates(rule.text, dates, rule.isMore);
    else readRule(rule);
  }
  return read;
};

/**
 * Reads OpenStreetMap's notation (wiki, Key:opening_hours/specification) as far as a week, holidays and days of their
 * own go; what is beyond that comes back in `left`, rule by rule. Never throws; of a text that is none of it everything
 * is left.
 */
export const fromOsm = (text: string, today: Day): ReadHours => {
  const left: LeftOut[] = [];
  return readRules(rulesOf(text, left), left, today);
};

/** Several texts of which each adds to the others, as schema.org has them: ["Mo-Sa 11:00-14:30", "Mo-Th 17:00-21:30"]. */
export const fromOsmTogether = (texts: readonly string[], today: Day): ReadHours => {
  const left: LeftOut[] = [];
  const rules = texts.flatMap((text) =>
    rulesOf(text, left).map((rule, index) => ({ ...rule, isMore: rule.isMore || index === 0 })),
  );
  return readRules(rules, left, today);
};
