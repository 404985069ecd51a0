import { createHash } from 'node:crypto';
import type { FileMention } from '@porch/core/conversation';
import type { Clock } from '../clock';
import type { Darkroom, Sending } from '../darkroom/darkroom';
import type { Write } from '../inbox/batch';
import { Refused } from '../refused';
import { type FileRecord, type Store, toMention } from '../store';
import { takeIn } from './intake';

const UNSENT_KEPT_MS = 24 * 3_600_000;

/** Who sends a file; a visitor's pictures take turns by the address that they come from. */
export type Uploader = { threadId: string; address: string } | { memberId: string };

const sendingOf = (by: Uploader): Sending =>
  'threadId' in by
    ? { lane: 'visitors', sender: by.address }
    : { lane: 'team', sender: by.memberId };

const hashOf = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('base64url');

export const createFiles = (services: {
  store: Store;
  clock: Clock;
  write: Write;
  darkroom: Darkroom;
}) => {
  const { store, clock, write, darkroom } = services;

  const isFrom = (file: FileRecord, by: Uploader): boolean =>
    'threadId' in by ? file.fromThread === by.threadId : file.fromMember === by.memberId;

  /** What is there under an id already; refuses when it is somebody else's, or something else. */
  const known = (id: string, sentHash: string, by: Uploader): FileMention | null => {
    const file = store.files.byId(id);
    if (!file) return null;
    const isSame = file.sentHash === null || file.sentHash === sentHash;
    if (!isFrom(file, by) || !isSame) throw new Refused('id-taken');
    return toMention(file);
  };

  return {
    /** Takes a file in under the id that the sender made; the same id twice is once. */
    take: async (id: string, name: string, bytes: Buffer, by: Uploader): Promise<FileMention> => {
      const sentHash = hashOf(bytes);
      const before = known(id, sentHash, by);
      if (before) return before;
      const { whole, thumbnail, ...facts } = await takeIn(darkroom, name, bytes, sendingOf(by));
      return write(() => {
        const meanwhile = known(id, sentHash, by);
        if (meanwhile) return { result: meanwhile, news: [] };
        const file: FileRecord = {
          id,
          fromThread: 'threadId' in by ? by.threadId : null,
          fromMember: 'memberId' in by ? by.memberId : null,
          inThread: null,
          name: facts.name,
          type: facts.type,
          width: facts.width,
          height: facts.height,
          sizeBytes: whole.length,
          sentHash,
        };
        store.files.add(file, { whole, thumbnail }, clock.now());
        return { result: toMention(file), news: [] };
      });
    },
    find: (id: string): FileRecord => {
      const file = store.files.byId(id);
      if (!file) throw new Refused('not-found');
      return file;
    },
    whole: (id: string): Buffer => store.files.whole(id) ?? Buffer.alloc(0),
    thumbnail: (id: string): Buffer | null => store.files.thumbnail(id),
    /** Drops what was uploaded and never sent. */
    tidy: (): void => store.files.dropUnsentBefore(clock.now() - UNSENT_KEPT_MS),
  };
};

export type Files = ReturnType<typeof createFiles>;
