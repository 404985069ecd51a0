import { createHash, randomBytes } from 'node:crypto';
import { nanoid } from 'nanoid';

/** A secret for a cookie: 32 random bytes in base64url. */
export const newSecret = (): string => randomBytes(32).toString('base64url');

/** What is kept of a secret. Secrets are random, so a plain hash cannot be guessed backwards. */
export const hashSecret = (secret: string): string =>
  createHash('sha256').update(secret).digest('base64url');

export const newId = (): string => nanoid();
