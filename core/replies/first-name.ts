const titles = new Set(
  'mr mrs ms miss mx dr prof sir herr frau mme mlle m sr sra srta dott sig sigra dhr mevr pan pani'.split(
    ' ',
  ),
);

/** Words that make a name a business's, not a person's. */
const businesses = new Set(
  (
    'ltd limited llc inc plc co company gmbh ag kg sarl sas sa srl spa bv nv sp zoo lda cafe café bistro restaurant ' +
    'hotel inn pub bar bakery shop store studio salon garage garden gardens nursery farm school college club church ' +
    'office team group services gallery clinic surgery'
  ).split(' '),
);

const bare = (word: string): string => word.toLowerCase().replace(/[.,]/g, '');

const isName = (word: string): boolean => /^\p{L}[\p{L}\p{M}'’.-]*$/u.test(word);

const FIRST_NAME_LONGEST = 40;

/**
 * By what somebody is greeted; null where that cannot be told from what they are called.
 * "Ada Lindqvist" → "Ada", "Dr. Ada Lindqvist" → "Ada", "Old Oak Café" → null, "wren_77" → null.
 */
export const firstNameOf = (name: string): string | null => {
  const words = name.trim().split(/\s+/).filter(Boolean);
  if (words.some((word) => businesses.has(bare(word)))) return null;
  const [first, ...others] = words.filter((word) => !titles.has(bare(word)));
  // Who is called by title and one name only is greeted by neither.
  const isOnlyFamily = words.length === 2 && others.length === 0;
  if (!first || isOnlyFamily || !isName(first)) return null;
  if (first.length > FIRST_NAME_LONGEST || first.endsWith('.')) return null;
  return first;
};
