/** What several words and turns of speech of a language mean. The concepts are the same in all languages. */
export interface Concepts {
  /** Words, parted by spaces, by the concept that they stand for. */
  words: Readonly<Record<string, string>>;
  /** Turns of speech in small letters that say nothing word by word. */
  phrases: readonly (readonly [RegExp, string])[];
}
