import type { Entry } from './entry';

/** What somebody's words are now: other ones, or none where they took them back. */
export type Amended = ReadonlyMap<number, string | null>;

type Amending = Extract<Entry, { kind: 'visitor-changed' | 'visitor-withdrew' }>;

const isAmending = (entry: Entry): entry is Amending =>
  entry.kind === 'visitor-changed' || entry.kind === 'visitor-withdrew';

/**
 * What entries are now that their writers have changed or taken back, by their seqs; of two changes the one that was
 * made later counts, in whichever order they came. None → an empty map.
 */
export const amendedIn = (entries: readonly Entry[]): Amended =>
  new Map(
    entries
      .filter(isAmending)
      .sort((a, b) => a.saidAt - b.saidAt || a.seq - b.seq)
      .map((entry) => [entry.of, entry.kind === 'visitor-changed' ? entry.text : null]),
  );

const momentOf = (entry: Entry): number =>
  entry.kind === 'visitor-said' ? (entry.saidAt ?? entry.at) : entry.at;

/**
 * Entries of a roll in the order in which things were said: what a network handed over late stands where it belongs.
 * All else keeps its place.
 */
export const inOrderSaid = (entries: readonly Entry[]): readonly Entry[] =>
  entries.some((entry) => momentOf(entry) !== entry.at)
    ? [...entries].sort((a, b) => momentOf(a) - momentOf(b) || a.seq - b.seq)
    : entries;
