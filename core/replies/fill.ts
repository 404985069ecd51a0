import type { GapName } from '../gaps';
import { GAP_LONGEST, type Gap, piecesOf, type Stretch } from '../gaps';

/** What is known to fill gaps with; null or missing: not known. */
export type GapFacts = Readonly<Partial<Record<GapName, string | null>>>;

/** Where a cursor stops in a text that was filled in. */
export interface Stop extends Stretch {
  name: string;
  /** It is a gap still, and the text may not be sent with it. */
  isOpen: boolean;
}

export interface Filled {
  text: string;
  /** In their order: what is open, and fallbacks of what is asked for. */
  stops: Stop[];
}

/** Null: it stays open. */
const valueFor = (gap: Gap, facts: GapFacts): string | null => {
  const known = gap.known === null ? null : facts[gap.known] || null;
  if (known !== null) return known;
  return gap.known === null && !gap.isAsked ? null : gap.fallback;
};

/** "Hello {first name|}, …" without a name is "Hello, …": no blank is left before what follows. */
const joined = (before: string, value: string, after: string): string =>
  value === '' && before.endsWith(' ') && /^([\s.,;:!?]|$)/.test(after)
    ? before.slice(0, -1)
    : before + value;

/**
 * A text with its gaps filled: what is known stands there, otherwise the gap's fallback, otherwise the gap itself, open.
 * "Hi {first name|there}, {order number?}" and nothing known → "Hi there, {order number?}", with one stop, open.
 */
export const fillIn = (text: string, facts: GapFacts): Filled => {
  const stops: Stop[] = [];
  let filled = '';
  for (const piece of piecesOf(text)) {
    const own = text.slice(piece.from, piece.to);
    if (piece.kind !== 'gap') {
      filled += own;
      continue;
    }
    const value = valueFor(piece, facts);
    filled = joined(filled, value ?? own, text.slice(piece.to));
    const isStop = value === null || (piece.isAsked && value !== '');
    if (!isStop) continue;
    const to = filled.length;
    const from = to - (value ?? own).length;
    stops.push({ from, to, name: piece.name, isOpen: value === null });
  }
  return { text: filled, stops };
};

/** What an unclosed brace is about: the word behind it; '' where none stands there. */
const begunAt = (text: string, at: number): string =>
  /^\{(\p{L}[\p{L}\p{M}]*)/u.exec(text.slice(at, at + GAP_LONGEST))?.[1] ?? '';

/**
 * The gaps of a text that is about to be sent, each of which holds it back; also one inside another, and one that was
 * begun and not closed. "See {page} at 9" → [page]; "f(x) = {" → [].
 */
export const openGaps = (text: string): Stop[] =>
  piecesOf(text).flatMap((piece): Stop[] => {
    const { from, to } = piece;
    if (piece.kind === 'gap') return [{ from, to, name: piece.name, isOpen: true }];
    if (piece.kind !== 'broken') return [];
    if (piece.why === 'nested') {
      return [{ from, to, name: text.slice(from + 1, to - 1), isOpen: true }];
    }
    const begun = piece.why === 'unclosed' ? begunAt(text, from) : '';
    return begun ? [{ from, to: from + 1 + begun.length, name: begun, isOpen: true }] : [];
  });

/** A stored text in a list: its gaps by their names, on one line. "Hi {first name|there}" → "Hi ‹first name›". */
export const briefOf = (text: string): string =>
  piecesOf(text)
    .map((piece) => (piece.kind === 'gap' ? `‹${piece.name}›` : text.slice(piece.from, piece.to)))
    .join('')
    .replace(/\s+/g, ' ');

/** What a stored text says by itself, without its gaps. "Hi {first name|there}, we open" → "Hi  , we open". */
export const withoutGaps = (text: string): string =>
  piecesOf(text)
    .map((piece) => (piece.kind === 'gap' ? ' ' : text.slice(piece.from, piece.to)))
    .join('');
