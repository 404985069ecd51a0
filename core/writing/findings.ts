import { type Broken, piecesOf, type Stretch } from '../gaps';

/** Something in a stored text that its writer would rather not send a thousand times. */
export type Finding = Stretch & {
  kind:
    | 'doubled'
    | 'spaces'
    | 'placeholder'
    | 'unknown-gap'
    | 'never-filled'
    | 'broken'
    | 'spelling'
    | 'link';
  /** The words concerned. */
  words: string;
  /** What could stand there instead, best first. */
  instead: string[];
  /** Of broken braces. */
  why?: Broken['why'];
};

/** More than these in one text are no findings but another language. */
export const FINDINGS_MOST = 50;

const placeholders =
  'NAME|FIRSTNAME|FIRST NAME|SURNAME|CUSTOMER|DATE|TIME|ORDER|NUMBER|PRICE|PRODUCT|ITEM|ADDRESS|LINK|URL|PHONE|EMAIL|INSERT|TODO|TBC|TBD|' +
  'VORNAME|NACHNAME|DATUM|UHRZEIT|BESTELLUNG|PRÉNOM|PRENOM|NOM|HEURE|COMMANDE|NOMBRE|FECHA|HORA|PEDIDO|NOME|DATA|ORA|ORDINE|NAAM|TIJD|IMIĘ|NAZWISKO';

/** A gap of the old kind, which nobody fills in: NAME, [name], <name>, %name%, XXX, ____. */
const placeholder = new RegExp(
  `(?<![\\p{L}\\p{N}])(?:(?:${placeholders})(?![\\p{L}\\p{N}])|X{3,}(?![\\p{L}\\p{N}])|_{3,})` +
    '|\\[[\\p{L} ]{2,30}\\](?!\\()|<[\\p{L} ]{2,30}>|%[\\p{L}_]{2,30}%',
  'gu',
);

const doubled = /(?<![\p{L}\p{N}'’-])(\p{L}[\p{L}\p{M}'’]*)(\s+)\1(?![\p{L}\p{N}'’-])/giu;

/** Words that are right twice in a row. */
const rightTwice = new Set([
  'had',
  'that',
  'die',
  'das',
  'der',
  'sie',
  'nous',
  'vous',
  'bye',
  'no',
  'so',
]);

const spaces = /(?<=\S)[ \u00A0]{2,}(?=\S)/g;

const stretchOf = (found: RegExpMatchArray): Stretch => {
  const from = found.index ?? 0;
  return { from, to: from + found[0].length };
};

const ofBraces = (text: string): Finding[] =>
  piecesOf(text).flatMap((piece): Finding[] => {
    const { from, to } = piece;
    const words = text.slice(from, to);
    if (piece.kind === 'broken') {
      return [{ kind: 'broken', from, to, words, instead: [], why: piece.why }];
    }
    if (piece.kind !== 'gap' || piece.known || piece.isAsked) return [];
    const { name, fallback } = piece;
    const rest = fallback === null ? '' : `|${fallback}`;
    return [{ kind: 'unknown-gap', from, to, words: name, instead: [`{${name}?${rest}}`] }];
  });

const isApart = (one: Stretch, others: readonly Stretch[]): boolean =>
  others.every(({ from, to }) => one.to <= from || one.from >= to);

/**
 * What can be found wrong in a text without a dictionary: doubled words, spaces, gaps of the old kind, braces.
 * "Hello  NAME" → two spaces, and a gap that was left. In the order of their places; at most FINDINGS_MOST.
 */
export const findingsIn = (text: string): Finding[] => {
  const gaps = piecesOf(text).filter(({ kind }) => kind !== 'text');
  const inText = (found: Iterable<RegExpMatchArray>, to: (one: RegExpMatchArray) => Finding) =>
    [...found].map(to).filter((one) => isApart(one, gaps));
  const found = [
    ...ofBraces(text),
    ...inText(text.matchAll(placeholder), (one) => ({
      kind: 'placeholder',
      ...stretchOf(one),
      words: one[0],
      instead: [`{${one[0].replace(/[[\]<>%_]/g, '').toLowerCase() || 'detail'}?}`],
    })),
    ...inText(text.matchAll(spaces), (one) => ({
      kind: 'spaces',
      ...stretchOf(one),
      words: one[0],
      instead: [' '],
    })),
    ...inText(text.matchAll(doubled), (one) => ({
      kind: 'doubled',
      ...stretchOf(one),
      words: one[0],
      instead: [one[1] ?? ''],
    })).filter(({ instead }) => !rightTwice.has(instead[0]?.toLowerCase() ?? '')),
  ];
  return found.sort((a, b) => a.from - b.from).slice(0, FINDINGS_MOST);
};

/**
 * What is found wrong in a text in which nothing is filled in: of what was found in it as if it had gaps. A gap there is
 * read as it is written; no gap is a way out, and braces that are none are its own matter.
 */
export const findingsWithoutGaps = (text: string, findings: readonly Finding[]): Finding[] => {
  const gaps = piecesOf(text).flatMap((piece): Finding[] => {
    if (piece.kind !== 'gap') return [];
    const { from, to, fallback } = piece;
    const instead = fallback ? [fallback] : [];
    return [{ kind: 'never-filled', from, to, words: text.slice(from, to), instead }];
  });
  const others = findings
    .filter(({ kind }) => kind !== 'unknown-gap' && kind !== 'broken')
    .map((one) => ({ ...one, instead: one.instead.filter((instead) => !instead.startsWith('{')) }));
  return [...gaps, ...others].sort((a, b) => a.from - b.from).slice(0, FINDINGS_MOST);
};

/** The words of a text that a dictionary is asked about: no gaps, links, addresses, numbers. */
export const wordsToSpell = (text: string): (Stretch & { word: string })[] => {
  const apart = [
    ...piecesOf(text).filter(({ kind }) => kind !== 'text'),
    ...[...text.matchAll(placeholder)].map(stretchOf),
    ...[...text.matchAll(/\S*(?:@|:\/\/|www\.|\w\.\w{2,}\b)\S*/gu)].map(stretchOf),
  ];
  const found = text.matchAll(/[\p{L}\p{M}]+(?:['’-][\p{L}\p{M}]+)*/gu);
  return [...found].flatMap((one) => {
    const stretch = stretchOf(one);
    const touches = /[\p{N}_#@]/u;
    const isPartOfMore =
      touches.test(text[stretch.from - 1] ?? '') || touches.test(text[stretch.to] ?? '');
    return isPartOfMore || !isApart(stretch, apart) ? [] : [{ ...stretch, word: one[0] }];
  });
};

/** A text with something else in one place of it. */
export const withInstead = (text: string, { from, to }: Stretch, instead: string): string =>
  text.slice(0, from) + instead + text.slice(to);
