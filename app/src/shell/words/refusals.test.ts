import { errorCodes } from '@porch/contract/errors';
import { en } from './en';

describe('the app\u2019s words', () => {
  it('have a sentence for every refusal of the contract', () => {
    expect(errorCodes.length).toBeGreaterThan(20);
    for (const code of errorCodes) {
      const sentence = en.refusal({ code, limit: 3, waitMs: 5_000 });
      expect([code, sentence]).toEqual([code, expect.stringMatching(/^[A-Z].*\.$/)]);
      expect(sentence).not.toMatch(/undefined|NaN|!/);
    }
  });
});
