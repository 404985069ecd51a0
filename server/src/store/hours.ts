import type { Holiday, OpeningHours, Spans } from '@porch/core/hours/opening';
import type { Db } from './db';

const HOUSE = 'house';

/** When the business is open, the doors' own weeks, and the holidays of the place that was chosen. */
export const hoursTable = (db: Db) => {
  const read = db.prepare<[string], { hours: string }>(
    'SELECT hours FROM opening_hours WHERE place = ?',
  );
  const all = db.prepare<[string], { place: string; hours: string }>(
    'SELECT place, hours FROM opening_hours WHERE place <> ?',
  );
  const write = db.prepare(
    'INSERT INTO opening_hours VALUES (?, ?) ON CONFLICT DO UPDATE SET hours = excluded.hours',
  );
  const drop = db.prepare('DELETE FROM opening_hours WHERE place = ?');
  const holidays = db.prepare<[string, string], { year: number; days: string }>(
    'SELECT year, days FROM holidays WHERE country = ? AND region = ? ORDER BY year',
  );
  const addYear = db.prepare(
    'INSERT INTO holidays VALUES (?, ?, ?, ?) ON CONFLICT DO UPDATE SET days = excluded.days',
  );
  const dropOthers = db.prepare('DELETE FROM holidays WHERE country <> ? OR region <> ?');
  const put = (place: string, hours: unknown): void => {
    if (hours === null) drop.run(place);
    else write.run(place, JSON.stringify(hours));
  };
  return {
    /** Null: nothing was said of hours. */
    house: (): OpeningHours | null => {
      const found = read.get(HOUSE);
      return found ? JSON.parse(found.hours) : null;
    },
    setHouse: (hours: OpeningHours | null): void => put(HOUSE, hours),
    /** Weeks of the doors that keep their own, by the door's id. */
    doors: (): Record<string, Spans[]> =>
      Object.fromEntries(all.all(HOUSE).map(({ place, hours }) => [place, JSON.parse(hours)])),
    setDoor: (doorId: string, week: readonly Spans[] | null): void => put(doorId, week),
    /** The holidays of a place that are kept, a year at a time. */
    holidaysOf: (country: string, region: string): { year: number; days: Holiday[] }[] =>
      holidays.all(country, region).map(({ year, days }) => ({ year, days: JSON.parse(days) })),
    /** Keeps those of a place, and of no other. */
    keepHolidays: (
      country: string,
      region: string,
      years: readonly { year: number; days: readonly Holiday[] }[],
    ): void => {
      dropOthers.run(country, region);
      for (const { year, days } of years) addYear.run(country, region, year, JSON.stringify(days));
    },
  };
};
