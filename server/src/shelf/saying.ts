import {
  type FileMention,
  type ShelfSaid,
  type ThreadState,
  threadWrittenLast,
} from '@porch/core/conversation';
import { toEventCalendar } from '@porch/core/feeds';
import { isOver } from '@porch/core/shelf';
import { toShelfSaid } from '@porch/core/shelf/words';
import type { Clock } from '../clock';
import type { Asking } from '../doors/asking';
import type { Dressing } from '../dress/dressing';
import { voiceOf } from '../dress/voice';
import type { Files } from '../files/files';
import { JobFailed } from '../jobs/worker';
import { Refused } from '../refused';
import { newId } from '../security/tokens';
import {
  type ConversationRecord,
  type ShelfRecord,
  type Store,
  type ThreadRecord,
  toMention,
} from '../store';

/** So many can be chosen from beside an answer. */
const NEAR_MOST = 30;
/** Whoever answers waits for a picture that lies elsewhere. */
const PICTURE_LONGEST_MS = 6_000;

/** Putting things of the shelf into answers: as they are now, in the words of whoever reads them. */
export const createShelfSaying = (services: {
  store: Store;
  clock: Clock;
  dressing: Pick<Dressing, 'published'>;
  asking: Pick<Asking, 'fileAnywhere'>;
  files: () => Pick<Files, 'take'>;
  origin: () => string;
}) => {
  const { store, clock, dressing, asking, files, origin } = services;

  const pictureOf = ({ fileId }: ShelfRecord): FileMention[] => {
    const file = fileId === null ? null : store.files.byId(fileId);
    return file ? [toMention(file)] : [];
  };

  const saidAs = (
    thing: ShelfRecord,
    doorId: string,
    thread: ThreadState | null,
    more: FileMention[],
  ): ShelfSaid => {
    const { zone = 'UTC', country = '' } = store.business.read() ?? {};
    const dress = dressing.published(doorId);
    const voice = { ...voiceOf(dress, [thread?.language ?? '']), zone, country, now: clock.now() };
    return toShelfSaid(thing, [...pictureOf(thing), ...more], voice);
  };

  /** The free times of it that are still to come, as a file that calendars read. */
  const calendarOf = (thing: ShelfRecord, threadId: string, memberId: string): FileMention => {
    const now = clock.now();
    const host = new URL(origin()).hostname;
    const events = thing.starts
      .filter((at) => at > now)
      .map((at) => ({
        id: `${thing.id}.${at}@${host}`,
        title: thing.name,
        more: thing.text,
        place: thing.address,
        url: thing.link,
        startsAt: at,
        minutes: thing.minutes,
      }));
    const whole = Buffer.from(toEventCalendar(thing.name, events, now));
    const file = {
      id: newId(),
      fromThread: null,
      fromMember: memberId,
      inThread: threadId,
      name: `${thing.name.replace(/[/\\]/g, ' ')}.ics`,
      type: 'text/calendar',
      width: null,
      height: null,
      sizeBytes: whole.length,
      sentHash: null,
    };
    store.files.add(file, { whole, thumbnail: null }, now);
    return toMention(file);
  };

  const near = (conversation: ConversationRecord, thing: ShelfRecord): ShelfSaid => {
    const thread = threadWrittenLast(conversation.threads);
    return saidAs(thing, thread?.doorId ?? '', thread, []);
  };

  const findThing = (id: string): ShelfRecord => {
    const thing = store.shelf.byId(id);
    if (!thing) throw new Refused('shelf-gone', { field: id });
    if (isOver(thing, clock.now()))
      throw new Refused('offer-over', { field: id, what: thing.name });
    return thing;
  };

  /** Brings the picture of something here that lies elsewhere. It stays without one where it cannot be had. */
  const fetchPicture = async (thing: ShelfRecord, memberId: string): Promise<void> => {
    try {
      const signal = AbortSignal.timeout(PICTURE_LONGEST_MS);
      const bytes = await asking.fileAnywhere(thing.pictureUrl, signal);
      const mention = await files().take(newId(), thing.name, bytes, { memberId });
      if (mention.picture) store.atOnce(() => store.shelf.setFile(thing.id, mention.id));
    } catch (error) {
      if (!(error instanceof JobFailed || error instanceof Refused)) throw error;
    }
  };

  return {
    /** What can be put into an answer in a conversation: what was found, or what was put into one last. */
    near: (conversation: ConversationRecord, query: string): ShelfSaid[] => {
      const now = clock.now();
      const things = query.trim()
        ? store.shelf.search(query, null, now, NEAR_MOST)
        : store.shelf.used(now, NEAR_MOST);
      return things.map((thing) => near(conversation, thing));
    },
    /** Something as it would be said there, with its picture brought here where that lies elsewhere. */
    ready: async (
      conversation: ConversationRecord,
      id: string,
      memberId: string,
    ): Promise<ShelfSaid> => {
      const thing = findThing(id);
      if (thing.fileId === null && thing.pictureUrl) await fetchPicture(thing, memberId);
      return near(conversation, findThing(id));
    },
    /**
     * Things as they are said to somebody now; in the transaction that says them. Refuses what is over, or gone from
     * the shelf.
     */
    say: (
      ids: readonly string[],
      { id: threadId, doorId }: ThreadRecord,
      thread: ThreadState | null,
      memberId: string,
    ): ShelfSaid[] =>
      [...new Set(ids)].map((id) => {
        const thing = findThing(id);
        if (thing.fileId !== null) store.shelf.said(thing.fileId, threadId);
        store.shelf.use(id, clock.now());
        const calendar = thing.kind === 'slots' ? [calendarOf(thing, threadId, memberId)] : [];
        return saidAs(thing, doorId, thread, calendar);
      }),
  };
};

export type ShelfSaying = ReturnType<typeof createShelfSaying>;
