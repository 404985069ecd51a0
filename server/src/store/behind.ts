/**
 * Values whose rows are behind them: written by a transaction that is on disk, in full, but for a row that can be made
 * again from what else it wrote. They are written once for many. What a transaction that came to nothing had put here is
 * gone with it; what was here before stays, also where that transaction had written the rows.
 */
export const createBehind = <Value>() => {
  /** Of transactions that are on disk. */
  const owed = new Map<string, Value>();
  /** Of the one that is open now. */
  const fresh = new Map<string, Value>();
  /** Whose rows the one that is open now has written. */
  const written = new Set<string>();

  const get = (id: string): Value | undefined =>
    fresh.get(id) ?? (written.has(id) ? undefined : owed.get(id));

  return {
    get,
    put: (id: string, value: Value): void => {
      fresh.set(id, value);
    },
    /** Its row has been written whole. */
    written: (id: string): void => {
      fresh.delete(id);
      written.add(id);
    },
    /** How many rows are behind. */
    size: (): number => owed.size + fresh.size,
    /** Some whose rows are to be written, those that wait longest first: write them in the same transaction. */
    take: (most = Number.POSITIVE_INFINITY): (readonly [string, Value])[] => {
      const taken = new Map<string, Value>();
      for (const all of [owed, fresh]) {
        for (const id of all.keys()) {
          if (taken.size >= most) break;
          const value = get(id);
          if (value !== undefined) taken.set(id, value);
        }
      }
      for (const id of taken.keys()) {
        fresh.delete(id);
        written.add(id);
      }
      return [...taken];
    },
    commit: (): void => {
      for (const id of written) owed.delete(id);
      for (const [id, value] of fresh) owed.set(id, value);
      fresh.clear();
      written.clear();
    },
    rollBack: (): void => {
      fresh.clear();
      written.clear();
    },
    /** A transaction within the one that is open begins, with nothing left to be written; gives what undoes it. */
    within: (): (() => void) => {
      const before = [...written];
      return () => {
        fresh.clear();
        written.clear();
        for (const id of before) written.add(id);
      };
    },
  };
};
