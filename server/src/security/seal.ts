import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { toDisk } from '../store/copies';
import { OWN_FILE_MODE } from '../store/hold';

const KEY_BYTES = 32;
const NONCE_BYTES = 12;
const TAG_BYTES = 16;

/** Where the key is: beside the database, so that a copied database opens nothing. */
export const keyPath = (dataDir: string): string => join(dataDir, 'porch.key');

/** The key that seals secrets: read, or made when it is first needed. */
export interface KeyFile {
  read(): Buffer | null;
  make(): Buffer;
}

export const keyFile = (path: string): KeyFile => ({
  read: () => {
    if (!existsSync(path)) return null;
    const key = Buffer.from(readFileSync(path, 'utf8').trim(), 'base64url');
    return key.length === KEY_BYTES ? key : null;
  },
  make: () => {
    const key = randomBytes(KEY_BYTES);
    const making = `${path}.making`;
    writeFileSync(making, `${key.toString('base64url')}\n`, { mode: OWN_FILE_MODE });
    toDisk(making);
    // One that cannot be read may still be mended: it is not overwritten.
    if (existsSync(path)) renameSync(path, `${path}.unreadable`);
    renameSync(making, path);
    return key;
  },
});

/** A key that lives as long as the process: where there is no folder. */
export const keyInMemory = (): KeyFile => {
  let key: Buffer | null = null;
  return {
    read: () => key,
    make: () => {
      key = randomBytes(KEY_BYTES);
      return key;
    },
  };
};

/**
 * Seals what nobody may read who has only the database (AES-256-GCM, NIST SP 800-38D); what it belongs to is
 * sealed in, so that one door's secret is not another one's.
 */
export const createSeal = (keys: KeyFile) => ({
  seal: (secret: string, of: string): Buffer => {
    const nonce = randomBytes(NONCE_BYTES);
    const cipher = createCipheriv('aes-256-gcm', keys.read() ?? keys.make(), nonce);
    cipher.setAAD(Buffer.from(of));
    const sealed = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()]);
    return Buffer.concat([nonce, cipher.getAuthTag(), sealed]);
  },
  /** Null where the key is missing, or is another one. */
  open: (sealed: Buffer, of: string): string | null => {
    const key = keys.read();
    if (!key || sealed.length < NONCE_BYTES + TAG_BYTES) return null;
    const decipher = createDecipheriv('aes-256-gcm', key, sealed.subarray(0, NONCE_BYTES));
    decipher.setAAD(Buffer.from(of));
    decipher.setAuthTag(sealed.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES));
    try {
      const opened = decipher.update(sealed.subarray(NONCE_BYTES + TAG_BYTES));
      return Buffer.concat([opened, decipher.final()]).toString('utf8');
    } catch {
      return null;
    }
  },
});

export type Seal = ReturnType<typeof createSeal>;

/** What is said to whoever looks after the server of doors whose secrets cannot be opened. */
export const shutInWords = (doors: readonly string[], path: string): string =>
  `The key in ${path} is missing, or another one than that with which the secrets of these doors were sealed: ${doors.join(', ')}.`;
