import { setImmediate } from 'node:timers/promises';
import type { TableProgress, Taken } from '@porch/contract/tables';
import { Refused } from '../refused';
import type { Store } from '../store';

/** So many rows share one wait for the disk, and whoever else waits has a turn after them. */
const ROWS_AT_ONCE = 25;
const REFUSED_TOLD_MOST = 100;
const WHAT_LONGEST = 80;

/** A row of a table, and how much of the table has been read with it. */
export interface ReadRow<Cells> {
  row: number;
  share: number;
  cells: Cells;
}

/** What a subject knows of its rows. */
export interface TakingOf<Cells, Thing, Why> {
  /** A row as a thing, or why it is none. */
  read: (cells: Cells) => Thing | Why;
  /** What names a row. */
  whatIs: (cells: Cells) => string;
  isKnown: (thing: Thing) => boolean;
  /** Keeps it; in a transaction. */
  put: (thing: Thing) => 'added' | 'changed' | 'same';
  /** So many more can be kept. */
  room: () => number;
}

/** Reads long tables in, one after the other, a few rows at a time; what was taken before something breaks is kept. */
export const createTaking = <Cells, Thing extends object, Why extends string>(
  store: Pick<Store, 'atOnce'>,
  subject: TakingOf<Cells, Thing, Why>,
  /** Why a row is not taken that finds no room, and why all are not from one on that cannot be read to its end. */
  whys: { tooMany: Why; broken: Why },
) => {
  let progress: TableProgress = null;
  let last: Taken<Why> | null = null;

  const taken = async (rows: AsyncIterable<ReadRow<Cells>>): Promise<Taken<Why>> => {
    const counts: Taken<Why> = {
      addedCount: 0,
      changedCount: 0,
      sameCount: 0,
      refusedCount: 0,
      refused: [],
    };
    let room = subject.room();
    let waiting: Thing[] = [];
    let read = 0;
    const putAll = (): void => {
      store.atOnce(() => {
        for (const thing of waiting) counts[`${subject.put(thing)}Count`] += 1;
      });
      waiting = [];
    };
    const refuse = (row: number, what: string, why: Why): void => {
      counts.refusedCount += 1;
      if (counts.refused.length >= REFUSED_TOLD_MOST) return;
      counts.refused.push({ row, what: what.slice(0, WHAT_LONGEST), why });
    };
    const takeRow = async ({ row, cells, share }: ReadRow<Cells>): Promise<void> => {
      const thing = subject.read(cells);
      const isNew = typeof thing !== 'string' && !subject.isKnown(thing);
      const why = typeof thing === 'string' ? thing : isNew && room <= 0 ? whys.tooMany : null;
      read += 1;
      if (why !== null) refuse(row, subject.whatIs(cells), why);
      else if (typeof thing !== 'string') {
        if (isNew) room -= 1;
        waiting.push(thing);
      }
      if (read % ROWS_AT_ONCE === 0) {
        putAll();
        progress = { rows: read, share };
        await setImmediate();
      }
    };
    try {
      for await (const row of rows) await takeRow(row);
    } catch (error) {
      const isBroken = error instanceof Refused && error.facts.limit !== undefined;
      // Where nothing was read yet, nothing was taken.
      if (!isBroken || read === 0) throw error;
      refuse(error.facts.limit ?? 0, '', whys.broken);
    }
    putAll();
    return counts;
  };

  return {
    progress: (): TableProgress => progress,
    last: (): Taken<Why> | null => last,
    forget: (): void => {
      last = null;
    },
    take: async (rows: AsyncIterable<ReadRow<Cells>>): Promise<Taken<Why>> => {
      if (progress !== null) throw new Refused('table-in-work');
      progress = { rows: 0, share: 0 };
      try {
        last = await taken(rows);
        return last;
      } finally {
        progress = null;
      }
    },
  };
};
