import { setImmediate as nextTurn } from 'node:timers/promises';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { createTurns } from './turns';

describe('whoever waits', () => {
  it('has a turn after each of the others, in the order in which they came', () => {
    const turns = createTurns<string>();
    for (const one of ['a1', 'a2', 'a3', 'b1', 'c1', 'c2']) turns.add(one.charAt(0), one);
    const taken: string[] = [];
    turns.empty(taken);
    expect(taken).toEqual(['a1', 'b1', 'c1', 'a2', 'c2', 'a3']);
    expect([turns.isEmpty(), turns.next()]).toEqual([true, null]);
  });

  it('keeps its order in a lane that never runs dry, over any number of them', () => {
    const turns = createTurns<number>();
    const taken: (number | null)[] = [];
    for (let nth = 0; nth < 5; nth += 1) turns.add('a', nth);
    for (let nth = 5; nth < 10_000; nth += 1) {
      turns.add('a', nth);
      taken.push(turns.next());
    }
    expect(taken).toEqual(Array.from({ length: 9_995 }, (_none, nth) => nth));
  });

  it('is let go of once it was taken', async () => {
    setFlagsFromString('--expose-gc');
    const collectGarbage = runInNewContext('gc') as () => void;
    const turns = createTurns<object>();
    const added: WeakRef<object>[] = [];
    const add = () => {
      const one = { nth: added.length };
      added.push(new WeakRef(one));
      turns.add('a', one);
    };
    add();
    for (let nth = 0; nth < 5_000; nth += 1) {
      add();
      turns.next();
    }
    // What was made in one turn is held until it ends.
    await nextTurn();
    collectGarbage();
    expect(added.filter((one) => one.deref() !== undefined).length).toBeLessThan(1_500);
    expect(turns.isEmpty()).toBe(false);
  });
});
