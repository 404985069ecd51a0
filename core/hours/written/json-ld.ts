import {
  DAY_MINUTES,
  type Day,
  dayAfter,
  type Holiday,
  isDay,
  type OpeningHours,
  SPELL_LONGEST_DAYS,
  type Span,
  type Spans,
  tidySpans,
  weekdayOf,
} from '../opening';
import {
  clockMinute,
  clockText,
  type LeftOut,
  type ReadHours,
  spanFrom,
  type WrittenHours,
  weekdaysAlike,
  withMore,
} from './common';
import { fromOsm, fromOsmTogether } from './osm-read';

const weekdays = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
const HOLIDAYS = 'PublicHolidays';
const SPECIFICATION = 'OpeningHoursSpecification';

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
type JsonObject = { [key: string]: Json };

const isObject = (value: Json | undefined): value is JsonObject =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** schema.org: a time of closing that is before the one of opening is on the next day. */
const timesOf = ({ from, to }: Span, left: LeftOut[]): JsonObject => {
  const opens = clockText(from);
  if (to - from < DAY_MINUTES) return { opens, closes: clockText(to % DAY_MINUTES) };
  if (from > 0) left.push({ text: `${opens}-${opens}`, why: 'minute-less' });
  return { opens, closes: clockText((to - 1) % DAY_MINUTES) };
};

const specifications = (rest: JsonObject, spans: Spans, left: LeftOut[]): JsonObject[] =>
  spans.length === 0
    ? [{ '@type': SPECIFICATION, ...rest }]
    : spans.map((span) => ({ '@type': SPECIFICATION, ...rest, ...timesOf(span, left) }));

/**
 * Opening hours as a LocalBusiness of schema.org, to be put into a page's own script tag. `calendar`: the holidays of
 * the next two years. Days before `today` are left out.
 */
export const toJsonLd = (
  { week, holidays, spells }: OpeningHours,
  name: string,
  calendar: readonly Holiday[],
  today: Day,
): WrittenHours => {
  const left: LeftOut[] = [];
  const usual = weekdaysAlike(week).flatMap(([days, spans]) =>
    specifications({ dayOfWeek: days.map((day) => weekdays[day] ?? '') }, spans, left),
  );
  const others = holidays?.others ?? 'usual';
  const onHolidays =
    others === 'usual'
      ? []
      : specifications({ dayOfWeek: HOLIDAYS }, others === 'closed' ? [] : others, left);
  const chosen = calendar.flatMap(({ day, key }) => {
    const choice = holidays?.choices[key];
    const isInSpell = spells.some(({ from, to }) => from <= day && day <= to);
    if (choice === undefined || isInSpell) return [];
    const spans = choice === 'usual' ? (week[weekdayOf(day)] ?? []) : choice;
    return [{ from: day, to: day, spans: spans === 'closed' ? [] : spans }];
  });
  if (chosen.length > 0) left.push({ text: HOLIDAYS, why: 'two-years' });
  const special = [...spells, ...chosen]
    .filter(({ to }) => to >= today)
    .flatMap(({ from, to, spans }) =>
      specifications({ validFrom: from, validThrough: to }, spans, left),
    );
  for (const { why } of spells) if (why) left.push({ text: why, why: 'reason-unsaid' });
  const business = {
    '@context': 'https://schema.org',
    '@type': 'LocalBusiness',
    name,
    openingHoursSpecification: [...usual, ...onHolidays],
    ...(special.length > 0 ? { specialOpeningHoursSpecification: special } : {}),
  };
  return { text: JSON.stringify(business, null, 2), left };
};

const asList = (value: Json | undefined): Json[] =>
  value === undefined || value === null ? [] : Array.isArray(value) ? value : [value];

/** "https://schema.org/Monday", "schema:Monday", "Monday" → "Monday" */
const bareName = (value: Json): string =>
  typeof value === 'string' ? (value.split(/[/:#]/).at(-1) ?? '') : '';

/** How deep and how wide it is looked for hours: whoever pastes a page's data pastes no more. */
const DEPTH_MOST = 8;

/** Everything in there that speaks of hours, whatever it hangs on. */
const found = (value: Json, depth = 0): { usual: Json[]; special: Json[]; short: string[] } => {
  const all = { usual: [] as Json[], special: [] as Json[], short: [] as string[] };
  const take = (more: typeof all): void => {
    all.usual.push(...more.usual);
    all.special.push(...more.special);
    all.short.push(...more.short);
  };
  if (depth > DEPTH_MOST) return all;
  if (Array.isArray(value)) for (const one of value) take(found(one, depth + 1));
  if (!isObject(value)) return all;
  if (bareName(value['@type'] ?? '') === SPECIFICATION) all.usual.push(value);
  for (const [key, inner] of Object.entries(value)) {
    if (key === 'openingHoursSpecification') all.usual.push(...asList(inner));
    else if (key === 'specialOpeningHoursSpecification') all.special.push(...asList(inner));
    else if (key === 'openingHours') {
      all.short.push(...asList(inner).filter((one) => typeof one === 'string'));
    } else take(found(inner, depth + 1));
  }
  return all;
};

/** No times: shut. Midnight to the last minute: the whole day. Null: times that say nothing we know. */
const spansOf = ({ opens, closes }: JsonObject): Spans | null => {
  if (opens === undefined && closes === undefined) return [];
  const [from, to] = [opens, closes].map((time) =>
    typeof time === 'string' ? clockMinute(time) : null,
  );
  if (from === null || to === null || from === undefined || to === undefined) return null;
  if (from === to || from >= DAY_MINUTES) return null;
  // The last minute of a day stands for its end.
  return [spanFrom(from, to === DAY_MINUTES - 1 ? DAY_MINUTES : to)];
};

const dayIn = (value: Json | undefined): Day | null => {
  const day = typeof value === 'string' ? value.slice(0, 10) : '';
  return isDay(day) ? day : null;
};

const parsed = (text: string): Json | undefined => {
  // Whoever copies it from a page may have copied its script tag as well.
  const bare = text.replace(/^\s*<script[^>]*>|<\/script>\s*$/gi, '');
  try {
    return JSON.parse(bare);
  } catch {
    return undefined;
  }
};

/** Reads the opening hours out of schema.org's JSON-LD, with or without its script tag. Never throws; see `fromOsm`. */
export const fromJsonLd = (text: string, today: Day): ReadHours => {
  const json = parsed(text);
  if (json === undefined) {
    const left: LeftOut[] = [{ text: text.slice(0, 200), why: 'not-understood' }];
    return { week: Array.from({ length: 7 }, () => []), spells: [], onHolidays: null, left };
  }
  const { usual, special, short } = found(json);
  const read = fromOsmTogether(short, today);
  const { week, spells, left } = read;
  const leave = (one: Json, why: LeftOut['why']): void => {
    left.push({ text: JSON.stringify(one).slice(0, 200), why });
  };

  const onDays = (days: Json[], spans: Spans): void => {
    for (const name of days.map(bareName)) {
      const weekday = weekdays.indexOf(name);
      if (weekday >= 0) week[weekday] = tidySpans([...(week[weekday] ?? []), ...spans]);
      if (name === HOLIDAYS) read.onHolidays = withMore(read.onHolidays, spans);
    }
  };

  const onDates = (from: Day, to: Day, spans: Spans): void => {
    const known = spells.find((spell) => spell.from === from && spell.to === to);
    if (known) known.spans = tidySpans([...known.spans, ...spans]);
    else spells.push({ from, to, spans, why: '' });
  };

  for (const one of [...usual, ...special]) {
    const spans = isObject(one) ? spansOf(one) : null;
    if (!isObject(one) || spans === null) {
      leave(one, 'not-understood');
      continue;
    }
    const days = asList(one.dayOfWeek);
    const from = dayIn(one.validFrom);
    const to = dayIn(one.validThrough) ?? from;
    if (from && to && days.length > 0) leave(one, 'season');
    else if (from && to && to < today) leave(one, 'over');
    else if (from && to && to >= dayAfter(from, SPELL_LONGEST_DAYS)) leave(one, 'too-long');
    else if (from && to) onDates(from, to, spans);
    else if (days.every((day) => [...weekdays, HOLIDAYS].includes(bareName(day)))) {
      onDays(days.length > 0 ? days : weekdays, spans);
    } else leave(one, 'not-understood');
  }
  return read;
};

/** Reads either notation, by what it begins with. */
export const readHours = (text: string, today: Day): ReadHours =>
  /^\s*[<{[]/.test(text) ? fromJsonLd(text, today) : fromOsm(text, today);
