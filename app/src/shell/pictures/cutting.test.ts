import { cutOf, firstCutting, moved, zoomed } from './cutting';

describe('the square that is cut out of a picture', () => {
  const start = firstCutting(400, 300);

  it('is the largest in the middle at first', () => {
    expect(cutOf(start)).toEqual({ left: 50, top: 0, side: 300 });
  });

  it('moves by what the screen shows, and never leaves the picture', () => {
    expect(cutOf(moved(start, 30, 0, 150))).toMatchObject({ left: 100 });
    expect(cutOf(moved(start, 999, 999, 150))).toEqual({ left: 100, top: 0, side: 300 });
    expect(cutOf(moved(start, -999, -999, 150))).toEqual({ left: 0, top: 0, side: 300 });
  });

  it('comes closer about its own middle, and not closer than looks sharp', () => {
    expect(cutOf(zoomed(start, 2))).toEqual({ left: 125, top: 75, side: 150 });
    expect(cutOf(zoomed(start, 1_000)).side).toBe(40);
    expect(cutOf(zoomed(zoomed(start, 2), 0.1))).toEqual({ left: 50, top: 0, side: 300 });
    expect(cutOf(zoomed(firstCutting(20, 30), 2)).side).toBe(20);
  });
});
