import { type OpeningHours, openingWhile, scheduleOf } from '@porch/core/hours/opening';
import { toOsm } from '@porch/core/hours/written';
import Reference from 'opening_hours';

const EVALUATIONS = 100_000;
const MINUTE_MS = 60_000;
const START = Date.UTC(2026, 0, 1);
const YEAR_MINUTES = 365 * 24 * 60;

const morning = { from: 8 * 60, to: 12 * 60 + 30 };
const afternoon = { from: 13 * 60 + 15, to: 18 * 60 + 30 };
const night = { from: 20 * 60, to: 26 * 60 };

/** Breaks, nights past midnight, a day that is shut, and days that go their own way all over the year. */
const hard: OpeningHours = {
  week: [
    [morning, afternoon],
    [morning, afternoon],
    [],
    [morning, afternoon, night],
    [morning, afternoon, night],
    [{ from: 9 * 60, to: 13 * 60 }, night],
    [{ from: 11 * 60, to: 15 * 60 }],
  ],
  holidays: null,
  spells: Array.from({ length: 24 }, (_none, index) => {
    const month = String(Math.floor(index / 2) + 1).padStart(2, '0');
    const date = index % 2 === 0 ? '05' : '19';
    const day = `2026-${month}-${date}`;
    return { from: day, to: day, spans: index % 4 === 0 ? [] : [afternoon], why: '' };
  }),
};

/** The same moments each time, spread over the year (a linear congruential generator, Knuth). */
const moments = (): number[] => {
  let seed = 1;
  return Array.from({ length: EVALUATIONS }, () => {
    seed = (Math.imul(seed, 1_664_525) + 1_013_904_223) >>> 0;
    return START + (seed % YEAR_MINUTES) * MINUTE_MS;
  });
};

const evaluationsASecond = (evaluate: (at: number) => unknown): number => {
  const all = moments();
  const begin = performance.now();
  for (const at of all) evaluate(at);
  return (all.length / (performance.now() - begin)) * 1_000;
};

/** "Is it open, and when does that change" on a hard schedule, so many a second: ours, and the reference's. */
export const hoursEvaluated = (): { ours: number; theirs: number } => {
  const opening = openingWhile(scheduleOf(hard, 'UTC', []));
  const reference = new Reference(toOsm(hard, [], '2026-01-01').text, null);
  const theirs = evaluationsASecond((at) => {
    const date = new Date(at);
    return [reference.getState(date), reference.getNextChange(date)];
  });
  const ours = evaluationsASecond((at) => [opening.isOpen(at), opening.nextChange(at)]);
  return { ours, theirs };
};
