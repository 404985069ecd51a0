const MINUTE_MS = 60_000;

/** Fewer answers than this say nothing of what is usual. */
export const USUAL_FROM_ANSWERS = 10;

/** Over so long it is looked at what is usual. */
export const USUAL_OVER_MS = 30 * 24 * 60 * MINUTE_MS;

/** Lengths of time that people say, in minutes. */
const plain = [
  1, 2, 3, 5, 10, 15, 20, 30, 45, 60, 120, 180, 240, 360, 480, 720, 1_440, 2_880, 4_320,
];

/** The middle of some numbers; of an even count halfway between the two in the middle (Hyndman and Fan 1996, type 7). */
export const median = (numbers: readonly number[]): number => {
  const sorted = [...numbers].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  const upper = sorted[middle] ?? Number.NaN;
  return sorted.length % 2 === 1 ? upper : ((sorted[middle - 1] ?? Number.NaN) + upper) / 2;
};

const inPlain = (ms: number): number | null => {
  const minutes = ms / MINUTE_MS;
  return plain.find((length) => minutes <= length) ?? null;
};

/**
 * How long an answer usually takes, in minutes, rounded up to a length that people say; null where there are too few
 * answers to tell, or where it takes longer than anybody would want to read.
 */
export const usualMinutes = (tookMs: readonly number[]): number | null => {
  if (tookMs.length < USUAL_FROM_ANSWERS) return null;
  return inPlain(median(tookMs));
};

/** Fewer who wait say nothing of how long an answer takes today: one of them may be forgotten. */
export const WAITING_FROM = 3;

/**
 * What somebody who writes now may be told, in minutes: what is usual, and never less than half of those who wait now
 * have waited already. Null where it is not told.
 *
 * @param waitedMs how long each of those who wait has waited, in open time
 */
export const toldMinutes = (usual: number | null, waitedMs: readonly number[]): number | null => {
  if (usual === null || waitedMs.length < WAITING_FROM) return usual;
  const today = inPlain(median(waitedMs));
  return today && Math.max(usual, today);
};
