import { setTimeout as later } from 'node:timers/promises';

/** Where time comes from, so that tests and the demo can say what time it is. */
export interface Clock {
  /** The moment, in UTC epoch milliseconds. Jumps when somebody sets the machine's clock. */
  now(): number;
  /**
   * Milliseconds that only grow, for durations: limits, waits, leases. Setting the machine's clock does
   * not touch it. It starts at the moment at which the program did, so that both can be compared once.
   */
  steady(): number;
  /** Resolves after so many steady milliseconds. */
  wait(ms: number): Promise<void>;
}

export const systemClock: Clock = {
  now: () => Date.now(),
  // Whole milliseconds, as everything that is kept is counted in.
  steady: () => Math.floor(performance.timeOrigin + performance.now()),
  wait: (ms) => later(ms),
};

/** A clock that stands still until it is moved. */
export const handClock = (start: number) => {
  let at = start;
  let steady = start;
  let waiting: { until: number; resolve: () => void }[] = [];
  const pass = (ms: number): void => {
    at += ms;
    steady += ms;
    const due = waiting.filter(({ until }) => until <= steady);
    waiting = waiting.filter(({ until }) => until > steady);
    for (const { resolve } of due) resolve();
  };
  return {
    now: () => at,
    steady: () => steady,
    wait: (ms: number): Promise<void> =>
      new Promise((resolve) => {
        waiting.push({ until: steady + ms, resolve });
      }),
    /** How many wait for a time to come. */
    waiting: () => waiting.length,
    /** Time passes up to a moment; one that lies back is a clock that somebody sets. */
    set: (to: number): void => {
      if (to >= at) pass(to - at);
      else at = to;
    },
    advance: pass,
    /** Somebody sets the machine's clock: the moment is another, and no time has passed. */
    jump: (ms: number): void => {
      at += ms;
    },
  };
};

export type HandClock = ReturnType<typeof handClock>;
