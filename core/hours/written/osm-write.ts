import {
  DAY_MINUTES,
  type Day,
  dayAfter,
  type Holiday,
  type HolidayChoice,
  type OpeningHours,
  type Spans,
  scheduleOf,
  tidySpans,
  weekdayOf,
} from '../opening';
import { clockText, type LeftOut, sameSpans, type WrittenHours, weekdaysAlike } from './common';

const weekdayNames = ['Mo', 'Tu', 'We', 'Th', 'Fr', 'Sa', 'Su'];
export const monthNames = [
  ...['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun'],
  ...['Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'],
];

const timesText = (spans: Spans): string =>
  spans.length === 0
    ? 'off'
    : spans
        .map(({ from, to }) => {
          // From a time to the same one of the next day: only hours past 24 say that.
          const isRound = to - from === DAY_MINUTES && from > 0;
          const shown = to > DAY_MINUTES && !isRound ? to - DAY_MINUTES : to;
          return `${clockText(from)}-${clockText(shown)}`;
        })
        .join(',');

/** [0, 1, 2, 4] → "Mo-We,Fr" */
const weekdaysText = (weekdays: readonly number[]): string => {
  const runs: [number, number][] = [];
  for (const weekday of weekdays) {
    const last = runs.at(-1);
    if (last && last[1] === weekday - 1) last[1] = weekday;
    else runs.push([weekday, weekday]);
  }
  return runs
    .map(([from, to]) =>
      from === to ? weekdayNames[from] : `${weekdayNames[from]}-${weekdayNames[to]}`,
    )
    .join(',');
};

const daysText = (from: Day, to: Day): string => {
  const [[fromYear, fromMonth, fromDate], [toYear, toMonth, toDate]] = [from, to].map((day) => {
    const [year = '', month = '', date = ''] = day.split('-');
    return [year, monthNames[Number(month) - 1] ?? '', date];
  }) as [[string, string, string], [string, string, string]];
  const first = `${fromYear} ${fromMonth} ${fromDate}`;
  if (from === to) return first;
  const isSameMonth = fromYear === toYear && fromMonth === toMonth;
  return isSameMonth ? `${first}-${toDate}` : `${first}-${toYear} ${toMonth} ${toDate}`;
};

const spillOf = (spans: Spans): Spans =>
  spans.flatMap(({ to }) => (to > DAY_MINUTES ? [{ from: 0, to: to - DAY_MINUTES }] : []));

const untilMidnight = (spans: Spans): Spans =>
  spans.map(({ from, to }) => ({ from, to: Math.min(to, DAY_MINUTES) }));

/**
 * Days that differ, each with what a reader has to be told of it. In this notation a rule for a day replaces whatever
 * stood there, the hours after midnight of the evening before among it: these are then said with the day itself.
 */
const daysToSay = (
  days: ReadonlyMap<Day, Spans>,
  week: readonly Spans[],
  spills: boolean,
): Map<Day, Spans> => {
  if (!spills) return new Map(days);
  const usual = (day: Day): Spans => week[weekdayOf(day)] ?? [];
  const own = (day: Day): Spans => days.get(day) ?? usual(day);
  const said = new Map<Day, Spans>();
  for (const day of days.keys()) {
    const after = dayAfter(day);
    const before = spillOf(own(dayAfter(day, -1)));
    said.set(day, tidySpans([...before, ...untilMidnight(own(day))]));
    const spill = spillOf(own(day));
    if (!days.has(after) && (spill.length > 0 || spillOf(usual(day)).length > 0)) {
      said.set(after, tidySpans([...spill, ...own(after)]));
    }
  }
  return said;
};

const asRanges = (days: ReadonlyMap<Day, Spans>): [from: Day, to: Day, spans: Spans][] => {
  const ranges: [Day, Day, Spans][] = [];
  for (const day of [...days.keys()].sort()) {
    const spans = days.get(day) ?? [];
    const last = ranges.at(-1);
    if (last && dayAfter(last[1]) === day && sameSpans(last[2], spans)) last[1] = day;
    else ranges.push([day, day, spans]);
  }
  return ranges;
};

const holidaysText = (choice: HolidayChoice): string[] => {
  if (choice === 'usual') return [];
  return [choice === 'closed' ? 'PH off' : `PH ${timesText(choice)}`];
};

/**
 * Opening hours in OpenStreetMap's notation (wiki, Key:opening_hours/specification): "Mo-Fr 09:00-17:30; PH off;
 * 2026 Dec 24-2027 Jan 02 off". `calendar`: the holidays of the next two years. Days before `today` are left out.
 */
export const toOsm = (
  hours: OpeningHours,
  calendar: readonly Holiday[],
  today: Day,
): WrittenHours => {
  const { week, holidays, spells } = hours;
  const others = holidays?.others ?? 'usual';
  const schedule = scheduleOf(hours, 'UTC', calendar);
  const kept = holidays ? calendar : [];
  const spans = [...week.flat(), ...[...schedule.days.values()].flat()];
  const spills = spans.some(({ to }) => to > DAY_MINUTES);
  const chosen = kept.filter(({ key }) => key in (holidays?.choices ?? {}));
  // Where a night runs into a holiday or out of it, "PH" alone does not say enough.
  const dated = new Set((spills ? kept : chosen).map(({ day }) => day));
  const isInSpell = (day: Day): boolean => spells.some(({ from, to }) => from <= day && day <= to);
  const days = new Map(
    [...schedule.days].filter(([day]) => day >= today && (dated.has(day) || isInSpell(day))),
  );
  for (const day of dated) {
    // One that is like any weekday, where the others are not, has to be said.
    if (day >= today && !days.has(day)) days.set(day, week[weekdayOf(day)] ?? []);
  }
  const inWeek = weekdaysAlike(week).map(
    ([weekdays, alike]) => `${weekdaysText(weekdays)} ${timesText(alike)}`,
  );
  const between = week.flat().some(({ to }) => to > DAY_MINUTES) ? ', ' : '; ';
  const ranges = asRanges(daysToSay(days, week, spills));
  const text = [
    inWeek.length > 0 ? inWeek.join(between) : 'off',
    ...holidaysText(others),
    ...ranges.map(([from, to, said]) => `${daysText(from, to)} ${timesText(said)}`),
  ].join('; ');
  const left: LeftOut[] = [];
  if (dated.size > 0) left.push({ text: 'PH', why: 'two-years' });
  for (const { why } of spells) if (why) left.push({ text: why, why: 'reason-unsaid' });
  return { text: text === 'Mo-Su 00:00-24:00' ? '24/7' : text, left };
};
