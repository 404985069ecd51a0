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
