/** The languages that the app speaks; the first is spoken where none of a person's own is among them. */
export const languages = ['en'] as const;
export type Language = (typeof languages)[number];

/** A subject's sentences: asked for while drawing, and there in every language. */
export interface Wording<Table> {
  (): Table;
  readonly tables: Readonly<Record<Language, Table>>;
}

let spoken: Language | null = null;

/** Which of our languages somebody understands best, by what their browser says of them. */
export const bestOf = (understood: readonly string[]): Language =>
  understood
    .map((tag) => languages.find((language) => language === tag.slice(0, 2).toLowerCase()))
    .find((language) => language !== undefined) ?? languages[0];

/** Chooses the language of all that is drawn from now on. */
export const speak = (language: Language): void => {
  spoken = language;
};

/**
 * The wording of one subject, of one shape in every language. Throws where it is asked for before a language
 * was chosen: a sentence taken while a module loads would stay in the language of that moment.
 */
export const wording = <Table>(tables: Readonly<Record<Language, Table>>): Wording<Table> =>
  Object.assign(
    (): Table => {
      if (!spoken) throw new Error('Wording was asked for before a language was chosen.');
      return tables[spoken];
    },
    { tables },
  );
