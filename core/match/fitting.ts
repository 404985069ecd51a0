import type { Match } from './matching';

/**
 * Below this nothing is offered. Chosen on half of the messages in `bench/answers`: there the smaller of what is left over the
 * bounds (85 % of the answers found, 90 % of what has none left in peace) is largest. Held against the other half.
 */
export const FIT_LEAST = 0.5;

/** Those that are offered, at most so many. */
export const fits = (matches: readonly Match[], most: number): Match[] =>
  matches.filter(({ fit }) => fit >= FIT_LEAST).slice(0, most);
