/** What was taken is let go of in one piece, once it is so many. */
const TAKEN_KEPT_MOST = 1_000;

/** What waits, by whose it is: one of each in turn, each in the order in which it came. */
export const createTurns = <One>() => {
  const lanes = new Map<string, One[]>();
  /** How far each lane has been taken; shifting a long list each time would copy it. */
  const taken = new Map<string, number>();

  const next = (): One | null => {
    for (const [lane, waiting] of lanes) {
      const at = taken.get(lane) ?? 0;
      const one = waiting[at];
      // Whoever had a turn stands behind all others.
      lanes.delete(lane);
      if (at + 1 < waiting.length) {
        // A lane that never runs dry must not keep all that was ever in it.
        const isHeavy = at + 1 >= TAKEN_KEPT_MOST && 2 * (at + 1) >= waiting.length;
        lanes.set(lane, isHeavy ? waiting.slice(at + 1) : waiting);
        taken.set(lane, isHeavy ? 0 : at + 1);
      } else {
        taken.delete(lane);
      }
      return one ?? null;
    }
    return null;
  };

  return {
    isEmpty: (): boolean => lanes.size === 0,
    add: (lane: string, one: One): void => {
      const waiting = lanes.get(lane);
      if (waiting) waiting.push(one);
      else lanes.set(lane, [one]);
    },
    next,
    /** Puts all that waits there. */
    empty: (into: One[]): void => {
      for (let one = next(); one; one = next()) into.push(one);
    },
  };
};
