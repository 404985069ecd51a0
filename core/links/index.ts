import { LinkifyIt } from 'linkify-it';

export interface Piece {
  text: string;
  /** Where it begins in the whole text. */
  at: number;
  /** An address to open, http, https or mailto only; null for plain words. */
  href: string | null;
}

const links = new LinkifyIt({ fuzzyIP: false, fuzzyEmail: true, fuzzyLink: true });
links.add('ftp:', null);
links.add('//', null);

/** Cuts a text into plain words and links. "See a.example.com" → ["See ", link]. Never a script address. */
export const pieces = (text: string): Piece[] => {
  const found = links.match(text);
  if (!found) return [{ text, at: 0, href: null }];
  const cut: Piece[] = [];
  let at = 0;
  for (const match of found) {
    if (match.index > at) cut.push({ text: text.slice(at, match.index), at, href: null });
    cut.push({ text: match.raw, at: match.index, href: match.url });
    at = match.lastIndex;
  }
  if (at < text.length) cut.push({ text: text.slice(at), at, href: null });
  return cut;
};
