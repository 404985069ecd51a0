import { cleanLine } from '../text';

/** What may be sent along with a message. */
export const FILE_LIMITS = {
  /** The largest file, in bytes. */
  largestBytes: 10 * 1024 * 1024,
  /** How many with one message. */
  most: 6,
  /** The longest side of a picture that is taken in, in pixels, before it is made smaller. */
  longestSidePixels: 10_000,
  /** How many pixels a picture may have altogether: decoding one needs four bytes for each. */
  pixelsMost: 50_000_000,
} as const;

/** A file's size as people read it. 2_500 → "2 kB", 3_400_000 → "3.2 MB". */
export const sizeText = (bytes: number): string =>
  bytes < 1024 * 1024
    ? `${Math.max(1, Math.round(bytes / 1024))} kB`
    : `${(bytes / 1024 / 1024).toFixed(1)} MB`;

const NAME_LONGEST = 120;

// Marks that reorder or hide what stands beside them: in a file's name, its ending ("gpj.exe").
const directionMarks = /[\u200B-\u200F\u2060\u061C\uFEFF]/g;

/** A file's name as it is kept: one line without a path or direction marks, its end at most. "../a\u200Eb" → ".. ab". */
export const cleanFileName = (typed: string): string =>
  cleanLine(typed.replace(directionMarks, '').replace(/[/\\]/g, ' ')).slice(-NAME_LONGEST) ||
  'file';
