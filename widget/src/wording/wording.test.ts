import { errorCodes } from '@porch/contract/errors';
import { words } from './panel';

describe('the panel\u2019s words', () => {
  it('have a sentence for every refusal, with what happened to what was typed', () => {
    expect(errorCodes.length).toBeGreaterThan(20);
    for (const code of errorCodes) {
      const sentence = words.refusal({ code });
      expect([code, sentence]).toEqual([code, expect.stringMatching(/^[A-Z].*\.$/)]);
      expect(sentence).not.toMatch(/undefined|NaN|!/);
    }
  });

  it('say the limits that were refused', () => {
    expect(words.refusal({ code: 'text-too-long', limit: 4_000 })).toContain('4000');
    expect(words.refusal({ code: 'too-large', limit: 10 * 1024 * 1024 })).toContain('10 MB');
    expect(words.refusal({ code: 'too-many', waitMs: 12_000 })).toContain('12 seconds');
    expect(words.refusal({ code: 'too-many', waitMs: 120_000 })).toContain('2 minutes');
  });
});
