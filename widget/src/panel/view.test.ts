import { errorCodes } from '@porch/contract/errors';
import { defaultTexts, fillGaps, type TextKey } from '@porch/core/door-texts';
import { plainDress, viewOf } from '@porch/core/dress';
import { sayRefusal, wear } from './view';

const business = { name: 'Quillfern', address: '', picture: null, people: [], ways: [] };

describe('what a visitor is told of a refusal', () => {
  it('is a whole sentence for every code there is, in every language', () => {
    expect(errorCodes.length).toBeGreaterThan(40);
    for (const [language, texts] of Object.entries(defaultTexts)) {
      const say = (key: TextKey, values = {}) => fillGaps(texts[key], values);
      for (const code of errorCodes) {
        const sentence = sayRefusal(say, { code, limit: 4_000, waitMs: 12_000 });
        expect([language, code, sentence]).toEqual([language, code, expect.stringMatching(/\.$/)]);
        expect(sentence).not.toMatch(/[{}]|undefined|NaN/);
      }
    }
  });

  it('counts in what people count in: seconds and megabytes', () => {
    const say = (key: TextKey, values = {}) => fillGaps(defaultTexts.en?.[key] ?? '', values);
    expect(sayRefusal(say, { code: 'too-many', waitMs: 11_200 })).toContain('in 12 seconds');
    expect(sayRefusal(say, { code: 'too-large', limit: 10 * 1024 * 1024 })).toContain('10 MB');
    expect(sayRefusal(say, { code: 'text-too-long' })).toContain('4000 characters');
  });
});

describe('a view that is put on', () => {
  it('gives the page its language, direction, colours and size of text', () => {
    const written: string[] = [];
    const replace = jest.fn((text: string) => written.push(text));
    Object.assign(CSSStyleSheet.prototype, { replaceSync: replace });
    const dress = plainDress();
    dress.look.textSize = 'large';
    dress.texts = { ar: {} };
    wear(viewOf(dress, business, 'ar'));
    expect(document.documentElement.lang).toBe('ar');
    expect(document.documentElement.dir).toBe('rtl');
    expect(written[0]).toContain('font-size:120%');
    expect(written[0]).toContain('--paper:#FBF6EC');
    expect(written[0]).toContain('prefers-color-scheme:dark');
  });
});
