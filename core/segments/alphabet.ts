/** The basic character table of text messages (3GPP TS 23.038, 6.2.1), without the escape to the other table. */
const BASIC =
  '@£$¥èéùìòÇ\nØø\rÅåΔ_ΦΓΛΩΠΨΣΘΞÆæßÉ !"#¤%&\'()*+,-./0123456789:;<=>?¡ABCDEFGHIJKLMNOPQRSTUVWXYZÄÖÑÜ§¿abcdefghijklmnopqrstuvwxyzäöñüà';

/** Its extension table (6.2.1.1): each of these takes two places. */
const EXTENSION = '\f^{}\\[~]|€';

const basic: ReadonlySet<string> = new Set(BASIC);
const extension: ReadonlySet<string> = new Set(EXTENSION);

/** How many places a character takes in the alphabet of text messages: 1, or 2 from its extension; 0: it is not in it. */
export const septetsOf = (character: string): 0 | 1 | 2 => {
  if (basic.has(character)) return 1;
  return extension.has(character) ? 2 : 0;
};

/** What people and their programs type in place of what the alphabet has. */
const instead: Readonly<Record<string, string>> = {
  '‘': "'",
  '’': "'",
  '‚': "'",
  '‹': '<',
  '›': '>',
  '“': '"',
  '”': '"',
  '„': '"',
  '«': '"',
  '»': '"',
  '–': '-',
  '—': '-',
  '‐': '-',
  '‑': '-',
  '−': '-',
  '…': '...',
  '·': '.',
  '•': '-',
  '→': '->',
  '←': '<-',
  '×': 'x',
  '÷': '/',
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '°': ' deg',
  '`': "'",
  '´': "'",
  '™': '(TM)',
  '©': '(c)',
  '®': '(R)',
  '№': 'No',
  '\t': ' ',
  '\u00a0': ' ',
  '\u2009': ' ',
  '\u202f': ' ',
  '\u200b': '',
  œ: 'oe',
  Œ: 'OE',
  ł: 'l',
  Ł: 'L',
  đ: 'd',
  Đ: 'D',
};

/** What the alphabet has in place of a character, '' to leave it out; null: nothing that says the same. "’" → "'" */
export const inAlphabet = (character: string): string | null => {
  if (septetsOf(character) > 0) return character;
  const known = instead[character];
  if (known !== undefined) return known;
  // Without its accent it is read the same: "ç" → "c".
  const plain = character.normalize('NFD').replace(/\p{M}/gu, '');
  return plain !== '' && plain !== character && [...plain].every(septetsOf) ? plain : null;
};
