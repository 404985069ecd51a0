import type { FileMention, ShelfSaid } from '../../conversation';

/**
 * A line that was put together for a card, in the signs that every network has: one that text messages lack would make
 * all of them dearer (3GPP TS 23.038, 6.2.1).
 */
const plain = (line: string): string =>
  line
    .replaceAll(' · ', ', ')
    .replace(/^– /, '- ')
    // Between a price and its sign, in some languages.
    .replace(/[\u00a0\u202f]/g, ' ');

/** Something of the shelf where only words can be shown. */
export const shelfInPlainText = ({ name, lines, link, linkWords }: ShelfSaid): string =>
  [name, ...lines.map(plain), link && linkWords ? `${linkWords}: ${link}` : link]
    .filter(Boolean)
    .join('\n');

interface Said {
  text: string;
  files: readonly FileMention[];
  shelf?: readonly ShelfSaid[];
}

/** An answer as one text, for ways that show no cards: what is put in from the shelf are paragraphs behind it. */
export const wholeText = ({ text, shelf = [] }: Pick<Said, 'text' | 'shelf'>): string =>
  [text, ...shelf.map(shelfInPlainText)].filter(Boolean).join('\n\n');

/** All files that go with an answer: its own, and those of what is put in from the shelf. */
export const allFiles = ({ files, shelf = [] }: Pick<Said, 'files' | 'shelf'>): FileMention[] => [
  ...files,
  ...shelf.flatMap((one) => one.files),
];
