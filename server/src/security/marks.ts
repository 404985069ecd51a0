import { createHmac, timingSafeEqual } from 'node:crypto';

/** A keyed mark of some bytes (HMAC, RFC 2104). */
export const keyedMark = (
  hash: 'sha256' | 'sha512',
  key: string | Buffer,
  ...parts: readonly (string | Buffer)[]
): Buffer => {
  const mark = createHmac(hash, key);
  for (const part of parts) mark.update(part);
  return mark.digest();
};

/** Whether a mark is the right one, without telling by the time that it takes how much of it is. */
export const isRightMark = (given: Buffer, right: Buffer): boolean =>
  given.length === right.length && timingSafeEqual(given, right);
