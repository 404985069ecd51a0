import type { FileMention } from '@porch/core/conversation';
import type { Clock } from '../clock';
import type { Write } from '../inbox/batch';
import { Refused } from '../refused';
import { type FileRecord, type Store, toMention } from '../store';
import { takeIn } from './intake';

const UNSENT_KEPT_MS = 24 * 3_600_000;

export type Uploader = { visitorId: string } | { memberId: string };

/** One picture is decoded at a time: memory is bounded, whatever comes in at once. */
const createTurnstile = () => {
  let last: Promise<unknown> = Promise.resolve();
  return <Result>(work: () => Promise<Result>): Promise<Result> => {
    const mine = last.then(work, work);
    last = mine.catch(() => undefined);
    return mine;
  };
};

export const createFiles = (services: { store: Store; clock: Clock; write: Write }) => {
  const { store, clock, write } = services;
  const oneAtATime = createTurnstile();

  const isFrom = (file: FileRecord, by: Uploader): boolean =>
    'visitorId' in by ? file.visitorId === by.visitorId : file.memberId === by.memberId;

  const known = (id: string, by: Uploader): FileMention | null => {
    const file = store.files.byId(id);
    if (!file) return null;
    if (!isFrom(file, by)) throw new Refused('id-taken');
    return toMention(file);
  };

  return {
    /** Takes a file in under the id that the sender made; the same id twice is once. */
    take: async (id: string, name: string, bytes: Buffer, by: Uploader): Promise<FileMention> => {
      const before = known(id, by);
      if (before) return before;
      const { whole, thumbnail, ...facts } = await oneAtATime(() => takeIn(name, bytes));
      return write(() => {
        const meanwhile = known(id, by);
        if (meanwhile) return { result: meanwhile, news: [] };
        const file: FileRecord = {
          id,
          visitorId: 'visitorId' in by ? by.visitorId : null,
          memberId: 'memberId' in by ? by.memberId : null,
          conversationId: null,
          ...facts,
          sizeBytes: whole.length,
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
