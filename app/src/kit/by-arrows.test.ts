import type { KeyboardEvent } from 'react';
import { byArrows } from './by-arrows';

/** Presses a key at one of so many choices, without a browser. */
const press = (key: string, at: number, count: number) => {
  const chosen: number[] = [];
  let focused = -1;
  let isKept = false;
  const options = Array.from({ length: count }, (_none, place) => ({
    focus: () => {
      focused = place;
    },
  }));
  const group = {
    querySelectorAll: (what: string) => (what === '[role="radio"]' ? options : []),
  };
  byArrows(at, at, count, (next) => chosen.push(next)).onKeyDown({
    key,
    currentTarget: { closest: (what: string) => (what === '[role="radiogroup"]' ? group : null) },
    preventDefault: () => {
      isKept = true;
    },
  } as unknown as KeyboardEvent);
  return { chosen, focused, isKept };
};

describe('a group of choices, by keyboard', () => {
  it.each([
    ['ArrowRight', 0, 1],
    ['ArrowDown', 1, 2],
    ['ArrowDown', 2, 0],
    ['ArrowLeft', 2, 1],
    ['ArrowUp', 0, 2],
  ])('goes by %s from %d to %d, chooses it, and moves no page', (key, from, to) => {
    expect(press(key, from, 3)).toEqual({ chosen: [to], focused: to, isKept: true });
  });

  it('leaves every other key, and a choice that is alone, as they are', () => {
    expect(press('Tab', 0, 3)).toEqual({ chosen: [], focused: -1, isKept: false });
    expect(press('ArrowDown', 0, 1)).toEqual({ chosen: [], focused: -1, isKept: false });
  });

  it('is one stop: the chosen one, or the first where none is', () => {
    const stops = (chosenAt: number) =>
      [0, 1, 2].map((at) => byArrows(at, chosenAt, 3, () => undefined).tabIndex);
    expect(stops(1)).toEqual([-1, 0, -1]);
    expect(stops(-1)).toEqual([0, -1, -1]);
  });
});
