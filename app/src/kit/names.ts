import { kitWords } from './words';

const namesOf = (type: 'language' | 'region'): Intl.DisplayNames =>
  new Intl.DisplayNames([kitWords().locale], { type });

/** A language by its code, as people call it; the code itself where it has no name. */
export const languageName = (code: string): string => {
  try {
    return namesOf('language').of(code) ?? code;
  } catch {
    return code;
  }
};

/** All countries by name, for a list. */
export const countryOptions = (codes: readonly string[]): [string, string][] => {
  const names = namesOf('region');
  return codes
    .map((code): [string, string] => [code, names.of(code) ?? code])
    .sort(([, one], [, other]) => one.localeCompare(other, kitWords().locale));
};
