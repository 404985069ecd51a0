/** A language by its two- or three-letter code, as in `lang="de"`. */
export type LanguageCode = string;

const rightToLeft = new Set([
  'ar',
  'arc',
  'ckb',
  'dv',
  'fa',
  'he',
  'ku',
  'ps',
  'sd',
  'ug',
  'ur',
  'yi',
]);

/** Which way a language is written. "ar" → "rtl", "de" → "ltr". */
export const directionOf = (language: LanguageCode): 'ltr' | 'rtl' =>
  rightToLeft.has(language) ? 'rtl' : 'ltr';

/** The language in a tag. "de-AT" → "de", "EN_gb" → "en"; what is no tag → "". */
export const toLanguage = (tag: string): LanguageCode =>
  /^\s*([a-z]{2,3})(?![a-z])/i.exec(tag)?.[1]?.toLowerCase() ?? '';

/** The first asked-for language that there is; otherwise the fallback. */
export const chooseLanguage = (
  asked: readonly string[],
  available: readonly LanguageCode[],
  fallback: LanguageCode,
): LanguageCode => asked.map(toLanguage).find((one) => available.includes(one)) ?? fallback;
