import type { Holiday } from '@porch/core/hours/opening';

/** Which holidays are asked for: of a country, or of a part of it ('BY', 'BY-A'), in these years. */
export interface Asked {
  country: string;
  region: string;
  years: readonly number[];
}

export interface Calendar {
  years: { year: number; days: Holiday[] }[];
  /** Into which parts the place is divided, those of a part after it. */
  regions: { code: string; name: string }[];
}

/** Finds out what holidays there are; null: it could not be found out. */
export type AskCalendar = (asked: Asked) => Promise<Calendar | null>;

const DAY_MS = 24 * 3_600_000;
/** Longer than any holiday. */
const DAYS_MOST = 14;

interface Found {
  date: string;
  start: Date;
  end: Date;
  name: string;
  rule: string;
}

/** One that is several days long is so many holidays of one key. */
const daysOf = ({ date, start, end, name, rule }: Found): Holiday[] => {
  const first = date.slice(0, 10);
  const length = Math.floor((end.getTime() - start.getTime()) / DAY_MS);
  return Array.from({ length: Math.min(Math.max(length, 1), DAYS_MOST) }, (_none, index) => ({
    day: new Date(Date.parse(`${first}T00:00:00Z`) + index * DAY_MS).toISOString().slice(0, 10),
    key: rule,
    name,
  }));
};

/**
 * Public holidays by the `date-holidays` package. It is large and takes most of a second, which nobody who writes
 * should have to wait for: in the server it works in a process of its own.
 */
export const askCalendar: AskCalendar = async ({ country, region, years }) => {
  const { default: Holidays } = await import('date-holidays');
  const [state = '', part = ''] = region.split('-');
  const place = new Holidays(country, state, part, { types: ['public'] });
  const language = 'en';
  const found = (year: number): Found[] => place.getHolidays(year, language) as unknown as Found[];
  const named = (all: object | undefined, prefix = '') =>
    Object.entries(all ?? {}).map(([code, name]) => ({ code: prefix + code, name: String(name) }));
  const states = named(place.getStates(country, language));
  return {
    years: years.map((year) => ({ year, days: found(year).flatMap(daysOf) })),
    regions: states.flatMap((one) => [
      one,
      ...(one.code === state ? named(place.getRegions(country, state, language), `${state}-`) : []),
    ]),
  };
};
