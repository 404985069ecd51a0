import fc from 'fast-check';
import { contrast } from '../theme';
import { bothColours, coloursOfPicture, type DoorColours, mix, readyColours, toHex } from '.';

const hex = fc.tuple(fc.nat(255), fc.nat(255), fc.nat(255)).map(
  (parts) =>
    `#${parts
      .map((part) => part.toString(16).padStart(2, '0'))
      .join('')
      .toUpperCase()}`,
);

/** WCAG 2.2, 1.4.3 (text 4.5:1) and 1.4.11 (controls 3:1). */
const expectLegible = (colours: DoorColours): void => {
  for (const ground of [colours.ground, colours.raised]) {
    for (const text of [colours.ink, colours.second, colours.link, colours.problem, colours.done]) {
      expect(contrast(text, ground)).toBeGreaterThanOrEqual(4.5);
    }
    expect(contrast(colours.edge, ground)).toBeGreaterThanOrEqual(3);
  }
  expect(contrast(colours.accent, colours.ground)).toBeGreaterThanOrEqual(3);
  expect(contrast(colours.onAccent, colours.accent)).toBeGreaterThanOrEqual(4.5);
};

describe('the colours of a door', () => {
  it('can’t be made unreadable, whatever two colours are chosen, by day and by night', () => {
    fc.assert(
      fc.property(hex, hex, (ground, accent) => {
        const { day, night } = bothColours({ ground, accent });
        expectLegible(day);
        expectLegible(night);
      }),
      { numRuns: 1_000 },
    );
  });

  it('keep what was chosen where it is legible', () => {
    for (const chosen of Object.values(readyColours)) {
      expect(bothColours(chosen).day).toMatchObject(chosen);
    }
  });

  it('are understood as people type them', () => {
    expect(toHex('#2f6247')).toBe('#2F6247');
    expect(toHex(' 2F6 ')).toBe('#22FF66');
    for (const typed of ['sky', '#12345', '#1234567', '', 'rgb(1,2,3)'])
      expect(toHex(typed)).toBeNull();
  });

  it('are mixed part by part', () => {
    expect(mix('#000000', '#FFFFFF', 0.5)).toBe('#808080');
    expect(mix('#102030', '#FFFFFF', 0)).toBe('#102030');
  });

  it('are taken from a picture: its most telling colour, not its commonest grey', () => {
    const grey = Array.from({ length: 900 }, () => [130, 130, 130]).flat();
    const green = Array.from({ length: 300 }, () => [40, 120, 60]).flat();
    const { ground, accent } = coloursOfPicture(new Uint8Array([...grey, ...green]));
    expect(accent).toBe('#28783C');
    expect(contrast('#000000', ground)).toBeGreaterThan(15);
    expect(coloursOfPicture(new Uint8Array())).toEqual(readyColours.dusk);
  });
});
