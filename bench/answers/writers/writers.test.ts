import { keptOut, sharesOf, tunedOn, type Writer, writers } from '.';

const english = ({ language }: Writer): boolean => language === 'en';

// Split by who wrote, and so by how it is said, not at random: whoever writes to a business writes as nobody has before.
describe('what is offered for what people write who write in their own way', () => {
  it('has writers enough on both sides, in both languages', () => {
    for (const some of [tunedOn, keptOut]) {
      expect(new Set(some.map(({ language }) => language))).toEqual(new Set(['en', 'de']));
      const { withAnswer, without } = sharesOf(some, false);
      expect(withAnswer).toBeGreaterThanOrEqual(100);
      expect(without).toBeGreaterThanOrEqual(35);
    }
  });

  it.each([
    ['what was looked at', tunedOn],
    ['what was not', keptOut],
  ])('is right for a business that has just begun, of %s', (_which, some) => {
    const { found, ranked, silent } = sharesOf(some, false);
    expect({ found, isEnough: found >= 0.6 }).toMatchObject({ isEnough: true });
    expect({ ranked, isEnough: ranked >= 0.85 }).toMatchObject({ isEnough: true });
    expect({ silent, isEnough: silent >= 0.9 }).toMatchObject({ isEnough: true });
  });

  it.each(writers.map((writer) => [writer.name, writer] as const))(
    'leaves whoever asks nothing in peace, and finds half of what %s asks',
    (_name, writer) => {
      const { found, ranked, silent } = sharesOf([writer], false);
      expect(found).toBeGreaterThanOrEqual(0.5);
      expect(ranked).toBeGreaterThanOrEqual(0.8);
      expect(silent).toBeGreaterThanOrEqual(0.8);
    },
  );

  it.each([
    ['what was looked at', tunedOn.filter(english)],
    ['what was not', keptOut.filter(english)],
  ])(
    'is better once something was picked, and offers no more for nothing, of %s',
    (_which, some) => {
      const cold = sharesOf(some, false);
      const learned = sharesOf(some, true);
      expect(learned.found).toBeGreaterThan(cold.found);
      expect(learned.first).toBeGreaterThanOrEqual(cold.first);
      expect(learned.ranked).toBeGreaterThanOrEqual(cold.ranked);
      expect(learned.silent).toBeGreaterThanOrEqual(cold.silent - 0.03);
      expect(learned.silent).toBeGreaterThanOrEqual(0.85);
    },
  );
});
