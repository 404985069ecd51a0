import type { Entry } from '../conversation';

/** When somebody was rung, or looked. */
export interface RungPerson {
  memberId: string;
  by: 'push' | 'mail';
  /** When each ring went out, UTC epoch milliseconds. */
  at: number[];
  /** Why none of them reached a device; null where one did. */
  failed: string | null;
}

/** What was rung and what came of it, one after another on a roll, as one line. */
export interface RungLine {
  /** Of the first ring: the line keeps its place while it grows. */
  seq: number;
  at: number;
  rung: RungPerson[];
  /** Who looked at it then; null: nobody has yet. */
  looked: { memberId: string; at: number } | null;
}

type RangEntry = Extract<Entry, { kind: 'rang' }>;

const isRing = (entry: Entry): entry is Extract<Entry, { kind: 'rang' | 'looked' }> =>
  entry.kind === 'rang' || entry.kind === 'looked';

const withRing = (rung: readonly RungPerson[], ring: RangEntry): RungPerson[] => {
  const { memberId, by, at } = ring;
  const failed = ring.failed ?? null;
  const isSame = (one: RungPerson): boolean =>
    one.memberId === memberId && one.by === by && (one.failed === null) === (failed === null);
  if (!rung.some(isSame)) return [...rung, { memberId, by, at: [at], failed }];
  return rung.map((one) => (isSame(one) ? { ...one, at: [...one.at, at] } : one));
};

const lineOf = (first: Entry): RungLine => ({
  seq: first.seq,
  at: first.at,
  rung: [],
  looked: null,
});

/**
 * A roll with each round of ringing as one line in place of its entries: from the first ring to whoever looked.
 * What was said meanwhile stands after the line; a look that no ring came before is not shown.
 */
export const withRungLines = (
  entries: readonly Entry[],
): (Exclude<Entry, { kind: 'rang' | 'looked' }> | RungLine)[] => {
  const shown: (Exclude<Entry, { kind: 'rang' | 'looked' }> | RungLine)[] = [];
  let open: RungLine | null = null;
  for (const entry of entries) {
    if (!isRing(entry)) {
      shown.push(entry);
      continue;
    }
    if (entry.kind === 'looked') {
      if (open) open.looked = { memberId: entry.memberId, at: entry.at };
      open = null;
      continue;
    }
    if (!open) {
      open = lineOf(entry);
      shown.push(open);
    }
    open.rung = withRing(open.rung, entry);
  }
  return shown;
};

export const isRungLine = (shown: Entry | RungLine): shown is RungLine => 'rung' in shown;
