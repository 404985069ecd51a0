import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import type { Clock } from '../clock';
import { createMadeSecret } from '../security/made-secret';
import type { Seal } from '../security/seal';
import type { FileRecord, Store } from '../store';

/** So long a file can be fetched by its link. */
const SHARED_MS = 30 * 24 * 3_600_000;
const MARK_BYTES = 18;

/**
 * Links by which whoever has one fetches a file that was sent to somebody, where their network carries no files. Each
 * is signed, and good for a while; nothing is kept of it.
 */
export const createSharedFiles = (services: {
  store: Store;
  seal: Seal;
  clock: Clock;
  origin: () => string;
}) => {
  const { store, clock, origin } = services;
  const made = createMadeSecret(services, 'shared-files', () =>
    randomBytes(32).toString('base64url'),
  );

  const markOf = (key: string, fileId: string, until: string): string =>
    createHmac('sha256', Buffer.from(key, 'base64url'))
      .update(`${fileId} ${until}`)
      .digest()
      .subarray(0, MARK_BYTES)
      .toString('base64url');

  return {
    /** The address of a file, good for 30 days; null where the key cannot be opened. */
    link: (fileId: string): string | null => {
      const key = made.read();
      if (key === null) return null;
      const until = Math.ceil((clock.now() + SHARED_MS) / 1_000).toString(36);
      return `${origin()}/f/${fileId}.${until}.${markOf(key, fileId, until)}`;
    },
    /** The file that a link is for; null where it is none of ours, or too old. */
    open: (token: string): FileRecord | null => {
      const [fileId = '', until = '', mark = '', ...more] = token.split('.');
      const key = made.read();
      if (key === null || more.length > 0) return null;
      const [given, right] = [mark, markOf(key, fileId, until)].map((text) => Buffer.from(text));
      if (!given || given.length !== right?.length || !timingSafeEqual(given, right)) return null;
      if (Number.parseInt(until, 36) * 1_000 <= clock.now()) return null;
      const file = store.files.byId(fileId);
      // What was never sent to anybody is nobody's to fetch.
      return file && (file.inThread || store.shelf.wasSaid(file.id)) ? file : null;
    },
  };
};

export type SharedFiles = ReturnType<typeof createSharedFiles>;
