import { momentOf, wallClock } from '..';
import { type Schedule, type Spans, weekdayOf } from './schedule';

const MINUTE_MS = 60_000;
const DAY_MS = 1_440 * MINUTE_MS;
/** Days are reckoned out by so many at a time. */
const SHEET_DAYS = 64;
const SHEET_MS = SHEET_DAYS * DAY_MS;
/** A day at the zone's own end of the world, and one that goes on past midnight. */
const MARGIN_DAYS = 3;
/** Two years and a little: what changes no sooner does not change. */
const SHEETS_AHEAD = 12;
const SHEETS_KEPT = 64;

/** Open from the first moment up to the second, UTC epoch milliseconds. */
type Stretch = readonly [from: number, to: number];

/** When it is open, for any moment that is asked about. All moments are UTC epoch milliseconds. */
export interface Opening {
  isOpen(at: number): boolean;
  /** When it opens if it is shut, and the other way round; null: not within two years. */
  nextChange(at: number): number | null;
  /** The first open moment from `at` on, which may be `at`; null: none within two years. */
  nextOpen(at: number): number | null;
  /** For how long of the time between it is open, in milliseconds; 0 where `to` is not after `from`. */
  openMsBetween(from: number, to: number): number;
  /** The moment at which it has been open for `ms` since `from`; null: it is not so within two years of being shut. */
  afterOpen(from: number, ms: number): number | null;
}

/** One that is always open: where nothing has been said of hours, or that it never shuts. */
const always: Opening = {
  isOpen: () => true,
  nextChange: () => null,
  nextOpen: (at) => at,
  openMsBetween: (from, to) => Math.max(0, to - from),
  afterOpen: (from, ms) => from + ms,
};

const join = (stretches: Stretch[]): Stretch[] => {
  const joined: [number, number][] = [];
  for (const [from, to] of stretches.sort((a, b) => a[0] - b[0])) {
    const last = joined.at(-1);
    if (last && from <= last[1]) last[1] = Math.max(last[1], to);
    else if (from < to) joined.push([from, to]);
  }
  return joined;
};

/** How many of them begin at or before a moment. */
const begunBy = (stretches: readonly Stretch[], at: number): number => {
  let [low, high] = [0, stretches.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((stretches[middle]?.[0] ?? 0) <= at) low = middle + 1;
    else high = middle;
  }
  return low;
};

/**
 * Makes a schedule answer. A span belongs to the day in which it begins: one that goes on past midnight does so into a
 * day that is shut, too. Where clocks change, a time is the one that `momentOf` gives. The answers are reckoned out for
 * two months at a time and kept.
 */
export const createOpening = (schedule: Schedule): Opening => {
  const { zone, week, days } = schedule;
  const sheets = new Map<number, readonly Stretch[]>();

  const spansOn = (dayNumber: number): Spans => {
    const day = new Date(dayNumber * DAY_MS).toISOString().slice(0, 10);
    return days.get(day) ?? week[weekdayOf(day)] ?? [];
  };

  /** From wall to moment; quick on the days, nearly all, about which the clocks do not change. */
  const momentsAbout = (midnight: number): ((wall: number) => number) => {
    const offsetAt = (at: number): number => wallClock(at, zone) - at;
    const [before, after] = [offsetAt(midnight - DAY_MS), offsetAt(midnight + 3 * DAY_MS)];
    return before === after ? (wall) => wall - before : (wall) => momentOf(wall, zone);
  };

  const stretchesOn = (dayNumber: number): Stretch[] => {
    const spans = spansOn(dayNumber);
    if (spans.length === 0) return [];
    const midnight = dayNumber * DAY_MS;
    const moment = momentsAbout(midnight);
    return spans.map(({ from, to }) => [
      moment(midnight + from * MINUTE_MS),
      moment(midnight + to * MINUTE_MS),
    ]);
  };

  const makeSheet = (index: number): Stretch[] => {
    const first = index * SHEET_DAYS;
    const all: Stretch[] = [];
    for (let day = first - MARGIN_DAYS; day < first + SHEET_DAYS + MARGIN_DAYS; day += 1) {
      all.push(...stretchesOn(day));
    }
    const [begins, ends] = [index * SHEET_MS, (index + 1) * SHEET_MS];
    return join(all.map(([from, to]) => [Math.max(from, begins), Math.min(to, ends)]));
  };

  const sheet = (index: number): readonly Stretch[] => {
    const known = sheets.get(index);
    if (known) return known;
    if (sheets.size >= SHEETS_KEPT) sheets.clear();
    const made = makeSheet(index);
    sheets.set(index, made);
    return made;
  };

  const sheetAt = (at: number): number => Math.floor(at / SHEET_MS);

  /** The stretches that end after a moment, in their order; one that runs over a sheet's edge comes in two. */
  const from = function* (at: number): Generator<Stretch> {
    const first = sheetAt(at);
    for (let index = first; index <= first + SHEETS_AHEAD; index += 1) {
      const stretches = sheet(index);
      const begun = index === first ? Math.max(0, begunBy(stretches, at) - 1) : 0;
      for (let place = begun; place < stretches.length; place += 1) {
        const stretch = stretches[place];
        if (stretch && stretch[1] > at) yield stretch;
      }
    }
  };

  const openStretch = (at: number): Stretch | null => {
    const stretches = sheet(sheetAt(at));
    const stretch = stretches[begunBy(stretches, at) - 1];
    return stretch && at < stretch[1] ? stretch : null;
  };

  const nextOpen = (at: number): number | null => {
    for (const [begins] of from(at)) return Math.max(begins, at);
    return null;
  };

  /** Where being open ends, over the edges of sheets; null: nowhere in sight. */
  const shutsAt = (at: number): number | null => {
    let end = at;
    for (const [begins, ends] of from(at)) {
      if (begins > end) return end;
      end = ends;
    }
    // Nothing more in sight: it ends there, unless that is as far as one can see.
    return end < (sheetAt(at) + SHEETS_AHEAD + 1) * SHEET_MS ? end : null;
  };

  return {
    isOpen: (at) => openStretch(at) !== null,
    nextOpen,
    nextChange: (at) => {
      const open = openStretch(at);
      if (!open) return nextOpen(at);
      // Nearly always it ends within the sheet.
      return open[1] % SHEET_MS === 0 ? shutsAt(at) : open[1];
    },
    openMsBetween: (begin, end) => {
      let sum = 0;
      for (let index = sheetAt(begin); index <= sheetAt(end); index += 1) {
        for (const [opens, shuts] of sheet(index)) {
          sum += Math.max(0, Math.min(shuts, end) - Math.max(opens, begin));
        }
      }
      return sum;
    },
    afterOpen: (begin, ms) => {
      let left = ms;
      let at = begin;
      for (let found = true; found; ) {
        found = false;
        for (const [opens, shuts] of from(at)) {
          found = true;
          const starts = Math.max(opens, at);
          if (left <= shuts - starts) return starts + left;
          left -= shuts - starts;
          at = shuts;
        }
      }
      return null;
    },
  };
};

/** Whether a schedule never shuts: nobody has to look two years ahead for an end that does not come. */
const neverShuts = ({ week, days }: Schedule): boolean =>
  days.size === 0 &&
  week.length === 7 &&
  week.every((spans) => spans.some(({ from, to }) => from === 0 && to >= 1_440));

/** What answers for a schedule; where there is none, it is always open. */
export const openingWhile = (schedule: Schedule | null): Opening =>
  schedule && !neverShuts(schedule) ? createOpening(schedule) : always;
