import { type GapName, gapCalled } from './names';

/** A stretch of a text: from a place in it, to before another, in UTF-16 units. */
export interface Stretch {
  from: number;
  to: number;
}

/** A gap in a text: what is to stand there, and what stands there where that is not known. */
export interface Gap extends Stretch {
  kind: 'gap';
  /** As it is written, without braces and fallback; one of our own keeps its question mark. */
  name: string;
  /** Which of those that are filled from what is known; null: none. */
  known: GapName | null;
  /** One of the writer's own, asked for on use: `{order number?}`. */
  isAsked: boolean;
  /** Null: none is given. */
  fallback: string | null;
}

/** Braces that make no gap. */
export interface Broken extends Stretch {
  kind: 'broken';
  why: 'unclosed' | 'nested' | 'stray' | 'empty';
}

export type Piece = (Stretch & { kind: 'text' }) | Gap | Broken;

/** Longer than this is no gap; a brace is searched for no further. */
export const GAP_LONGEST = 120;

const hasName = /[\p{L}\p{N}]/u;

const gapOf = (inside: string, from: number, to: number): Gap | Broken => {
  const bar = inside.indexOf('|');
  const name = (bar < 0 ? inside : inside.slice(0, bar)).trim().replace(/\s+/g, ' ');
  if (!hasName.test(name)) return { kind: 'broken', from, to, why: 'empty' };
  const isAsked = name.endsWith('?');
  return {
    kind: 'gap',
    from,
    to,
    name,
    known: isAsked ? null : gapCalled(name),
    isAsked,
    fallback: bar < 0 ? null : inside.slice(bar + 1).trim(),
  };
};

/** What begins with the brace at `from`: a gap, or braces that are none. */
const bracesAt = (text: string, from: number): Gap | Broken => {
  let depth = 1;
  let isNested = false;
  const end = Math.min(text.length, from + GAP_LONGEST);
  for (let at = from + 1; at < end; at += 1) {
    const character = text[at];
    if (character === '\n') break;
    if (character === '{') {
      depth += 1;
      isNested = true;
    }
    if (character === '}') depth -= 1;
    if (depth > 0) continue;
    return isNested
      ? { kind: 'broken', from, to: at + 1, why: 'nested' }
      : gapOf(text.slice(from + 1, at), from, at + 1);
  }
  return { kind: 'broken', from, to: from + 1, why: 'unclosed' };
};

/**
 * A text taken apart, in order and without a rest. "Hi {first name|there}" → the text "Hi ", and a gap with a fallback.
 * What is no gap is told as broken and never lost.
 */
export const piecesOf = (text: string): Piece[] => {
  const pieces: Piece[] = [];
  let at = 0;
  for (const { index } of text.matchAll(/[{}]/g)) {
    if (index < at) continue;
    if (index > at) pieces.push({ kind: 'text', from: at, to: index });
    const piece: Piece =
      text[index] === '{'
        ? bracesAt(text, index)
        : { kind: 'broken', from: index, to: index + 1, why: 'stray' };
    pieces.push(piece);
    at = piece.to;
  }
  if (at < text.length) pieces.push({ kind: 'text', from: at, to: text.length });
  return pieces;
};
