import type { Entry, FileMention } from './entry';

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

type FileCame = Pick<Extract<Entry, { kind: 'file-came' }>, 'seq' | 'file' | 'canRetry'>;

/** What became of the files of an entry that were coming, by their places: here, or null where they could not be had. */
export type Came = ReadonlyMap<number, FileCame>;

/** The same of all entries, by their seqs; the latest that is said of a place counts. None → an empty map. */
export const cameIn = (entries: readonly Entry[]): ReadonlyMap<number, Came> => {
  const all = new Map<number, Map<number, FileCame>>();
  for (const entry of entries) {
    if (entry.kind !== 'file-came') continue;
    const came = all.get(entry.of) ?? new Map<number, FileCame>();
    all.set(entry.of, came.set(entry.place, entry));
  }
  return all;
};

type VisitorSaid = Extract<Entry, { kind: 'visitor-said' }>;

/** The files of what a visitor said, those that came later as well; `came` as `cameIn` gives it for its seq. */
export const filesOf = ({ files, coming = [] }: VisitorSaid, came?: Came): FileMention[] => [
  ...files,
  ...coming.flatMap((_name, place) => came?.get(place)?.file ?? []),
];

const momentOf = (entry: Entry): number =>
  entry.kind === 'visitor-said' ? (entry.saidAt ?? entry.at) : entry.at;

/** By the network's own clock where it says, which need not be ours. */
const networkMoment = (entry: VisitorSaid): number => entry.networkAt ?? entry.saidAt ?? entry.at;

/** Of two things that one person wrote, which came first: by the network's clock, by what it counts, as they came. */
const asWritten = (a: VisitorSaid, b: VisitorSaid): number =>
  networkMoment(a) - networkMoment(b) ||
  (a.order !== undefined && b.order !== undefined ? a.order - b.order : 0) ||
  a.seq - b.seq;

const isSaid = (entry: Entry): entry is VisitorSaid => entry.kind === 'visitor-said';

/** In the places that what one person wrote has among all else, it stands in the order in which they wrote it. */
const eachAsWritten = (entries: readonly Entry[]): readonly Entry[] => {
  const byThread = new Map<string | null, VisitorSaid[]>();
  for (const entry of entries.filter(isSaid)) {
    const theirs = byThread.get(entry.threadId);
    if (theirs) theirs.push(entry);
    else byThread.set(entry.threadId, [entry]);
  }
  // The first one last, to be taken from the end.
  for (const said of byThread.values()) said.sort((a, b) => asWritten(b, a));
  return entries.map((entry) =>
    isSaid(entry) ? (byThread.get(entry.threadId)?.pop() ?? entry) : entry,
  );
};

/**
 * Entries of a roll in the order in which things were said: what a network handed over late stands where it belongs,
 * and what one person wrote in the order of their network, however near in time. All else keeps its place.
 */
export const inOrderSaid = (entries: readonly Entry[]): readonly Entry[] => {
  const isElsewhere = (entry: Entry): boolean =>
    isSaid(entry) && (momentOf(entry) !== entry.at || entry.networkAt !== undefined);
  if (!entries.some(isElsewhere)) return entries;
  return eachAsWritten([...entries].sort((a, b) => momentOf(a) - momentOf(b) || a.seq - b.seq));
};
