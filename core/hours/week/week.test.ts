import { drawn, holdAt, spilled } from '.';

const day = [
  { from: 540, to: 750 },
  { from: 840, to: 1_050 },
];
const anew = { kind: 'new' } as const;

describe('a day that is drawn', () => {
  it('gets a span where a finger draws on nothing, in quarters of an hour, either way round', () => {
    expect(drawn([], anew, 541, 1_046)).toEqual([{ from: 540, to: 1_050 }]);
    expect(drawn([], anew, 1_046, 541)).toEqual([{ from: 540, to: 1_050 }]);
    expect(drawn([], anew, -40, 3_000)).toEqual([{ from: 0, to: 1_440 }]);
    expect(drawn(day, anew, 600, 603)).toEqual(day);
  });

  it('joins what is drawn over what was there', () => {
    expect(drawn(day, anew, 700, 900)).toEqual([{ from: 540, to: 1_050 }]);
  });

  it('is taken hold of at the nearest edge within reach', () => {
    expect(holdAt(day, 760, 30)).toEqual({ kind: 'edge', index: 0, side: 'to' });
    expect(holdAt(day, 830, 60)).toEqual({ kind: 'edge', index: 1, side: 'from' });
    expect(holdAt(day, 640, 30)).toEqual(anew);
    expect(holdAt([{ from: 1_320, to: 1_560 }], 1_440, 60)).toEqual(anew);
  });

  it('moves an edge, turns a span round past the other one, and takes it away on it', () => {
    const end = { kind: 'edge', index: 0, side: 'to' } as const;
    expect(drawn(day, end, 750, 781)[0]).toEqual({ from: 540, to: 780 });
    expect(drawn(day, end, 750, 480)[0]).toEqual({ from: 480, to: 540 });
    expect(drawn(day, end, 750, 541)).toEqual([day[1]]);
    expect(drawn(day, end, 750, 900)).toEqual([{ from: 540, to: 1_050 }]);
  });

  it('keeps the end of a night where only its beginning is moved', () => {
    const start = { kind: 'edge', index: 0, side: 'from' } as const;
    const night = [{ from: 1_320, to: 1_560 }];
    expect(drawn(night, start, 1_320, 1_200)).toEqual([{ from: 1_200, to: 1_560 }]);
    expect(drawn(night, start, 1_320, 2_000)).toEqual([{ from: 1_439, to: 1_560 }]);
    expect(spilled(night)).toBe(120);
    expect(spilled(day)).toBe(0);
  });
});
