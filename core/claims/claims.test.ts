import { CLAIM_BYTES, claimCode, claimsIn } from '.';

describe('a code by which somebody goes on at another door', () => {
  it('is made of signs that nobody takes for others', () => {
    expect(claimCode(Uint8Array.from([0, 1, 2, 3, 4, 31]))).toBe('234-56Z');
    for (let byte = 0; byte < 256; byte += 1) {
      const code = claimCode(new Uint8Array(CLAIM_BYTES).fill(byte));
      expect(code).toMatch(/^[2-9A-Z]{3}-[2-9A-Z]{3}$/);
      expect(code).not.toMatch(/[IO01]/);
      expect(claimsIn(`Hello! I was writing to you (${code.toLowerCase()}).`)).toEqual([code]);
    }
  });

  it.each(['', 'well-known fact', 'ABC-2DEF', 'xABC-2DE', 'AB-2DE', 'ABC 2DE', 'abc-2de-3fg'])(
    'is not in “%s”',
    (text) => expect(claimsIn(text)).toEqual([]),
  );

  it('is sought in few places only', () => {
    expect(claimsIn('ABC-2DE '.repeat(500))).toHaveLength(3);
  });
});
