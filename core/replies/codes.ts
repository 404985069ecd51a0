export const CODE_LONGEST = 20;

/** A code as it is kept; what cannot be typed behind two dots goes. " Opening-Hours! " → "opening-hours". */
export const cleanCode = (typed: string): string =>
  typed
    .normalize('NFC')
    .toLowerCase()
    .replace(/[^\p{L}\p{M}\p{N}]+/gu, '-')
    .slice(0, CODE_LONGEST)
    .replace(/^-+|-+$/g, '');

/** A code that is being typed: two dots at the beginning of a word, and what stands behind them. */
export interface TypedCode {
  /** Where the dots begin. */
  from: number;
  to: number;
  code: string;
}

const codeBefore = /(^|\s)\.\.([\p{L}\p{M}\p{N}-]{0,20})$/u;

/**
 * The code that stands right before the cursor; null: none. ("Hi ..ho", 7) → from 3, code "ho"; "hm..well" and "wait ..."
 * have none.
 */
export const codeAt = (text: string, cursor: number): TypedCode | null => {
  const found = codeBefore.exec(text.slice(Math.max(0, cursor - CODE_LONGEST - 3), cursor));
  if (!found) return null;
  const code = found[2] ?? '';
  return { from: cursor - code.length - 2, to: cursor, code: code.toLowerCase() };
};
