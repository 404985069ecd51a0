import { setImmediate as nextTurn } from 'node:timers/promises';
import { openHouse } from '../../test-kit/house';
import { AT_ONCE, createGate } from './gate';

describe('the gate', () => {
  const enterAll = (lanes: string) => {
    const turns: (() => void)[] = [];
    const gate = createGate((work) => turns.push(work));
    const begun: string[] = [];
    [...lanes].forEach((lane, nth) => {
      gate.enter(
        () => lane,
        () => begun.push(`${lane}${nth}`),
      );
    });
    /** What begins in the next turn. */
    const turn = (): string[] => {
      const before = begun.length;
      turns.shift()?.();
      return begun.slice(before);
    };
    return { begun, turn, isOver: () => turns.length === 0 };
  };

  it('lets a few in at once, and the others when everything else has had its turn', () => {
    const { begun, turn, isOver } = enterAll('a'.repeat(AT_ONCE * 2 + 1));
    expect(begun).toHaveLength(AT_ONCE);
    expect(turn()).toHaveLength(AT_ONCE);
    expect(turn()).toEqual([`a${AT_ONCE * 2}`]);
    turn();
    expect(isOver()).toBe(true);
  });

  it('takes those who wait in turns by whose they are, each in the order in which they came', () => {
    const { turn } = enterAll(`${'a'.repeat(AT_ONCE + 40)}bbc`);
    const [b, c] = [AT_ONCE + 40, AT_ONCE + 42];
    expect(turn().slice(0, 6)).toEqual([
      `a${AT_ONCE}`,
      `b${b}`,
      `c${c}`,
      `a${AT_ONCE + 1}`,
      `b${b + 1}`,
      `a${AT_ONCE + 2}`,
    ]);
  });

  it('lets whoever comes while others wait wait behind them', () => {
    const turns: (() => void)[] = [];
    const gate = createGate((work) => turns.push(work));
    const begun: number[] = [];
    const enter = (nth: number) =>
      gate.enter(
        () => 'a',
        () => begun.push(nth),
      );
    for (let nth = 0; nth <= AT_ONCE + 8; nth += 1) enter(nth);
    turns.shift()?.();
    enter(100);
    expect(begun).not.toContain(100);
    while (turns.length > 0) turns.shift()?.();
    expect(begun.at(-1)).toBe(100);
    expect(begun).toHaveLength(AT_ONCE + 10);
  });

  it('stands before every request of the house', async () => {
    const house = await openHouse();
    const most = 10 * AT_ONCE;
    let answered = 0;
    const all = Array.from({ length: most }, async () => {
      const { status } = await house.ask('POST', '/in/no-such-door-000');
      answered += 1;
      return status;
    });
    let largest = 0;
    while (answered < most) {
      const before = answered;
      await nextTurn();
      largest = Math.max(largest, answered - before);
    }
    expect(await Promise.all(all)).toEqual(Array(most).fill(404));
    // Those of two turns may end in one.
    expect(largest).toBeLessThanOrEqual(3 * AT_ONCE);
    await house.close();
  });
});
