/** Why two people may be one: they say the same address or number, write from the same device, or have the same name. */
export const likenesses = ['email', 'phone', 'device', 'name'] as const;
export type Likeness = (typeof likenesses)[number];

/** A name that says less is many people's. */
const NAME_SHORTEST = 5;
const WORDS_FEWEST = 2;

/**
 * By what two names are compared: letters and digits only, without accents and capitals. "Rénée  O’Hara-Wren" → "renee o
 * hara wren". '' for a name that many people have: one word, or less than five letters.
 */
export const nameKey = (name: string): string => {
  const words = name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);
  const key = words.join(' ');
  return words.length >= WORDS_FEWEST && key.length >= NAME_SHORTEST ? key : '';
};

const weights: Readonly<Record<Likeness, number>> = { email: 4, phone: 4, device: 3, name: 2 };

/** The likeliest first: more and better reasons; of equal ones in their order. */
export const byLikeness = <One extends { reasons: readonly Likeness[] }>(
  found: readonly One[],
): One[] => {
  const weightOf = ({ reasons }: One): number =>
    reasons.reduce((sum, reason) => sum + weights[reason], 0);
  return [...found].sort((a, b) => weightOf(b) - weightOf(a));
};
