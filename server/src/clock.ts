/** Where `now` comes from, so that tests and the demo can say what time it is. */
export interface Clock {
  /** UTC epoch milliseconds. */
  now(): number;
}

export const systemClock: Clock = { now: () => Date.now() };

/** A clock that stands still until it is moved. */
export const handClock = (start: number) => {
  let at = start;
  return {
    now: () => at,
    set: (to: number): void => {
      at = to;
    },
    advance: (ms: number): void => {
      at += ms;
    },
  };
};

export type HandClock = ReturnType<typeof handClock>;
