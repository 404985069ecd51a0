import { counted, halves, quotedParted } from '.';

// Sixty mails and more, as the programs of many makers and languages write answers; half were not looked at while
// what reads them was written.
describe('what somebody answers by mail', () => {
  it.each(halves)(
    'is kept whole, and parted from what they answer to, in the %s half',
    async (half) => {
      const { ours } = await quotedParted(half);
      const { mails, quoting } = counted(ours);
      expect(mails).toBeGreaterThanOrEqual(30);
      expect(quoting).toBeGreaterThanOrEqual(30);
      expect(ours.filter(({ isKept }) => !isKept)).toEqual([]);
      const left = ours.filter(({ isCut }) => isCut === false);
      expect({ left, share: 1 - left.length / quoting >= 0.95 }).toMatchObject({ share: true });
    },
  );
});
