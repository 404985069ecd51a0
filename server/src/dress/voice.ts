import { chooseLanguage, fillGaps } from '@porch/core/door-texts';
import { type Dress, languagesOf, textsOf } from '@porch/core/dress';

/** In which language a door speaks to somebody, and how it says its texts in that. */
export interface Voice {
  language: string;
  say: (key: keyof ReturnType<typeof textsOf>, values?: Readonly<Record<string, string>>) => string;
}

/** The voice of a door for whoever reads these languages, best first; '' is none. */
export const voiceOf = (dress: Dress, asked: readonly string[]): Voice => {
  const language = chooseLanguage(asked.filter(Boolean), languagesOf(dress), dress.fallback);
  const texts = textsOf(dress, language);
  return { language, say: (key, values = {}) => fillGaps(texts[key], values) };
};
