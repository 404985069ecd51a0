import { readFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { Hunspell, HunspellFactory } from 'hunspell-asm';

/** Words of one language, asked of its dictionary. */
export interface Asked {
  dictionary: DictionaryName;
  words: readonly string[];
}

/** A word that the dictionary does not have, and what may be meant, likeliest first. */
export interface Unknown {
  word: string;
  instead: string[];
}

/** Null: it could not be asked. */
export type Spell = (asked: Asked) => Promise<Unknown[] | null>;

/** Each is a package of its own, `dictionary-…`. */
const dictionaries = ['en', 'en-gb', 'de', 'fr', 'es', 'it', 'nl', 'pl', 'pt'] as const;
export type DictionaryName = (typeof dictionaries)[number];

export const isDictionary = (name: string): name is DictionaryName =>
  (dictionaries as readonly string[]).includes(name);

/** Suggesting takes up to half a second a word; whoever has more wrong writes another language. */
const SUGGESTED_FOR_MOST = 12;
/** Whoever writes asks about the same words again and again. */
const REMEMBERED_MOST = 2_000;
const SUGGESTIONS_MOST = 4;
const LOADED_MOST = 2;

interface Loaded {
  name: DictionaryName;
  hunspell: Hunspell;
  suggested: Map<string, string[]>;
  dispose: () => void;
}

/**
 * Dictionaries of the `dictionary-*` packages, read by Hunspell itself (WebAssembly); the last few stay loaded.
 * `entryOf`: where a package begins, as `require.resolve` says it; its files lie beside that.
 */
export const createSpeller = (entryOf: (packageName: string) => string): Spell => {
  let factory: Promise<HunspellFactory> | null = null;
  let loaded: Loaded[] = [];

  const load = async (name: DictionaryName): Promise<Loaded> => {
    factory ??= import('hunspell-asm').then(({ loadModule }) => loadModule());
    const folder = dirname(entryOf(`dictionary-${name}`));
    const [made, affixFile, wordFile] = await Promise.all([
      factory,
      readFile(join(folder, 'index.aff')),
      readFile(join(folder, 'index.dic')),
    ]);
    const [affixes, words] = [made.mountBuffer(affixFile), made.mountBuffer(wordFile)];
    const hunspell = made.create(affixes, words);
    const dispose = (): void => {
      hunspell.dispose();
      for (const path of [affixes, words]) made.unmount(path);
    };
    return { name, hunspell, suggested: new Map(), dispose };
  };

  const dictionary = async (name: DictionaryName): Promise<Loaded> => {
    const known = loaded.find((one) => one.name === name) ?? (await load(name));
    loaded = [known, ...loaded.filter((one) => one !== known)];
    for (const old of loaded.splice(LOADED_MOST)) old.dispose();
    return known;
  };

  const suggest = ({ hunspell, suggested }: Loaded, word: string): string[] => {
    const found = suggested.get(word) ?? hunspell.suggest(word).slice(0, SUGGESTIONS_MOST);
    if (suggested.size >= REMEMBERED_MOST) suggested.clear();
    suggested.set(word, found);
    return found;
  };

  return async ({ dictionary: name, words }) => {
    const known = await dictionary(name);
    const unknown = words.filter((word) => !known.hunspell.spell(word));
    return unknown.map((word, index) => ({
      word,
      instead: index < SUGGESTED_FOR_MOST ? suggest(known, word) : [],
    }));
  };
};
