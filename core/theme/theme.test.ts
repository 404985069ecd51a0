import { contrast, day, luminance, night, type Palette } from '.';

const text: (keyof Palette)[] = ['ink', 'slate', 'ember', 'moss', 'brick', 'iris'];
const grounds: (keyof Palette)[] = ['paper', 'linen'];

describe('contrast (WCAG 2.2, 1.4.3 and 1.4.11)', () => {
  it('is that of the definition at its ends and for its published grey', () => {
    expect(contrast('#FFFFFF', '#000000')).toBeCloseTo(21, 10);
    expect(contrast('#FFFFFF', '#FFFFFF')).toBe(1);
    // #767676 on white is the well-known lightest grey that passes: 4.54.
    expect(contrast('#767676', '#FFFFFF')).toBeCloseTo(4.54, 2);
    expect(luminance('#FF0000')).toBeCloseTo(0.2126, 10);
  });

  describe.each([
    ['day', day],
    ['night', night],
  ])('by %s', (_name, palette) => {
    it.each(text.flatMap((ink) => grounds.map((ground) => [ink, ground] as const)))(
      '%s reads on %s',
      (ink, ground) => expect(contrast(palette[ink], palette[ground])).toBeGreaterThanOrEqual(4.5),
    );

    it('reads on ink, and iris on its own ground', () => {
      expect(contrast(palette.onInk, palette.ink)).toBeGreaterThanOrEqual(4.5);
      expect(contrast(palette.iris, palette.irisGround)).toBeGreaterThanOrEqual(4.5);
    });

    it('shows where a control is', () => {
      for (const ground of grounds) {
        expect(contrast(palette.edge, palette[ground])).toBeGreaterThanOrEqual(3);
      }
    });
  });
});
