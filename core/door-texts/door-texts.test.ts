import { readdirSync } from 'node:fs';
import {
  chooseLanguage,
  defaultTexts,
  directionOf,
  fillGaps,
  gapsIn,
  shippedLanguages,
  textKeys,
  textsIn,
  toLanguage,
} from '.';

describe('what visitors read', () => {
  it('is there in eight languages, one file each', () => {
    const files = readdirSync(__dirname)
      .map((name) => /^([a-z]{2})\.ts$/.exec(name)?.[1])
      .filter(Boolean);
    expect(files.sort()).toEqual(['de', 'en', 'es', 'fr', 'it', 'nl', 'pl', 'pt']);
    expect([...shippedLanguages].sort()).toEqual(files);
  });

  it('says everything in each of them, with the same gaps, and nothing twice by mistake', () => {
    expect(textKeys.length).toBeGreaterThan(80);
    for (const [language, texts] of Object.entries(defaultTexts)) {
      expect([language, Object.keys(texts)]).toEqual([language, textKeys]);
      for (const key of textKeys) {
        expect([language, key, texts[key].trim()]).not.toEqual([language, key, '']);
        expect([language, key, gapsIn(texts[key]).sort()]).toEqual([
          language,
          key,
          gapsIn(textsIn('en')[key]).sort(),
        ]);
      }
    }
  });

  it('is translated, not copied: few texts are the same as in English', () => {
    for (const language of shippedLanguages.filter((one) => one !== 'en')) {
      const same = textKeys.filter((key) => textsIn(language)[key] === textsIn('en')[key]);
      expect(same.length).toBeLessThan(5);
    }
  });

  it('has no exclamation marks', () => {
    for (const texts of Object.values(defaultTexts)) {
      for (const text of Object.values(texts)) expect(text).not.toMatch(/[!¡]/);
    }
  });
});

describe('the language', () => {
  it('is the first that there is of those asked for, otherwise the fallback', () => {
    expect(chooseLanguage(['de-AT', 'en'], shippedLanguages, 'en')).toBe('de');
    expect(chooseLanguage(['sv', 'pl;q=0.8'], shippedLanguages, 'en')).toBe('pl');
    expect(chooseLanguage(['', 'xx'], shippedLanguages, 'nl')).toBe('nl');
    expect(toLanguage('EN_gb')).toBe('en');
    expect(toLanguage('<script>')).toBe('');
    expect(toLanguage('english')).toBe('');
  });

  it('is written from right to left where it is', () => {
    expect(['ar', 'he', 'fa', 'ur'].map(directionOf)).toEqual(['rtl', 'rtl', 'rtl', 'rtl']);
    expect(directionOf('de')).toBe('ltr');
  });
});

it('gaps are filled in, and one without a value leaves nothing behind', () => {
  expect(fillGaps('Back at {time}', { time: '14:00' })).toBe('Back at 14:00');
  expect(fillGaps('Hello {name}, {name}', {})).toBe('Hello , ');
  expect(fillGaps('{a}', { a: '$& {b}' })).toBe('$& {b}');
});
