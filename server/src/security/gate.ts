import { createTurns } from '../turns';

/** So many requests begin before everything else has its turn again: sockets, writes, what is due. A few milliseconds' work. */
export const AT_ONCE = 8;

/**
 * Lets requests in, a few at a time. Five hundred that come in at one moment would be worked on in one go, and whoever
 * speaks over a socket would wait for all of them. Of what has to wait each lane has its turn, in the order in which it came.
 */
export const createGate = (later: (work: () => void) => void = setImmediate) => {
  const waiting = createTurns<() => void>();
  let begun = 0;
  let isComing = false;

  const nextTurn = (): void => {
    if (isComing) return;
    isComing = true;
    later(() => {
      isComing = false;
      begun = 0;
      for (let go = waiting.next(); go; go = begun < AT_ONCE ? waiting.next() : null) {
        begun += 1;
        nextTurn();
        go();
      }
    });
  };

  return {
    /** `laneOf`: whose it is; asked only where it has to wait. */
    enter: (laneOf: () => string, go: () => void): void => {
      nextTurn();
      if (begun >= AT_ONCE || !waiting.isEmpty()) {
        waiting.add(laneOf(), go);
        return;
      }
      begun += 1;
      go();
    },
  };
};
