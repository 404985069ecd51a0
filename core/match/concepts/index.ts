import { languageCalled } from '../stems';
import { de } from './de';
import { en } from './en';
import { es, fr, it, nl, pl, pt } from './others';
import type { Concepts } from './table';

const tables: Readonly<Record<string, Concepts>> = { en, de, fr, es, it, nl, pl, pt };

/** No word begins so: what stands for a concept is never a stem. */
const SIGN = '§';

interface Known {
  byStem: ReadonlyMap<string, readonly string[]>;
  stemsOf: ReadonlyMap<string, readonly string[]>;
  phrases: Concepts['phrases'];
}

const read = (language: string): Known => {
  const { words, phrases } = tables[language] ?? { words: {}, phrases: [] };
  const { stem } = languageCalled(language);
  const byStem = new Map<string, string[]>();
  const stemsOf = new Map<string, string[]>();
  for (const [name, list] of Object.entries(words)) {
    const concept = SIGN + name;
    const stems = [...new Set(list.split(' ').map(stem))];
    stemsOf.set(concept, stems);
    for (const one of stems) byStem.set(one, [...(byStem.get(one) ?? []), concept]);
  }
  return {
    byStem,
    stemsOf,
    phrases: phrases.map(([form, name]) => [form, SIGN + name] as const),
  };
};

const known = new Map<string, Known>();

const knownOf = (language: string): Known => {
  const before = known.get(language) ?? read(language);
  known.set(language, before);
  return before;
};

/** The concepts that a stem stands for; often none. */
export const conceptsOf = (stem: string, language: string): readonly string[] =>
  knownOf(language).byStem.get(stem) ?? [];

/** The concepts that turns of speech in a text stand for. ("How much is it?", "en") → ["§cost"] */
export const conceptsIn = (text: string, language: string): string[] => {
  const small = text.toLowerCase().replaceAll('’', "'");
  return knownOf(language).phrases.flatMap(([form, concept]) =>
    form.test(small) ? [concept] : [],
  );
};

/** The stems by which a concept is said: these are what a reader finds in a text. */
export const stemsOfConcept = (concept: string, language: string): readonly string[] =>
  knownOf(language).stemsOf.get(concept) ?? [];

/** Whether a language has a word of this stem in its concepts. */
export const isConceptStem = (stem: string, language: string): boolean =>
  knownOf(language).byStem.has(stem);
