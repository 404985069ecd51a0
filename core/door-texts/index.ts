import { de } from './de';
import { en, type TextKey, type Texts } from './en';
import { es } from './es';
import { fr } from './fr';
import { it } from './it';
import type { LanguageCode } from './language';
import { nl } from './nl';
import { pl } from './pl';
import { pt } from './pt';

export type { TextKey, Texts } from './en';
export { fillGaps, gapsIn } from './fill';
export type { LanguageCode } from './language';
export { chooseLanguage, directionOf, toLanguage } from './language';

/** What a visitor reads unless the owner writes something else: one table a language. */
export const defaultTexts: Readonly<Record<LanguageCode, Texts>> = {
  en,
  es,
  fr,
  de,
  it,
  pt,
  nl,
  pl,
};

export const shippedLanguages: readonly LanguageCode[] = Object.keys(defaultTexts);

export const textKeys = Object.keys(en) as TextKey[];

/** The default texts of a language; for one that does not ship, those of the fallback, or English. */
export const textsIn = (language: LanguageCode, fallback: LanguageCode = 'en'): Texts =>
  defaultTexts[language] ?? defaultTexts[fallback] ?? en;
