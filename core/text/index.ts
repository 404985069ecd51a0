import type { FileMention } from '../conversation/entry';

/** The longest message, in UTF-16 units as a text field counts them. */
export const MESSAGE_LONGEST = 4_000;
/** More than this is not taken into a field at all: drawing it would hold the page up. */
export const TEXT_HELD_MOST = 20_000;
export const NAME_LONGEST = 80;
export const EMAIL_LONGEST = 254;
export const PHONE_LONGEST = 32;

// Controls but for tab and newline, and noncharacters: nothing that a person types.
const controls = /(?![\t\n])\p{Cc}|[\uFFFE\uFFFF]/gu;

// Overrides reorder the letters of what stands after them ("gnp.exe" reads "exe.png"); the plain
// marks U+200E and U+200F only help mixed text along and stay.
const overrides = /[\u202A-\u202E\u2066-\u2069]/g;

const loneSurrogates = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;

// What most people type has none of these: of each message that is found out at once.
const plain = /^[\t\n\u0020-\u007E\u00A0-\u1FFF]*$/;

const clean = (text: string): string =>
  plain.test(text)
    ? text
    : text
        .replace(/\r\n?/g, '\n')
        .replace(controls, '')
        .replace(overrides, '')
        .replace(loneSurrogates, '\uFFFD');

/** Whether anything of a text can be seen: zero-width marks, blank letters and white space cannot. */
const isVisible = (text: string): boolean =>
  /[^\p{White_Space}\p{Default_Ignorable_Code_Point}\p{Cf}\u2800]/u.test(text);

const visible = (text: string): string => (isVisible(text) ? text : '');

/** A message as it is kept: line breaks stay, invisible tricks go, no blank edges. "\u202Ehi\r\n" → "hi"; nothing to see → "". */
export const cleanMessage = (text: string): string =>
  visible(
    clean(text)
      .replace(/\n{4,}/g, '\n\n\n')
      .trim(),
  );

const oneSpaced = (text: string): string =>
  /\s\s|[^\S ]/.test(text) ? text.replace(/\s+/g, ' ') : text;

/** A name, a title, a field of one line: as `cleanMessage`, with any run of white space as one space. */
export const cleanLine = (text: string): string => visible(oneSpaced(clean(text)).trim());

/** One line that stands for a message in a list; empty text → the name of its first file. */
export const summary = (text: string, files: readonly FileMention[]): string => {
  const line = cleanLine(text).slice(0, 140);
  if (line) return line;
  const [first] = files;
  return first ? first.name : '';
};

/** Up to two letters that stand for somebody without a picture. "Maren Oduya" → "MO", "" → "". */
export const initials = (name: string): string => {
  const words = name.split(/\s+/).filter(Boolean);
  const first = words[0];
  if (!first) return '';
  const last = words.length > 1 ? words[words.length - 1] : undefined;
  return [first, last]
    .map((word) => (word ? String.fromCodePoint(word.codePointAt(0) ?? 63) : ''))
    .join('')
    .toLocaleUpperCase();
};

/** Whether a text has the form of a mail address: a sanity check, not proof that it exists. */
export const looksLikeEmail = (text: string): boolean =>
  text.length <= EMAIL_LONGEST && /^[^\s@<>(),;:"[\]]+@[^\s@.<>]+(\.[^\s@.<>]+)+$/.test(text);

/** Whether a text has the form of a phone number: digits and the usual marks between them. */
export const looksLikePhone = (text: string): boolean =>
  text.length <= PHONE_LONGEST && /^\+?[\d\s().\-/]+$/.test(text) && /(\D*\d){6,15}\D*$/.test(text);
