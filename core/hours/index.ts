const MINUTE_MS = 60_000;
const DAY_MS = 24 * 60 * MINUTE_MS;

const clocks = new Map<string, Intl.DateTimeFormat>();

/** Names of zones that were asked for before: each message may bring one. More than there are, so that none is left out. */
const zones = new Set<string>();
const ZONES_MOST = 1_000;

/** Making one is dear, and there are no more of them than zones. */
const clockOf = (zone: string): Intl.DateTimeFormat => {
  const known = clocks.get(zone);
  if (known) return known;
  const clock = new Intl.DateTimeFormat('en-CA', {
    timeZone: zone,
    hourCycle: 'h23',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
  });
  clocks.set(zone, clock);
  return clock;
};

/** What a clock in the zone shows at a moment, as milliseconds of a pretended UTC; seconds are left out. */
export const wallClock = (at: number, zone: string): number => {
  const parts = Object.fromEntries(
    clockOf(zone)
      .formatToParts(at)
      .map(({ type, value }) => [type, Number(value)]),
  ) as Record<'year' | 'month' | 'day' | 'hour' | 'minute', number>;
  return Date.UTC(parts.year, parts.month - 1, parts.day, parts.hour, parts.minute);
};

/**
 * The moment at which clocks in the zone show a day and time (given as a pretended UTC): of the two
 * in an autumn's doubled hour the first; for a time that a spring skips, the same span after the skip.
 */
export const momentOf = (wall: number, zone: string): number => {
  const offsetAt = (at: number): number => wallClock(at, zone) - at;
  const before = wall - offsetAt(wall - DAY_MS);
  const after = wall - offsetAt(wall + DAY_MS);
  const shown = [before, after].filter((at) => wallClock(at, zone) === wall);
  return shown.length > 0 ? Math.min(...shown) : before;
};

/** A time on a day counted from the one at `now`: `hour` 9 and `days` 1 → tomorrow at nine. */
export const timeOnDay = (now: number, zone: string, days: number, hour: number): number => {
  const start = new Date(wallClock(now, zone));
  start.setUTCHours(hour, 0, 0, 0);
  return momentOf(start.getTime() + days * DAY_MS, zone);
};

/** How many days to the next Monday, 1 to 7. */
export const daysToMonday = (now: number, zone: string): number =>
  (8 - new Date(wallClock(now, zone)).getUTCDay()) % 7 || 7;

/** "14:30" as the next such moment in the zone; null for what is no time. */
export const nextTime = (typed: string, now: number, zone: string): number | null => {
  const match = /^\s*(\d{1,2})[:.](\d{2})\s*$/.exec(typed);
  if (!match) return null;
  const [hour, minute] = [Number(match[1]), Number(match[2])];
  if (hour > 23 || minute > 59) return null;
  const at = timeOnDay(now, zone, 0, hour) + minute * MINUTE_MS;
  return at > now ? at : timeOnDay(now, zone, 1, hour) + minute * MINUTE_MS;
};

/** A day ("2026-12-31") and a time ("09:00") in the zone; null for what is neither. */
export const momentTyped = (day: string, time: string, zone: string): number | null => {
  const wall = Date.parse(`${day.trim()}T${time.trim().padStart(5, '0')}:00Z`);
  return Number.isNaN(wall) ? null : momentOf(wall, zone);
};

/** Whether a text names a time zone that the platform's tz database knows. "Europe/London" → true, "" → false. */
export const isZone = (zone: string): boolean => {
  if (zones.has(zone)) return true;
  try {
    const isOne = zone !== '' && Boolean(new Intl.DateTimeFormat('en', { timeZone: zone }));
    if (isOne && zones.size < ZONES_MOST) zones.add(zone);
    return isOne;
  } catch {
    return false;
  }
};

/** How far into its day a clock in the zone shows a moment, in minutes: at noon → 720. */
export const minuteOfDay = (at: number, zone: string): number =>
  Math.floor((wallClock(at, zone) % DAY_MS) / MINUTE_MS);

/** The day that a calendar in the zone shows. → "2026-11-26" */
export const dayOf = (at: number, zone: string): string =>
  new Date(wallClock(at, zone)).toISOString().slice(0, 10);
