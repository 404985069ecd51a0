import { counted, halves, tried } from '.';

// Over two hundred messages in more than eight topics, written apart from what is stored; half were not looked at while
// the threshold was chosen.
describe('what is offered for a message', () => {
  it.each(halves)(
    'is the right answer where there is one, and nothing otherwise, in the %s half',
    (half) => {
      const all = tried(half);
      const { withAnswer, without, found, silent } = counted(all);
      expect(withAnswer + without).toBeGreaterThanOrEqual(100);
      expect(without).toBeGreaterThanOrEqual(30);
      const wrong = all.filter(({ isRight }) => !isRight);
      expect({ wrong, isEnough: found >= 0.85 }).toMatchObject({ isEnough: true });
      expect({ wrong, isEnough: silent >= 0.9 }).toMatchObject({ isEnough: true });
      expect(Math.max(...all.map(({ offered }) => offered.length))).toBe(3);
    },
  );
});
