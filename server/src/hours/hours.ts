import type { Holidays, Hours } from '@porch/contract/hours';
import { dayOf } from '@porch/core/hours';
import {
  type Holiday,
  type Opening,
  type OpeningHours,
  openingWhile,
  type Spans,
  scheduleOf,
  tidySpans,
} from '@porch/core/hours/opening';
import { toOsm } from '@porch/core/hours/written';
import { cleanLine } from '@porch/core/text';
import type { Clock } from '../clock';
import type { Change } from '../inbox/batch';
import { Refused } from '../refused';
import type { Store } from '../store';
import type { AskCalendar, Calendar } from './calendar';

/** A year back for what was, and far enough ahead for any opening that can be asked about. */
const YEARS_BACK = 1;
const YEARS_AHEAD = 3;

/** So many places are remembered. */
const PLACES_KEPT_MOST = 40;

const tidyWeek = (week: readonly Spans[]): Spans[] => week.map(tidySpans);

/** As it is kept: what overlaps is one, days in their order, no more of a name than fits. */
const tidied = (hours: OpeningHours): OpeningHours => ({
  ...hours,
  week: tidyWeek(hours.week),
  spells: [...hours.spells]
    .map((spell) => ({ ...spell, spans: tidySpans(spell.spans), why: cleanLine(spell.why) }))
    .sort((a, b) => a.from.localeCompare(b.from)),
});

/** When the business is open, and each of its doors. */
export const createHours = (services: {
  store: Store;
  clock: Clock;
  change: Change;
  askCalendar: AskCalendar;
}) => {
  const { store, clock, change, askCalendar } = services;
  /** Reckoned out once; forgotten when anything of the house is another. */
  let known = new Map<string, { opening: Opening; isSet: boolean }>();
  let ownWeeks: ReadonlySet<string> | null = null;
  /** What holidays there are, by the place that was asked about. */
  const found = new Map<string, Promise<Calendar>>();
  let lastAsked: Promise<unknown> = Promise.resolve();

  const zone = (): string => store.business.read()?.zone || 'UTC';
  const thisYear = (): number => Number(dayOf(clock.now(), zone()).slice(0, 4));
  const yearsAbout = (): number[] =>
    Array.from(
      { length: YEARS_BACK + 1 + YEARS_AHEAD },
      (_none, index) => thisYear() - YEARS_BACK + index,
    );

  const calendarOf = ({ holidays }: OpeningHours): Holiday[] =>
    holidays
      ? store.hours.holidaysOf(holidays.country, holidays.region).flatMap(({ days }) => days)
      : [];

  /** A door keeps a week of its own; what holds for all is the house's. Null: none are set. */
  const hoursOf = (doorId: string | null): OpeningHours | null => {
    const house = store.hours.house();
    const own = doorId === null ? undefined : store.hours.doors()[doorId];
    if (!house && !own) return null;
    const rest = house ?? { week: [], holidays: null, spells: [] };
    return { ...rest, week: own ?? rest.week };
  };

  const reckon = (doorId: string | null) => {
    const hours = hoursOf(doorId);
    const schedule = hours && scheduleOf(hours, zone(), calendarOf(hours));
    return { opening: openingWhile(schedule), isSet: hours !== null };
  };

  /** A door without a week of its own shares what was reckoned for the house. */
  const reckoned = (doorId: string | null) => {
    ownWeeks ??= new Set(Object.keys(store.hours.doors()));
    const key = doorId !== null && ownWeeks.has(doorId) ? doorId : '';
    const found = known.get(key) ?? reckon(key || null);
    known.set(key, found);
    return found;
  };

  const opening = (doorId: string | null = null): Opening => reckoned(doorId).opening;

  const find = async (country: string, region: string): Promise<Calendar> => {
    const calendar = await askCalendar({ country, region, years: yearsAbout() });
    if (!calendar) throw new Refused('country-unknown', { field: 'country' });
    return calendar;
  };

  /** Whoever looks through the countries waits for one after the other: each takes a process of its own. */
  const ask = (country: string, region: string): Promise<Calendar> => {
    const key = `${country} ${region} ${thisYear()}`;
    const known = found.get(key);
    if (known) return known;
    const asked = lastAsked.then(() => find(country, region));
    lastAsked = asked.catch(() => undefined);
    const [oldest] = found.keys();
    if (oldest !== undefined && found.size >= PLACES_KEPT_MOST) found.delete(oldest);
    found.set(key, asked);
    // What could not be found out may be, the next time.
    asked.catch(() => found.delete(key));
    return asked;
  };

  const hasAll = (country: string, region: string): boolean => {
    const kept = new Set(store.hours.holidaysOf(country, region).map(({ year }) => year));
    return yearsAbout().every((year) => kept.has(year));
  };

  /** Sees to it that the holidays of the years about now are kept. */
  const keepCalendar = async (hours: OpeningHours | null): Promise<void> => {
    const place = hours?.holidays;
    if (!place || hasAll(place.country, place.region)) return;
    const { years } = await ask(place.country, place.region);
    change(() => store.hours.keepHolidays(place.country, place.region, years));
  };

  const shown = (): Hours => {
    const house = store.hours.house();
    const today = dayOf(clock.now(), zone());
    return {
      house,
      doors: store.hours.doors(),
      zone: zone(),
      today,
      holidays: house ? calendarOf(house).filter(({ day }) => day >= today) : [],
    };
  };

  return {
    opening,
    zone,
    /** A door's hours as OpenStreetMap writes them; '' where none are set. */
    written: (doorId: string): string => {
      const hours = hoursOf(doorId);
      if (!hours) return '';
      return toOsm(hours, calendarOf(hours), dayOf(clock.now(), zone())).text;
    },
    /** Whether hours are set for a door; null: for the house. */
    isSet: (doorId: string | null = null): boolean => reckoned(doorId).isSet,
    shown,
    set: async (typed: OpeningHours | null): Promise<Hours> => {
      const hours = typed && tidied(typed);
      await keepCalendar(hours);
      change(() => store.hours.setHouse(hours));
      return shown();
    },
    /** A door's own week; null: it keeps the house's. */
    setDoor: (doorId: string, week: readonly Spans[] | null): Hours => {
      if (!store.doors.byId(doorId)) throw new Refused('not-found');
      change(() => store.hours.setDoor(doorId, week && tidyWeek(week)));
      return shown();
    },
    /** The holidays of a place that somebody looks at, this year's and the next. */
    holidays: async (country: string, region: string): Promise<Holidays> => {
      const { years, regions } = await ask(country, region);
      const near = years.filter(({ year }) => year === thisYear() || year === thisYear() + 1);
      return { holidays: near.flatMap(({ days }) => days), regions };
    },
    /** All that the hours are reckoned from, as one text: another one where anything of it is. */
    mark: (): string => {
      const house = store.hours.house();
      return JSON.stringify([zone(), house, store.hours.doors(), house && calendarOf(house)]);
    },
    /** Something of the house is another: reckon anew. */
    forget: (): void => {
      known = new Map();
      ownWeeks = null;
    },
    /** A new year wants its holidays. */
    tidy: (): Promise<void> => keepCalendar(store.hours.house()),
  };
};

export type HoursOf = ReturnType<typeof createHours>;
