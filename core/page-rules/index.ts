/** How a door behaves on a page before anybody opens it. */
export type Manner = 'quiet' | 'peek' | 'open';

export interface MannerRule {
  /** Pages by path, `*` standing for anything: "/shop/*". */
  pattern: string;
  manner: Manner;
  afterSeconds: number;
}

/** "All", "only these", or "all but these". */
export interface Choosing {
  mode: 'all' | 'only' | 'except';
  these: string[];
}

export const PATTERN_LONGEST = 200;

const asPath = (text: string): string => {
  const path = text.toLowerCase().replace(/[?#].*$/, '');
  return path.length > 1 ? path.replace(/\/+$/, '') : path;
};

/**
 * Whether a page's path fits a pattern; `*` stands for any run of characters, also none. Capitals, a
 * slash at the end, query and fragment do not count. "/shop/*" fits "/shop/ferns" and "/shop" itself.
 */
export const fitsPattern = (pattern: string, path: string): boolean => {
  const page = asPath(path);
  const wanted = asPath(pattern);
  if (wanted.endsWith('/*') && page === wanted.slice(0, -2)) return true;
  const pieces = wanted.split('*');
  const last = pieces.length - 1;
  let at = 0;
  // Piece by piece from the left: no backtracking, however many stars somebody types.
  return pieces.every((piece, nth) => {
    const end = nth < last ? page.indexOf(piece, at) : page.length - piece.length;
    const found = nth ? end : 0;
    const isThere = found >= at && page.startsWith(piece, found);
    at = found + piece.length;
    return isThere && (nth < last || at === page.length);
  });
};

/** Whether a choosing takes something in, by whatever "fits" means for it. */
export const takesIn = (choosing: Choosing, fits: (one: string) => boolean): boolean =>
  choosing.mode === 'all' || choosing.these.some(fits) === (choosing.mode === 'only');

/** The first rule whose pattern fits the page; null when none does: the door stays quiet. */
export const mannerOn = (rules: readonly MannerRule[], path: string): MannerRule | null =>
  rules.find(({ pattern }) => fitsPattern(pattern, path)) ?? null;

/**
 * A pattern as people type it → as it is kept. "https://quillfern.example/Shop/*" → "/Shop/*",
 * "shop" → "/shop", "*" stays. Nothing usable → null.
 */
export const toPattern = (typed: string): string | null => {
  const text = typed.trim().replace(/^https?:\/\/[^/*]*/i, '');
  if (/\s/.test(text) || text.length > PATTERN_LONGEST) return null;
  if (!text) return typed.trim() ? '/' : null;
  const path = text.replace(/[?#].*$/, '').replace(/\*+/g, '*');
  return path.startsWith('/') || path.startsWith('*') ? path : `/${path}`;
};
