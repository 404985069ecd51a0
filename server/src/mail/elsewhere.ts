import { createHash } from 'node:crypto';
import { FILE_LARGEST_BYTES } from '@porch/contract/entries';
import type { PicturesElsewhere } from '@porch/contract/line';
import type { Entry, FileMention } from '@porch/core/conversation';
import type { Files } from '../files/files';
import type { Write } from '../inbox/batch';
import { Refused } from '../refused';
import type { Outside } from '../security/outside';
import { type MailPictureRecord, type Store, toMention } from '../store';
import { isTrackerBySize } from './pictures';

/** All pictures of a mail are waited for so long. */
const WAITED_LONGEST_MS = 20_000;
const REDIRECTS_MOST = 3;

const idOf = (threadId: string, entryId: string, at: number): string => {
  const mark = createHash('sha256').update(`${threadId} ${entryId}`).digest('base64url');
  return `elsewhere-${mark.slice(0, 24)}-${at}`;
};

const nameOf = (address: string): string =>
  new URL(address).pathname.split('/').at(-1) || 'picture';

/**
 * Pictures that a mail shows and does not carry. Nobody fetches them until somebody asks for them: whoever has them
 * learns by it that their mail is read. The house fetches them then, not whoever reads, and keeps them.
 */
export const createElsewhere = (services: {
  store: Store;
  write: Write;
  files: Pick<Files, 'take'>;
  outside: Outside;
}) => {
  const { store, write, files, outside } = services;

  /** The bytes of a picture; null: they cannot be had. */
  const bytesAt = async (
    address: string,
    signal: AbortSignal,
    left = REDIRECTS_MOST,
  ): Promise<Buffer | null> => {
    const headers = { accept: 'image/*' };
    // Nothing is fetched that others can read on its way; most have it the other way as well.
    const safe = outside.may(address) ? address : address.replace(/^http:/i, 'https:');
    const asked = {
      method: 'GET',
      address: safe,
      headers,
      largestBytes: FILE_LARGEST_BYTES,
      signal,
    };
    const answer = await outside.ask(asked).catch(() => null);
    if (!answer || answer.isCut) return null;
    const { status, headers: told, body } = answer;
    if (status === 200) return body;
    const isElsewhere = status >= 300 && status < 400 && told.location && left > 0;
    if (!isElsewhere || !URL.canParse(told.location ?? '', address)) return null;
    return bytesAt(new URL(told.location ?? '', address).href, signal, left - 1);
  };

  const fetched = async (
    { id: entryId, threadId }: Entry & { threadId: string },
    { at, address }: MailPictureRecord,
    signal: AbortSignal,
  ): Promise<FileMention | 'tracker' | null> => {
    const id = idOf(threadId, entryId, at);
    const bytes = store.files.byId(id) ? null : await bytesAt(address, signal);
    const known = store.files.byId(id);
    const file = known
      ? toMention(known)
      : bytes &&
        (await files
          .take(id, nameOf(address), bytes, { threadId, address: 'mail' })
          .catch((error) => {
            if (!(error instanceof Refused)) throw error;
            return null;
          }));
    if (!file?.picture) return null;
    if (isTrackerBySize(file.picture)) return 'tracker';
    await write(() => {
      store.files.attach(id, threadId);
      store.mailFacts.fetched(threadId, entryId, at, id);
      return { result: null, news: [] };
    });
    return file;
  };

  return {
    /** The pictures of a mail, and how many of them cannot be had. */
    show: async (entry: Entry): Promise<PicturesElsewhere> => {
      const { id, threadId } = entry;
      if (threadId === null) throw new Refused('not-found');
      const signal = AbortSignal.timeout(WAITED_LONGEST_MS);
      const shown: PicturesElsewhere = { files: [], missing: 0 };
      for (const picture of store.mailFacts.pictures(threadId, id)) {
        const file = await fetched({ ...entry, threadId }, picture, signal);
        if (file === null) shown.missing += 1;
        else if (file !== 'tracker') shown.files.push(file);
      }
      return shown;
    },
  };
};

export type Elsewhere = ReturnType<typeof createElsewhere>;
