const SUSPECTS_MOST = 2_000;

/** Senders of whom something took long not long ago; `steady`: milliseconds of a clock that nobody sets. */
export const createSuspects = (forMs: number, steady: () => number = () => performance.now()) => {
  const until = new Map<string, number>();
  return {
    has: (sender: string): boolean => (until.get(sender) ?? 0) > steady(),
    add: (sender: string): void => {
      if (until.size >= SUSPECTS_MOST) until.clear();
      until.set(sender, steady() + forMs);
    },
  };
};
