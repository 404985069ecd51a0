declare module 'snowball-stemmers' {
  export interface Stemmer {
    stem(word: string): string;
  }
  export const newStemmer: (algorithm: string) => Stemmer;
  export const algorithms: () => string[];
}
