import type { LookedThrough, LookThrough, OwnWords, OwnWordsChange } from '@porch/contract/writing';
import { cleanLine } from '@porch/core/text';
import { OWN_WORDS_MOST, wordsToSpell } from '@porch/core/writing';
import type { Change } from '../inbox/batch';
import { Refused } from '../refused';
import type { Outside } from '../security/outside';
import type { Store } from '../store';
import { linksToNowhere } from './links';
import { type DictionaryName, isDictionary, type Spell } from './speller';

/** Where English is written as in the dictionary that has no country in its name. */
const americanCountries = new Set(['US', 'PR', 'PH', 'LR']);

const key = (word: string): string => word.normalize('NFC').replaceAll('’', "'").toLowerCase();

/** What is written to be sent many times is looked through: spelling, and links. */
export const createWriting = (services: {
  store: Store;
  change: Change;
  outside: Outside;
  spell: Spell;
}) => {
  const { store, change, outside, spell } = services;

  const dictionaryOf = (language: string): DictionaryName | null => {
    const country = store.business.read()?.country ?? '';
    const name = language === 'en' && !americanCountries.has(country) ? 'en-gb' : language;
    return isDictionary(name) ? name : null;
  };

  const spelled = async ({ text, language }: LookThrough) => {
    const dictionary = dictionaryOf(language);
    if (!dictionary) return null;
    const ours = new Set(store.ownWords.all().map(key));
    const words = wordsToSpell(text).filter(({ word }) => !ours.has(key(word)));
    const different = [...new Set(words.map(({ word }) => word.replaceAll('’', "'")))];
    const unknown = different.length > 0 ? await spell({ dictionary, words: different }) : [];
    if (unknown === null) return null;
    const byWord = new Map(unknown.map(({ word, instead }) => [word, instead]));
    return words.flatMap(({ from, to, word }) => {
      const instead = byWord.get(word.replaceAll('’', "'"));
      return instead ? [{ kind: 'spelling' as const, from, to, words: word, instead }] : [];
    });
  };

  const ownWords = (): OwnWords => ({ words: store.ownWords.all() });

  return {
    /** What a dictionary and the network find wrong in a text, by place. */
    lookThrough: async (typed: LookThrough): Promise<LookedThrough> => {
      const [spelling, links] = await Promise.all([
        spelled(typed),
        linksToNowhere(typed.text, outside),
      ]);
      const found = [...(spelling ?? []), ...links].map((one) => ({
        ...one,
        kind: one.kind === 'link' ? ('link' as const) : ('spelling' as const),
      }));
      return { found: found.sort((a, b) => a.from - b.from), isSpelled: spelling !== null };
    },
    ownWords,
    setOwnWords: ({ add, drop }: OwnWordsChange): OwnWords =>
      change(() => {
        for (const word of drop) store.ownWords.drop(word);
        for (const word of add.map(cleanLine).filter(Boolean)) store.ownWords.add(word);
        if (store.ownWords.all().length > OWN_WORDS_MOST) {
          throw new Refused('too-many-of-these', { limit: OWN_WORDS_MOST });
        }
        return ownWords();
      }),
  };
};
